/**
 * The sizes of a machine: its cards as nodes of a graph. An input is given by a person, solved for, linked to the brief, the cycle or
 * another card, or stands at its default. Values are computed when they are asked for, each once.
 */
import type { Value } from '../sheet/resolve'
import { sizingSchema, type SheetSizing } from '../sheet/schema'
import {
  familyOf,
  fluids,
  machineFields,
  machineValue,
  motionFields,
  motionValue,
  movementOf,
  supplies,
  type Brief,
  type MachineFieldName,
  type Motion,
  type MotionFieldName,
} from './brief/brief'
import { cycleOf, loadAt, type Cycle, type Demand } from './brief/cycle'
import { readValue, type Card, type InputVariable } from './card'
import { cards as allCards } from './cards'
import { evaluateCard, type Evaluation } from './evaluate'
import { standardSeries, type SeriesSet } from './series'
import { dependencies, solveCard } from './solve'

/** Where the value of an input comes from. */
export type Origin =
  | { readonly type: 'given' }
  | { readonly type: 'solved' }
  | { readonly type: 'default' }
  | { readonly type: 'brief'; readonly label: string; readonly motion?: string }
  | { readonly type: 'cycle'; readonly label: string }
  | {
      readonly type: 'card'
      readonly node: string
      readonly variable: string
      readonly label: string
      /** Where several cards give it together: how, and all of them. */
      readonly aggregate?: string
      readonly nodes?: readonly string[]
    }

export interface SizedNode extends Evaluation {
  /** Card, and motion where it has one: "cylinder-bore@press". */
  readonly id: string
  readonly card: Card
  readonly motion?: Motion
  readonly origins: Readonly<Record<string, Origin>>
  /** Other values of the unknown that would do as well, where one is solved for. */
  readonly otherSolutions: readonly number[]
  /** What was given for variables that the card does not have: it comes from an earlier version of the program. */
  readonly unused: readonly UnusedValue[]
}
export interface UnusedValue {
  readonly variable: string
  readonly text: string
}

export interface Sizing {
  readonly nodes: readonly SizedNode[]
  readonly cycle: Cycle
  find(id: string): SizedNode | undefined
}

export const nodeId = (card: Pick<Card, 'id'>, motion?: Pick<Motion, 'id'>) =>
  motion ? `${card.id}@${motion.id}` : card.id

/** Kinematic viscosity at 40 and 100 °C of mineral oil of a viscosity index of about 100, m²/s (ISO 3448, ISO 2909). */
const VISCOSITIES: Readonly<Record<keyof typeof fluids, readonly [number, number]>> = {
  vg15: [15e-6, 3.4e-6],
  vg22: [22e-6, 4.3e-6],
  vg32: [32e-6, 5.4e-6],
  vg46: [46e-6, 6.8e-6],
  vg68: [68e-6, 8.7e-6],
  vg100: [100e-6, 11.2e-6],
}

/** What the brief says beside its fields; each as an SI value or the name of an option. */
const briefDerived: Readonly<Record<string, { label: string; value(brief: Brief): Value }>> = {
  viscosity40: { label: 'Fluid, viscosity at 40 °C', value: (b) => VISCOSITIES[b.fluid][0] },
  viscosity100: { label: 'Fluid, viscosity at 100 °C', value: (b) => VISCOSITIES[b.fluid][1] },
  supply: { label: 'Supply', value: (b) => b.supply },
  grid: { label: 'Grid', value: (b) => b.grid },
  drive: { label: 'Drive', value: (b) => b.drive },
}
/** Greatest and least force of the load table of a motion, N; the workpiece is not in it. */
const extremesOfTable = (motion: Motion) => {
  if (!motion.loadTable.length) return undefined
  const { travel = 0 } = movementOf(motion)
  const plain = (loadTable: Motion['loadTable']) => ({
    ...motion,
    loadTable,
    values: { ...motion.values, workForce: '0 N' },
  })
  const constant = loadAt(plain([]), 0, motion.workWay)
  const forces = Array.from(
    { length: 101 },
    (_, i) => loadAt(plain(motion.loadTable), (travel * i) / 100, motion.workWay) - constant,
  )
  return { greatest: Math.max(...forces), least: Math.min(...forces) }
}
const motionDerived: Readonly<Record<string, { label: string; value(motion: Motion): Value | undefined }>> = {
  actuator: { label: 'Actuator', value: (m) => m.actuator },
  travel: { label: 'Stroke or angle', value: (m) => movementOf(m).travel },
  outTime: { label: 'Time out', value: (m) => movementOf(m).out },
  backTime: { label: 'Time back', value: (m) => movementOf(m).back ?? movementOf(m).out },
  torqueResisting: {
    label: 'Torque against it, out',
    // a torque that drives one way does not drive the other; what resists is there both ways unless it is said
    value: (m) => {
      const torque = motionValue(m, 'torqueOut')
      return torque === undefined ? undefined : Math.abs(torque)
    },
  },
  tableForce: { label: 'Greatest force of the load table', value: (m) => extremesOfTable(m)?.greatest },
  tableLeast: { label: 'Least force of the load table', value: (m) => extremesOfTable(m)?.least },
  holding: { label: 'Held by', value: (m) => m.holding },
  people: { label: 'People in its way', value: (m) => (m.people ? 'yes' : 'no') },
  mounting: { label: 'Mounting', value: (m) => m.mounting },
  speedControl: { label: 'Speed limited by', value: (m) => m.speedControl },
  workWay: { label: 'Workpiece met', value: (m) => m.workWay },
}
const cycleFields: Readonly<Record<string, { label: string; value(cycle: Cycle): number }>> = {
  peakFlow: { label: 'greatest flow of the cycle', value: (c) => c.flow.peak },
  meanFlow: { label: 'mean flow of the cycle', value: (c) => c.flow.mean },
  meanPower: { label: 'mean power of the cycle', value: (c) => c.power.mean },
  rmsPower: { label: 'r.m.s. power of the cycle', value: (c) => c.power.rms },
  pressure: { label: 'highest pressure of the cycle', value: (c) => c.pressure },
  volume: { label: 'oil used in a cycle', value: (c) => c.volume },
}

export const aggregates: Readonly<Record<string, (values: readonly number[]) => number>> = {
  max: (values) => Math.max(...values),
  min: (values) => Math.min(...values),
  sum: (values) => values.reduce((a, b) => a + b, 0),
}

const isOneOf = (actuators: NonNullable<Card['applies']['actuators']>, motion: Motion) =>
  actuators.includes(motion.actuator) || actuators.includes(familyOf(motion))

/** Whether a card is opened for a motion or the machine without being asked for. */
function appliesTo(card: Card, brief: Brief, motion?: Motion): boolean {
  const { actuators, holding, supply, onRequest } = card.applies
  if (onRequest) return false
  if (supply && !supply.includes(brief.supply)) return false
  if (!motion) {
    if (actuators && !brief.motions.some((m) => isOneOf(actuators, m))) return false
    return !holding || brief.motions.some((m) => holding.includes(m.holding))
  }
  if (actuators && !isOneOf(actuators, motion)) return false
  return !holding || holding.includes(motion.holding)
}

interface Slot {
  readonly id: string
  readonly card: Card
  readonly motion?: Motion
}
/** The cards of a machine, those added by hand included, in the order of the catalogue of cards. */
function slotsOf(brief: Brief, { added, hidden }: SheetSizing, cards: readonly Card[]): Slot[] {
  if (!brief.motions.length) return []
  return cards.flatMap((card) => {
    const motions = card.scope === 'motion' ? brief.motions : [undefined]
    return motions
      .map((motion): Slot => ({ id: nodeId(card, motion), card, motion }))
      .filter(
        ({ id, motion }) => !hidden.includes(id) && (added.includes(id) || appliesTo(card, brief, motion)),
      )
  })
}

interface LinkParts {
  readonly aggregate?: string
  readonly room: string
  readonly name: string
}
const knownLinks = new Map<string, LinkParts>()
/** "max:cylinder-motion.idleOut" in its parts. @throws Error where it is no link */
function partsOf(link: string): LinkParts {
  let parts = knownLinks.get(link)
  if (!parts) {
    const match = /^(?:(\w+):)?([\w-]+)\.(\w+)$/.exec(link)
    if (!match) throw new Error(`"${link}" is no link`)
    knownLinks.set(link, (parts = { aggregate: match[1], room: match[2], name: match[3] }))
  }
  return parts
}

/** What is known of a card while it is evaluated. */
interface Work {
  readonly written: Readonly<Record<string, string>>
  readonly given: Record<string, number | undefined>
  readonly origins: Record<string, Origin>
  readonly missing: Record<string, string>
  readonly problems: Map<string, string>
  readonly resolved: Set<string>
  /** Values that were asked for before the whole card was. */
  readonly values: Map<string, number | undefined>
  isSolving: boolean
}

type Found =
  | { readonly value: Value; readonly origin: Origin }
  /** `unknown`: the source is there and has no value; a default in its place would look like a result. */
  | { readonly missing: string; readonly unknown?: true }
const isFound = (found: Found): found is Extract<Found, { origin: Origin }> => 'origin' in found

/** The brief with the supply of the variant, where it is another one. */
export const withSupply = (brief: Brief, { supply }: Pick<SheetSizing, 'supply'>): Brief =>
  supply && supply in supplies && supply !== brief.supply
    ? { ...brief, supply: supply as Brief['supply'] }
    : brief

export const noDecisions = (): SheetSizing => sizingSchema.parse({})

/**
 * The sizes of a machine by its brief. A brief without motions has none.
 * @param decisions what was decided for the variant that is sized
 */
export function sizeMachine(
  machine: Brief,
  decisions: SheetSizing = noDecisions(),
  { series = standardSeries, cards = allCards }: { series?: SeriesSet; cards?: readonly Card[] } = {},
): Sizing {
  const brief = withSupply(machine, decisions)
  const slots = slotsOf(brief, decisions, cards)
  const slotById = new Map(slots.map((slot) => [slot.id, slot]))
  const slotsByCard = new Map<string, Slot[]>()
  for (const slot of slots) slotsByCard.set(slot.card.id, [...(slotsByCard.get(slot.card.id) ?? []), slot])
  const nodes = new Map<string, SizedNode>()
  const works = new Map<string, Work>()
  let cycle: Cycle | undefined

  const workOf = (slot: Slot): Work => {
    let work = works.get(slot.id)
    if (!work) {
      work = {
        written: { ...brief.cardValues[slot.id], ...decisions.values[slot.id] },
        given: {},
        origins: {},
        missing: {},
        problems: new Map(),
        resolved: new Set(),
        values: new Map(),
        isSolving: false,
      }
      works.set(slot.id, work)
      // results that are given stand in the place of what they are computed from
      for (const [name, variable] of Object.entries(slot.card.variables))
        if (variable.role !== 'input') resolve(slot, work, name)
    }
    return work
  }

  /** Looks up what is given for a variable, or what its links lead to. */
  function resolve(slot: Slot, work: Work, name: string): void {
    if (work.resolved.has(name)) return
    work.resolved.add(name)
    const { written, given, origins, missing, problems } = work
    const variable = slot.card.variables[name]
    const text = written[name]?.trim()
    if (text) {
      const read = readValue(variable, text)
      if ('message' in read) problems.set(name, read.message)
      else {
        given[name] = read.value
        origins[name] = { type: 'given' }
        return
      }
    }
    if (variable.role !== 'input') return
    // until its source is known: a card that would need itself finds this, and no default
    missing[name] = `${variable.label} would depend on itself.`
    const found = linked(variable, slot)
    delete missing[name]
    if (isFound(found)) {
      const value = typeof found.value === 'string' ? variable.options?.[found.value]?.value : found.value
      if (typeof value === 'number') {
        given[name] = value
        origins[name] = found.origin
        return
      }
    }
    origins[name] = { type: 'default' }
    if (isFound(found)) {
      if (variable.required) missing[name] = `${variable.label} is not given.`
    } else if (variable.required || found.unknown) missing[name] = found.missing
  }

  /** A value of a card, of which only that is computed on which it depends; nothing where it has none. SI. */
  function valueOf(slot: Slot, name: string): number | undefined {
    const done = nodes.get(slot.id)
    if (done) return done.values[name]
    const work = workOf(slot)
    if (decisions.solved[slot.id]) {
      if (work.isSolving) return undefined
      return evaluate(slot).values[name]
    }
    if (work.values.has(name)) return work.values.get(name)
    // a value that would depend on itself has none
    work.values.set(name, undefined)
    const only = dependencies(slot.card, name, work.given)
    for (const each of only) resolve(slot, work, each)
    const { given, missing } = work
    const value = evaluateCard(slot.card, given, { series, missing, only }).values[name]
    work.values.set(name, value)
    return value
  }

  function evaluate(slot: Slot): SizedNode {
    const done = nodes.get(slot.id)
    if (done) return done
    const { id, card, motion } = slot
    const work = workOf(slot)
    work.isSolving = true
    for (const name of Object.keys(card.variables)) resolve(slot, work, name)
    const { given, origins, missing } = work
    const problems = [...work.problems].map(([variable, message]) => ({ variable, message }))
    const unused = unusedOf(card, work.written)
    const prepared = { id, card, motion, given: { ...given }, origins, missing, problems, unused }
    const node = completed(prepared, decisions.solved[id], series)
    nodes.set(id, node)
    return node
  }

  /** What a machine gives an input: the first of its links that has a value. */
  function linked(variable: InputVariable, slot: Slot): Found {
    let missing = `${variable.label} is not given.`
    for (const link of variable.from) {
      const found = follow(link, slot)
      if (isFound(found) || found.unknown) return found
      missing = found.missing
    }
    return { missing }
  }

  function follow(link: string, { motion }: Slot): Found {
    const { aggregate, room, name } = partsOf(link)
    if (room === 'brief') return fromBrief(brief, name)
    if (room === 'motion') return fromMotion(motion!, name)
    if (room === 'cycle') {
      const { label, value } = cycleFields[name]
      const made = theCycle()
      if (!made.samples.some((s) => s.flow > 0))
        return {
          missing: `The ${label} is not known: the cycle has no motion that is sized.`,
          unknown: true,
        }
      return { value: value(made), origin: { type: 'cycle', label } }
    }
    const sources = slotsByCard.get(room) ?? []
    const wanted = aggregate ? sources : sources.filter((s) => !s.motion || s.motion.id === motion?.id)
    const known = wanted.flatMap((source) => {
      const value = valueOf(source, name)
      return value === undefined ? [] : [{ source, value }]
    })
    const from = wanted[0] ?? sources[0]
    const variable = from?.card.variables[name]
    if (!from) return { missing: `${room} is not among the cards of this machine.` }
    if (known.length < wanted.length || !known.length) {
      const failing = wanted.find((s) => !known.some((k) => k.source.id === s.id)) ?? from
      const whose = failing.motion ? ` of ${failing.motion.name}` : ''
      return {
        missing: `${variable.label} is not known: see "${failing.card.title}"${whose}.`,
        ...(wanted.length ? { unknown: true as const } : {}),
      }
    }
    const value = aggregate ? aggregates[aggregate](known.map((k) => k.value)) : known[0].value
    // one of several is named where its value is the one that is taken
    const { source } = known.find((k) => k.value === value) ?? known[0]
    const whose = source.motion && aggregate && known.length > 1 ? `, ${source.motion.name}` : ''
    return {
      value,
      origin: {
        type: 'card',
        node: source.id,
        variable: name,
        label:
          aggregate === 'sum' && known.length > 1
            ? `${source.card.title}, all`
            : `${source.card.title}${whose}`,
        ...(aggregate && known.length > 1 ? { aggregate, nodes: known.map((k) => k.source.id) } : {}),
      },
    }
  }

  function theCycle(): Cycle {
    if (cycle) return cycle
    const demands = new Map<Motion, Demand | undefined>()
    for (const motion of brief.motions) demands.set(motion, sizedDemand(motion))
    cycle = cycleOf(brief, (motion) => demands.get(motion))
    return cycle
  }

  function sizedDemand(motion: Motion): Demand | undefined {
    const slot = slots.find((s) => s.card.demand && s.motion?.id === motion.id)
    if (!slot) return undefined
    const links = (links: readonly string[]) => {
      if (!links.length) return 1
      const found = links.map((link) => follow(link, slot)).find(isFound)
      return typeof found?.value === 'number' ? found.value : undefined
    }
    const { out, back } = slot.card.demand!
    return demandOf(slot.card, (name) => valueOf(slot, name), {
      out: { speed: links(out.speed), load: links(out.load) },
      back: { speed: links(back.speed), load: links(back.load) },
    })
  }

  for (const slot of slots) evaluate(slot)
  return {
    nodes: slots.map((slot) => nodes.get(slot.id)!),
    cycle: theCycle(),
    find: (id) => (slotById.has(id) ? nodes.get(id) : undefined),
  }
}

type Reference = Readonly<Record<'out' | 'back', { speed?: number; load?: number }>>
/** @param reference speed and load of the machine for which the card gives flow and pressure */
export type Solved = SheetSizing['solved'][string]
const unusedOf = (card: Card, written: Readonly<Record<string, string>>): UnusedValue[] =>
  Object.entries(written).flatMap(([variable, text]) =>
    text && !(variable in card.variables) ? [{ variable, text }] : [],
  )

interface Prepared {
  readonly id: string
  readonly card: Card
  readonly motion?: Motion
  readonly given: Record<string, number | undefined>
  readonly origins: Record<string, Origin>
  readonly missing: Record<string, string>
  readonly problems: { variable: string; message: string }[]
  readonly unused: readonly UnusedValue[]
}
/** A node out of what it is given: what is unknown is solved for first. */
function completed(
  { id, card, motion, given, origins, missing, problems, unused }: Prepared,
  solved: Solved | undefined,
  series?: SeriesSet,
): SizedNode {
  let otherSolutions: readonly number[] = []
  if (solved) {
    const { unknown, wanted: name } = solved
    const value = given[name]
    if (value === undefined) problems.push({ variable: name, message: 'Give the value that is wanted.' })
    else {
      const solution = solveCard(card, given, { name, value }, unknown, series)
      if ('message' in solution) problems.push({ variable: unknown, message: solution.message })
      else {
        given[unknown] = solution.value
        otherSolutions = solution.others
        origins[unknown] = { type: 'solved' }
        delete missing[unknown]
      }
    }
  }
  const evaluation = evaluateCard(card, given, { series, missing })
  return {
    ...evaluation,
    problems: [...problems, ...evaluation.problems],
    id,
    card,
    motion,
    origins,
    otherSolutions,
    unused,
  }
}

function demandOf(card: Card, valueOf: (name: string) => number | undefined, reference: Reference): Demand {
  const values: Record<string, number | undefined> = {}
  for (const { flow, pressure, idlePressure } of [card.demand!.out, card.demand!.back])
    for (const name of [flow, pressure, idlePressure]) values[name] = valueOf(name)
  return {
    flow(way, speed) {
      const at = reference[way].speed
      const flow = values[card.demand![way].flow]
      return at && flow !== undefined ? (flow * speed) / at : undefined
    },
    // pressure is a straight line over the load
    pressure(way, load) {
      const { pressure, idlePressure } = card.demand![way]
      const idle = values[idlePressure]
      if (idle === undefined) return undefined
      const at = reference[way].load
      const highest = values[pressure]
      const slope = at && highest !== undefined ? (highest - idle) / at : 0
      return Math.max(0, idle + slope * load)
    },
  }
}

function fromBrief(brief: Brief, name: string): Found {
  const derived = briefDerived[name]
  if (derived) return { value: derived.value(brief), origin: { type: 'brief', label: derived.label } }
  const field = name as MachineFieldName
  const { label } = machineFields[field]
  const value = machineValue(brief, field)
  if (value === undefined) return { missing: `${label} is not given in the brief.` }
  return { value, origin: { type: 'brief', label } }
}

const labelOfMotionValue = (name: string) =>
  motionDerived[name]?.label ?? motionFields[name as MotionFieldName]?.label ?? name
function fromMotion(motion: Motion, name: string): Found {
  const derived = motionDerived[name]
  const label = labelOfMotionValue(name)
  const value = derived ? derived.value(motion) : motionValue(motion, name as MotionFieldName)
  if (value === undefined) return { missing: `${label} of ${motion.name} is not given in the brief.` }
  return { value, origin: { type: 'brief', label, motion: motion.id } }
}

/** A card by itself, as a calculator: its inputs at their defaults but for those that are given. */
export function freeCard(
  card: Card,
  written: Readonly<Record<string, string>>,
  solved?: Solved,
  series?: SeriesSet,
): SizedNode {
  const given: Record<string, number> = {}
  const problems: { variable: string; message: string }[] = []
  const origins: Record<string, Origin> = {}
  for (const [name, variable] of Object.entries(card.variables)) {
    const text = written[name]?.trim()
    if (variable.role === 'input') origins[name] = { type: 'default' }
    if (!text) continue
    const read = readValue(variable, text)
    if ('message' in read) problems.push({ variable: name, message: read.message })
    else {
      given[name] = read.value
      origins[name] = { type: 'given' }
    }
  }
  const unused = unusedOf(card, written)
  return completed({ id: card.id, card, given, origins, missing: {}, problems, unused }, solved, series)
}

/** Links to what the brief and the cycle give beside their fields, for the test that all of them are used. */
export const linkNames = (): string[] => [
  ...Object.keys(briefDerived).map((name) => `brief.${name}`),
  ...Object.keys(motionDerived).map((name) => `motion.${name}`),
  ...Object.keys(cycleFields).map((name) => `cycle.${name}`),
]

/** Every link that a card may write, for the test that all of them lead somewhere. */
export function linkExists(link: string, cards: readonly Card[] = allCards): boolean {
  const { aggregate, room, name } = partsOf(link)
  if (aggregate && !(aggregate in aggregates)) return false
  if (room === 'brief') return name in briefDerived || name in machineFields
  if (room === 'motion') return name in motionDerived || name in motionFields
  if (room === 'cycle') return name in cycleFields
  return !!cards.find((c) => c.id === room)?.variables[name]
}
