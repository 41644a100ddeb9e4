/**
 * Proofs by exploring the states of the logic alone: every order of presses, switches, relays and timers. Relays and timers change in
 * any order here, which is more than their times allow: what never happens here never happens. What does is replayed with the times.
 */
import type { Sheet } from '../sheet/schema'
import type { ControlOutput } from '../simulate/control-interface'
import { nameOf } from '../sheet/schema'
import { switchFacts, type Exclusion } from './facts'
import { copyOf, Logic, Unstable, type LogicState, type Surroundings } from './logic'
import { readControl, type Program } from './program'
import { relevantControl } from './relevant'
import { racesAt } from './races'
import { contactUses } from './rules/rule'

/** Something that happens, in the shortest order that leads to what must not be. */
export type ProofEvent =
  | { readonly kind: 'input'; readonly device: string; readonly input: string; readonly value: number }
  | { readonly kind: 'switch'; readonly component: string; readonly on: boolean }
  /** A relay or a timer changes, or the time of a step is over. */
  | { readonly kind: 'change'; readonly device: string }

export interface Proof {
  readonly id: string
  /** What must never be. */
  readonly name: string
  /**
   * proved: no order of events leads there. refuted: this one does, with the times of the relays. orders: only an order that the times
   * exclude does. chance: only causes that come at exactly one instant do, and a run reports it. unfinished: there are too many states. watched: it is about the machine, not the logic, and seen in runs only.
   */
  readonly outcome: 'proved' | 'refuted' | 'orders' | 'chance' | 'unfinished' | 'watched'
  /** States that were seen. */
  readonly states: number
  readonly events: readonly ProofEvent[]
}

export interface Property {
  readonly id: string
  readonly name: string
  readonly watched?: boolean
  /** Time between things that happen independently of each other, s: 0 where they may happen at one instant. */
  readonly apart?: number
  /** @param at whether no relay is about to change, and the instant, s, where times count @returns whether, or between which devices */
  violated(
    state: LogicState,
    around: Around,
    at: { readonly rest: boolean; readonly time?: number },
  ): boolean | string
}

/** Places that are kept of what a property finds, of each kind: the first may be an order that the times exclude. */
const MOST_CANDIDATES = 5
const MOST_STATES = 200_000
/** Less than the time of any relay, s. */
const APART = 1e-6
/** Relays and timers that are about to change, of which every selection is tried. */
const MOST_TOGETHER = 6

/** All selections of at least one. */
function subsetsOf(list: readonly number[]): number[][] {
  return list.reduce<number[][]>((all, item) => [...all, [item], ...all.map((one) => [...one, item])], [])
}

/** What surrounds the logic in a state, and what a proof remembers of the past. */
interface Around {
  readonly on: ReadonlySet<string>
  readonly inputs: ReadonlyMap<string, number>
  /** The supply was lost and everything dropped, and nobody has pressed anything since. */
  readonly afterLoss: boolean
}
interface Place {
  readonly state: LogicState
  readonly around: Around
  readonly from: number
  readonly event?: ProofEvent
}

/** Key of an input: made once, for it is asked for at every state. */
const inputKeys = new Map<string, Map<string, string>>()
function inputKey(id: string, name: string): string {
  let own = inputKeys.get(id)
  if (!own) inputKeys.set(id, (own = new Map()))
  let key = own.get(name)
  if (key === undefined) own.set(name, (key = `${id}.${name}`))
  return key
}
const surroundings = ({ on, inputs }: Around): Surroundings => ({
  isOn: (component) => on.has(component),
  input: (id, name) => inputs.get(inputKey(id, name)) ?? 0,
  sound: true,
})

/** Whether somebody holds a button down. */
const isHeld = ({ devices }: Program, { inputs }: Around): boolean =>
  devices.some(({ device, type, values }) =>
    (type.inputs?.(values) ?? []).some(
      (input: { name: string; momentary?: true }) =>
        input.momentary && (inputs.get(`${device.id}.${input.name}`) ?? 0) > 0.5,
    ),
  )

/** Whether no relay is about to change. */
const isSettled = ({ devices }: Program, state: LogicState): boolean =>
  state.devices.every(({ due }, i) => due === Infinity || devices[i].type.freeDelay)
/** Whether all relays have dropped out. */
const isDropped = ({ devices }: Program, state: LogicState): boolean =>
  !state.devices.some(({ on }, i) => devices[i].type.settlesAtStart && on)

/** Whether something that moves the machine has current. */
const moves = (program: Program, state: LogicState): boolean =>
  program.targets.some((t, i) => 'component' in t && state.currents[i]) ||
  program.driving.some(({ device }) =>
    program.devices[device].type.coils ? state.devices[device].on : false,
  )

export class Explorer {
  private readonly program: Program
  private readonly logic: Logic
  private readonly exclusions: readonly Exclusion[]
  private readonly switches: readonly string[]
  private readonly properties: readonly Property[]
  private readonly places: Place[] = []
  private readonly seen = new Set<string>()
  /** Places where a property is violated, by its identifier and what it names. */
  private readonly found = new Map<string, Map<boolean | string, number[]>>()
  private next = 0
  /** Something was met that could not be followed. */
  private incomplete = false

  /** @param part the part of it that is explored @param only claims that are looked at; all where none are named */
  constructor(sheet: Sheet, part: Sheet = relevantControl(sheet), only?: ReadonlySet<string>) {
    const whole = readControl(sheet)
    if (whole.findings.length) throw new Error(whole.findings[0].message)
    const { program } = readControl(part)
    const used = new Set(contactUses(part).map(({ ref }) => ref))
    // a contact that nothing asks for is not worked out
    this.program = { ...program, sources: new Map([...program.sources].filter(([ref]) => used.has(ref))) }
    this.logic = new Logic(this.program)
    this.exclusions = switchFacts(sheet)
    this.switches = [...this.program.sources.values()].flatMap((source) =>
      source.from === 'switch' ? [source.component] : [],
    )
    this.properties = propertiesOf(part, this.program, this.logic).filter(({ id }) => !only || only.has(id))
    const state = this.logic.initial()
    const around: Around = { on: new Set(), inputs: restInputs(this.program), afterLoss: false }
    this.logic.settle(state, surroundings(around))
    this.add({ state, around, from: -1 })
  }

  get states(): number {
    return this.places.length
  }
  /** Whether all has been seen, or too much. */
  get done(): boolean {
    return this.next >= this.places.length || this.places.length > MOST_STATES
  }
  /** Goes on with some states. */
  explore(states: number): void {
    for (let i = 0; i < states && !this.done; i++) this.expand(this.next++)
  }
  proofs(): Proof[] {
    // a start that the stated facts exclude has no states, and proves nothing
    const complete = this.places.length > 0 && this.complete
    return this.properties.map((property): Proof => {
      const { id, name, watched } = property
      const states = this.places.length
      if (watched) return { id, name, outcome: 'watched', states: 0, events: [] }
      const found = [...(this.found.get(id)?.values() ?? [])].flat().sort((a, b) => a - b)
      if (!found.length) return { id, name, outcome: complete ? 'proved' : 'unfinished', states, events: [] }
      const orders = found.map((at) => this.eventsTo(at))
      const real = orders.find((events) => this.happens(events, property))
      const excluded = property.apart ? 'chance' : 'orders'
      return { id, name, outcome: real ? 'refuted' : excluded, states, events: real ?? orders[0] }
    })
  }

  /** Whether every state has been seen that any order of events leads to. */
  get complete(): boolean {
    return this.next >= this.places.length && !this.incomplete
  }
  /** What it gives the machine in each state in which no relay is about to change; values that may vary all the time are left out. */
  outputsAtRest(): ControlOutput[][] {
    return this.places
      .filter(({ state }) => isSettled(this.program, state))
      .map(({ state }) => this.logic.outputs(state, ({ type }) => !!type.coils))
  }

  private eventsTo(at: number): ProofEvent[] {
    const events: ProofEvent[] = []
    for (let i = at; i >= 0; i = this.places[i].from) {
      const { event } = this.places[i]
      if (event) events.unshift(event)
    }
    return events
  }

  private add(place: Place): void {
    const { state, around } = place
    if (this.isExcluded(state, around)) return
    const key = keyOf(state, around)
    if (this.seen.has(key)) return
    this.seen.add(key)
    this.places.push(place)
    const rest = isSettled(this.program, state)
    for (const { id, violated } of this.properties) {
      const what = violated(state, around, { rest })
      if (!what) continue
      const found = this.found.get(id) ?? new Map<boolean | string, number[]>()
      this.found.set(id, found)
      const places = found.get(what) ?? []
      found.set(what, places)
      if (places.length < MOST_CANDIDATES) places.push(this.places.length - 1)
    }
  }
  /** Facts about the machine, drawn or stated. */
  private isExcluded(state: LogicState, { on }: Around): boolean {
    if (this.exclusions.some(({ all }) => all.every((component) => on.has(component)))) return true
    return this.program.requirements.some(
      ({ assumed, never }) => assumed && never !== undefined && this.logic.passes(never, state, 0),
    )
  }

  private expand(at: number): void {
    const { state } = this.places[at]
    const { program } = this
    const around = this.remembering(this.places[at].around, state)
    const go = (event: ProofEvent, change: (s: LogicState) => void, next: Around) => {
      const copy = copyOf(state)
      change(copy)
      try {
        this.logic.solve(copy, surroundings(next), 0)
      } catch (error) {
        if (!(error instanceof Unstable)) throw error
        // where it goes from here is not known: nothing is proved
        this.incomplete = true
        return
      }
      this.add({ state: copy, around: next, from: at, event })
    }
    // what changes by itself: one alone, or several at one instant, as relays of one time do
    const pending = state.devices.flatMap(({ due }, i) => (due < Infinity ? [i] : []))
    if (pending.length > MOST_TOGETHER) this.incomplete = true
    for (const group of subsetsOf(pending.slice(0, MOST_TOGETHER))) {
      const names = group.map((i) => program.devices[i].device.id)
      go(
        { kind: 'change', device: names.join(' and ') },
        (s) => {
          for (const i of group) s.devices[i].due = 0
          this.logic.expire(s, 0, (d) => group.includes(d))
        },
        around,
      )
    }
    program.sequences.forEach(({ steps }, q) =>
      steps.forEach((step, i) => {
        const own = state.steps[q]
        if (own.active[i] && own.since[i] === 0 && this.isTimed(q, i))
          go(
            { kind: 'change', device: `${program.sequences[q].id}.${step.id}` },
            (s) => {
              s.steps[q].since[i] = -Infinity
            },
            around,
          )
      }),
    )
    // the machine
    for (const component of this.switches) {
      const on = new Set(around.on)
      const now = !on.delete(component)
      if (now) on.add(component)
      go({ kind: 'switch', component, on: now }, () => undefined, { ...around, on })
    }
    for (const { device } of program.watching) {
      const own = program.devices[device]
      const values = own.type.outputs ? [-1, 0, 1] : [0, 1]
      for (const value of values) {
        const before = state.devices[device]
        if ((own.type.outputs ? before.count : Number(before.on)) === value) continue
        go(
          { kind: 'change', device: own.device.id },
          (s) => {
            s.devices[device].count = value
            s.devices[device].on = value > 0
          },
          around,
        )
      }
    }
    // people, and the supply
    for (const { device, type, values } of program.devices) {
      for (const input of type.inputs?.(values) ?? []) {
        if (!input.positions) continue
        for (const { value } of input.positions as readonly { value: number }[]) {
          const key = `${device.id}.${input.name}`
          if ((around.inputs.get(key) ?? 0) === value) continue
          const inputs = new Map(around.inputs).set(key, value)
          const pressing = value > 0
          go({ kind: 'input', device: device.id, input: input.name, value }, () => undefined, {
            ...around,
            inputs,
            afterLoss: around.afterLoss && !pressing,
          })
        }
      }
      if (type.suppliesControl) {
        const key = `${device.id}.lost`
        const value = 1 - (around.inputs.get(key) ?? 0)
        const next = { ...around, inputs: new Map(around.inputs).set(key, value) }
        // who holds a button while the voltage comes back starts it on purpose
        const started = value === 0 && isHeld(program, next)
        go({ kind: 'input', device: device.id, input: 'lost', value }, () => undefined, {
          ...next,
          afterLoss: next.afterLoss && !started,
        })
      }
    }
  }
  /** Remembers a loss of the supply from where everything has dropped. */
  private remembering(around: Around, state: LogicState): Around {
    const { supply, devices } = this.program
    if (supply < 0 || around.afterLoss) return around
    const lost = surroundings(around).input(devices[supply].device.id, 'lost') > 0.5
    const dropped = isSettled(this.program, state) && isDropped(this.program, state)
    return lost && dropped ? { ...around, afterLoss: true } : around
  }
  private isTimed(sequence: number, step: number): boolean {
    const { steps, transitions } = this.program.sequences[sequence]
    if (steps[step].actions.some(({ time }) => time > 0)) return true
    const id = `${this.program.sequences[sequence].id}.${steps[step].id}`
    const asks = (text: string) => text.includes(`"${id}"`)
    return (
      transitions.some((t) => asks(JSON.stringify(t.condition ?? ''))) ||
      this.program.paths.some((p) => asks(JSON.stringify(p.expression ?? '')))
    )
  }

  /** Replays events with the times of the relays. @returns whether what must not be was there */
  private happens(events: readonly ProofEvent[], { violated, apart }: Property): boolean {
    // what people and the machine do comes at once, or just before a relay changes
    return [false, true].some((late) => {
      let seen = false
      const visit: Visit = (state, around, time) => {
        seen ||= !!violated(state, around, { rest: isSettled(this.program, state), time })
      }
      replayEvents(this.logic, events, late, visit, apart)
      return seen
    })
  }
}

type Visit = (state: LogicState, around: Around, t: number) => void

/**
 * Plays events with the times of relays and timers. @param late whether they come just before a pending change, or at once
 * @param visit called with each state, with its instant, s @param apart time between two events, s
 */
export function replayEvents(
  logic: Logic,
  events: readonly ProofEvent[],
  late: boolean,
  visit: Visit,
  apart = 0,
): void {
  const { program } = logic
  const state = logic.initial()
  let around: Around = { on: new Set(), inputs: restInputs(program), afterLoss: false }
  let t = 0
  let lost = false
  logic.settle(state, surroundings(around))
  visit(state, around, t)
  const step = (until: number) => {
    for (let next = logic.nextDue(state, t); next <= until; next = logic.nextDue(state, t)) {
      t = next
      logic.expire(state, t, undefined, surroundings(around))
      logic.solve(state, surroundings(around), t)
      remember()
      visit(state, around, t)
    }
  }
  const remember = () => {
    const dropped = isSettled(program, state) && isDropped(program, state)
    if (lost && dropped) around = { ...around, afterLoss: true }
  }
  for (const [i, event] of events.entries()) {
    if (event.kind === 'change') {
      // what watches the machine is set; relays and timers take their time
      const device = program.devices.findIndex((d) => d.device.id === event.device)
      const next = logic.nextDue(state, t)
      if (device < 0 || state.devices[device].due < Infinity) {
        if (next < Infinity) step(next)
      } else state.devices[device].on = !state.devices[device].on
      continue
    }
    const waits = events[i + 1]?.kind === 'change'
    const next = logic.nextDue(state, t)
    if (late && next < Infinity) t = Math.max(t + apart, next - 1e-4)
    else t += !waits && next === Infinity ? 0.5 : apart
    if (event.kind === 'switch') {
      const on = new Set(around.on)
      if (event.on) on.add(event.component)
      else on.delete(event.component)
      around = { ...around, on }
    } else {
      const { type } = program.devices.find((d) => d.device.id === event.device)!
      around = {
        ...around,
        inputs: new Map(around.inputs).set(`${event.device}.${event.input}`, event.value),
      }
      if (type.suppliesControl) {
        lost = event.value > 0.5
        if (!lost && isHeld(program, around)) around = { ...around, afterLoss: false }
      } else if (event.value > 0) around = { ...around, afterLoss: false }
    }
    logic.solve(state, surroundings(around), t)
    remember()
    visit(state, around, t)
  }
  step(t + 1)
}

function restInputs({ devices }: Program): ReadonlyMap<string, number> {
  return new Map(
    devices.flatMap(({ device, type, values }) =>
      (type.inputs?.(values) ?? []).map(
        (input: { name: string; rest: number | string }): [string, number] => [
          `${device.id}.${input.name}`,
          Number(input.rest),
        ],
      ),
    ),
  )
}

const aroundKeys = new WeakMap<Around, string>()
function aroundKey(around: Around): string {
  let key = aroundKeys.get(around)
  if (key === undefined) {
    const { on, inputs, afterLoss } = around
    key = `${[...on].sort().join()}|${[...inputs.values()].join()}|${afterLoss ? '1' : '0'}`
    aroundKeys.set(around, key)
  }
  return key
}
/** What distinguishes states; times do not. */
function keyOf(state: LogicState, around: Around): string {
  let key = ''
  for (const d of state.devices) {
    key += (d.on ? '1' : '0') + (d.due < Infinity ? '1' : '0')
    for (const coil of d.coils) key += coil ? '1' : '0'
    key += d.count ? `${d.count} ` : ' '
  }
  for (const { active, since } of state.steps)
    for (let i = 0; i < active.length; i++) key += active[i] ? (since[i] === 0 ? '1' : '2') : '0'
  for (const stored of state.stored) key += stored ? '1' : '0'
  return key + aroundKey(around)
}

export function propertiesOf(sheet: Sheet, program: Program, logic: Logic): Property[] {
  const properties: Property[] = []
  const byComponent = new Map<string, number[]>()
  program.targets.forEach((t, i) => {
    if ('component' in t && t.input.startsWith('coil'))
      byComponent.set(t.component, [...(byComponent.get(t.component) ?? []), i])
  })
  for (const [component, coils] of byComponent) {
    if (coils.length < 2) continue
    const name = nameOf(sheet.components.find((c) => c.id === component)!)
    properties.push({
      id: `both-coils ${component}`,
      name: `both solenoids of ${name} have current`,
      violated: (state) => coils.every((i) => state.currents[i]),
    })
  }
  const stops = program.devices.filter(({ type }) => type.stopsMotion)
  if (stops.length)
    properties.push({
      id: 'motion-with-emergency-stop',
      name: 'something moves with the emergency stop pressed',
      violated: (state, { inputs }, { rest }) =>
        rest &&
        stops.some(({ device }) => (inputs.get(`${device.id}.pressed`) ?? 0) > 0.5) &&
        moves(program, state),
    })
  if (program.supply >= 0)
    properties.push({
      id: 'restart',
      name: 'something moves after the control voltage has come back, before anybody presses anything',
      violated: (state, { afterLoss, inputs }) =>
        afterLoss &&
        (inputs.get(`${program.devices[program.supply].device.id}.lost`) ?? 0) < 0.5 &&
        moves(program, state),
    })
  const relays = program.devices.flatMap(({ type }, i) => (type.settlesAtStart ? [i] : []))
  if (relays.length > 1)
    properties.push({
      id: 'race',
      name: 'relays change at one instant, and what follows depends on which of them is first (a race)',
      // relays that different causes bring to one instant are chance, and no fault of the drawing
      apart: APART,
      violated(state, around, { time }) {
        const pending = relays.filter((i) => state.devices[i].due < Infinity)
        if (pending.length < 2) return false
        if (time !== undefined) {
          const due = Math.min(...pending.map((i) => state.devices[i].due))
          return racesAt(logic, state, surroundings(around), due).length > 0
        }
        // without times, all that are about to change may do so at one instant
        const together = copyOf(state)
        for (const i of pending) together.devices[i].due = 0
        if (!racesAt(logic, together, surroundings(around), 0).length) return false
        return pending.map((i) => program.devices[i].device.id).join(' ')
      },
    })
  const virtual = new Set(
    program.devices.filter(({ type, values }) => type.isVirtual?.(values)).map(({ device }) => device.id),
  )
  for (const { id, name, never, assumed } of program.requirements) {
    if (assumed || !never) continue
    properties.push({
      id,
      name,
      watched: [...virtual].some((device) => JSON.stringify(never).includes(`"${device}"`)),
      violated: (state) => logic.passes(never, state, 0),
    })
  }
  return properties
}
