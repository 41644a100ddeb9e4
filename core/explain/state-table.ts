/**
 * The states of a machine as a table: for each combination of commands and motions that its schedules reach, and each that was added, the
 * operating point, solved from that state with commands as they stand.
 */
import { Power, type InputSpec, type Show } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { compiledMachine, devicesOf } from '../control/run'
import { resolveComponent } from '../sheet/resolve'
import { nameOf, type Sheet, type SheetState } from '../sheet/schema'
import type { Network } from '../simulate/circuit/network'
import type { RunResult } from '../simulate/result'
import { findSteadyState } from '../simulate/steady-state'
import type { Quantity } from '../units/quantities'
import { parseQuantity } from '../units/text'
import { Moments } from './moment'
import { directionOf, moversOf, type Mover } from './movers'
import { LONGEST, settle, type Settled } from './settle'
import { LinePorts, pressureStack, type Stack } from './stack'
import { measuringPlaces, walkthroughOf, type WalkthroughState } from './walkthrough'
import { instantText, partName, sentence, withoutNoise } from './words'

export type ColumnGroup = 'commands' | 'control' | 'pressures' | 'flows' | 'motion' | 'supply' | 'power'
export interface StateColumn {
  readonly key: string
  readonly group: ColumnGroup
  readonly label: string
  readonly quantity: Quantity
  readonly part?: string
  /** What either direction of a motion is called. */
  readonly verbs?: { readonly forward: string; readonly back: string; readonly still: number }
}
export interface StateCell {
  /** SI; with a range where there is no steady point. */
  readonly value: number
  readonly range?: readonly [least: number, most: number]
  /** In words, where a number alone would not do: "position a", "extends". */
  readonly text?: string
  /** What sets the pressure. */
  readonly fixedBy?: Stack['fixedBy']
}
export interface StateRow {
  /** What begins it and what moves, in a sentence; or the name of one that was added. */
  readonly title: string
  /** Where it is met. */
  readonly met: readonly { readonly schedule: string; readonly at: number }[]
  readonly outcome: Settled['outcome']
  /** The part that ran to its stop. */
  readonly stopped?: string
  readonly cells: readonly StateCell[]
}
export interface StateTable {
  readonly columns: readonly StateColumn[]
  readonly rows: readonly StateRow[]
}

interface Figure extends StateColumn {
  read(network: Network): number
  text?(value: number): string
  /** Line whose pressure it is. */
  readonly line?: number
}

/**
 * @param runOf a recorded run of each schedule @param show for the titles of the states @param added beside what the schedules reach
 * @throws Error where the sheet cannot be simulated
 */
export function stateTable(
  sheet: Sheet,
  runOf: (schedule: string) => RunResult,
  show: Show,
  added: readonly SheetState[] = [],
): StateTable {
  const found: Found[] = []
  let figures: Figure[] = []
  for (const { id } of sheet.schedules) {
    const result = runOf(id)
    const moments = new Moments(sheet, result)
    const movers = moversOf(sheet, result)
    figures = figuresOf(moments, result, movers)
    for (const state of walkthroughOf(moments, result, show)) {
      moments.showRecorded(result, state.shownAt)
      const { outcome, part, cells } = solved(moments, state, figures)
      const key = keyOf(figures, cells, movers)
      const met = { schedule: id, at: state.t }
      const known = found.find((f) => f.key === key && isSame(f.cells, cells, figures))
      if (known) known.met.push(met)
      else
        found.push({
          key,
          title: state.cause ? sentence(state.cause) : state.summary,
          met: [met],
          outcome,
          stopped: part,
          cells,
        })
    }
  }
  const result = sheet.schedules[0] && runOf(sheet.schedules[0].id)
  if (result)
    for (const { name, commands } of added) {
      const { outcome, part, cells } = restWith(sheet, result, commands, figures)
      found.push({ key: '', title: name, met: [], outcome, stopped: part, cells })
    }
  return compact(figures, found)
}

/** Of a state that ends by itself so much of the rest of it is solved, and so much at least, s. */
const WITHIN = 0.9
const SHORTEST = 0.05
/** The operating point from the instant that is shown. */
function solved(moments: Moments, { shownAt, end, endsBy }: WalkthroughState, figures: readonly Figure[]) {
  const { network } = moments
  const y = moments.state()
  const modes = network.arrays.mode.slice()
  const { outcome, part, least, most } = settle(
    network,
    y,
    shownAt,
    figures.length,
    (into) => figures.forEach((f, i) => (into[i] = f.read(network))),
    // what ends the state by itself is another state
    endsBy === 'effect' ? Math.min(LONGEST, Math.max(SHORTEST, WITHIN * (end - shownAt))) : LONGEST,
  )
  const cells = cellsOf(network, figures, outcome === 'steady' ? undefined : { least, most })
  network.arrays.mode.set(modes)
  network.invalidate()
  const isSteady = outcome === 'changes' && !cells.some((c) => c.range)
  return { outcome: isSteady ? ('steady' as const) : outcome, part, cells }
}

/** The rest that a combination of commands leads to from where the machine is drawn. */
function restWith(
  sheet: Sheet,
  result: RunResult,
  commands: SheetState['commands'],
  figures: readonly Figure[],
) {
  const moments = new Moments(sheet, result)
  const { network } = moments
  for (const { component, input: name, value } of commands) {
    const input = network.inputs.find(component, name)
    if (input < 0) throw new Error(`${partName(sheet, component)} has no command "${name}".`)
    const { spec } = network.inputs.inputs[input]
    const read = parseQuantity(value, spec.quantity)
    if (!read.ok) throw new Error(`${partName(sheet, component)}, ${spec.label}: ${read.message}`)
    network.inputs.set(input, Math.min(spec.max, Math.max(spec.min, read.si)), 'hand')
  }
  network.unfreezeInputs()
  const { settings } = compiledMachine(sheet, result.schedule)
  const { converged } = findSteadyState(network, settings.tolerance)
  network.freezeInputs(0)
  network.invalidate()
  network.observe(0, network.initial)
  return {
    outcome: converged ? ('steady' as const) : ('changes' as const),
    part: undefined,
    cells: cellsOf(network, figures),
  }
}

function cellsOf(
  network: Network,
  figures: readonly Figure[],
  range?: { readonly least: Float64Array; readonly most: Float64Array },
): StateCell[] {
  const ports = new LinePorts(network)
  return figures.map((figure, i): StateCell => {
    const value = figure.read(network)
    const text = figure.text?.(value)
    const spread = range && range.most[i] - range.least[i]
    const least = figure.verbs?.still ?? 0
    const isRange =
      spread !== undefined &&
      spread > Math.max(least, SPREAD * Math.abs(range!.most[i])) &&
      text === undefined
    return {
      value,
      ...(isRange ? { range: [range!.least[i], range!.most[i]] as const } : {}),
      ...(text === undefined ? {} : { text }),
      ...(figure.line === undefined ? {} : { fixedBy: pressureStack(ports, figure.line).fixedBy }),
    }
  })
}

/** Share of a value from which on its range is told. */
const SPREAD = 0.02
interface Found {
  readonly key: string
  readonly title: string
  readonly met: { readonly schedule: string; readonly at: number }[]
  readonly outcome: Settled['outcome']
  readonly stopped?: string
  readonly cells: readonly StateCell[]
}

/** States with the same commands, contacts and motions have one key. */
const keyOf = (figures: readonly Figure[], cells: readonly StateCell[], movers: readonly Mover[]) =>
  figures
    .map(({ group }, i) => {
      const { value } = cells[i]
      if (group === 'commands') return value.toFixed(2)
      if (group === 'control') return value > 0.5 ? 1 : 0
      if (group !== 'motion') return ''
      const mover = movers.find((m) => m.component === figures[i].part)!
      return directionOf(value, mover.still)
    })
    .join()
/** Pressures of one state agree to this share, or this many Pa. */
const ALIKE = 0.15
const ALIKE_PRESSURE = 5e5
/** Whether two states of one key are the same: their pressures agree. */
const isSame = (a: readonly StateCell[], b: readonly StateCell[], figures: readonly Figure[]) =>
  figures.every(
    ({ group }, i) =>
      group !== 'pressures' ||
      Math.abs(a[i].value - b[i].value) < Math.max(ALIKE_PRESSURE, ALIKE * Math.abs(b[i].value)),
  )

/** All that a state is described by. */
function figuresOf(moments: Moments, result: RunResult, movers: readonly Mover[]): Figure[] {
  const { sheet, network } = moments
  const devices = new Map(devicesOf(sheet).map((device) => [device.id, device]))
  const element = (id: string) => moments.element(id)
  const commands = network.inputs.inputs.flatMap(
    ({ component, spec, fault, restParameter }, input): Figure[] => {
      if (fault || spec.ofLoad || restParameter !== undefined || devices.has(component)) return []
      const owner = sheet.components.find((c) => c.id === component)
      if (!owner) return []
      return [
        {
          key: `${component}.${spec.name}`,
          group: 'commands',
          label: spec.label === 'command' ? nameOf(owner) : `${nameOf(owner)} ${spec.label.split(',')[0]}`,
          quantity: spec.quantity === 'ratio' && !spec.positions ? 'share' : spec.quantity,
          part: component,
          read: ({ arrays }) => arrays.u[input],
          ...(spec.positions
            ? {
                text: (value: number) =>
                  spec.positions!.find((p) => Math.abs(p.value - value) < 1e-3)?.label ?? value.toFixed(2),
              }
            : {}),
        },
      ]
    },
  )
  const control = [...devices.values()].flatMap((device): Figure[] => {
    const own = element(device.id)
    const index = own?.model.outputs?.findIndex((o) => o.name === 'current') ?? -1
    if (!own || index < 0) return []
    return [
      {
        key: `${device.id}.current`,
        group: 'control',
        label: nameOf(device),
        quantity: 'ratio',
        part: device.id,
        read: () => own.local.o[index],
        text: (value) => (value > 0.5 ? 'on' : 'off'),
      },
    ]
  })
  const seen = new Set<number>()
  const pressures = measuringPlaces(sheet, result).flatMap(({ component, line }): Figure[] => {
    if (seen.has(line)) return []
    seen.add(line)
    return [
      {
        key: `${component.id} pressure`,
        group: 'pressures',
        label: nameOf(component),
        quantity: 'pressure',
        part: component.id,
        line,
        read: ({ potential }) => potential[line],
      },
    ]
  })
  const flows = sheet.components.flatMap((component): Figure[] => {
    const own = element(component.id)
    if (findKind(component.kind)?.family !== 'instruments' || !own) return []
    return (own.model.outputs ?? []).flatMap((output, index) =>
      output.quantity === 'flow'
        ? [
            {
              key: `${component.id}.${output.name}`,
              group: 'flows' as const,
              label: nameOf(component),
              quantity: 'flow' as const,
              part: component.id,
              read: () => own.local.o[index],
            },
          ]
        : [],
    )
  })
  const motion = movers.map((mover): Figure => {
    const own = element(mover.component)!
    const read = readerOf(own, mover.movement.speed)
    return {
      key: `${mover.component} speed`,
      group: 'motion',
      label: mover.name,
      quantity: result.signals[mover.speed].quantity,
      part: mover.component,
      read,
      verbs: { forward: mover.movement.forward, back: mover.movement.back, still: mover.still },
    }
  })
  const supply = sheet.components.flatMap((component): Figure[] => {
    const own = element(component.id)
    const measures = findKind(component.kind)?.traits?.measures
    if (!own || !measures) return []
    return (['delivery', 'shaftPower'] as const).flatMap((measured) => {
      const name = measures[measured]
      if (typeof name !== 'string') return []
      return [
        {
          key: `${component.id}.${name}`,
          group: 'supply' as const,
          label: `${nameOf(component)} ${measured === 'delivery' ? 'delivery' : 'power'}`,
          quantity: measured === 'delivery' ? ('flow' as const) : ('power' as const),
          part: component.id,
          read: readerOf(own, name),
        },
      ]
    })
  })
  const total = (label: string, index: number): Figure => ({
    key: label,
    group: 'power',
    label,
    quantity: 'power',
    read: ({ elements }) => elements.reduce((sum, { local }) => sum + local.power[index], 0),
  })
  return [
    ...commands,
    ...control,
    ...pressures,
    ...flows,
    ...motion,
    ...supply,
    total('put in', Power.input),
    total('heat', Power.heat),
  ]
}

/** Reads an output or a state of an element by its name. */
function readerOf(
  { model, states, local }: NonNullable<ReturnType<Moments['element']>>,
  name: string,
): () => number {
  const output = model.outputs?.findIndex((o) => o.name === name) ?? -1
  if (output >= 0) return () => local.o[output]
  const state = states.findIndex((s) => s.name === name)
  return () => local.x[state]
}

/** Commands and contacts that are alike in all states are left out. */
function compact(figures: readonly Figure[], rows: readonly Found[]): StateTable {
  const kept = figures.flatMap((figure, i) => {
    const varies =
      (figure.group !== 'commands' && figure.group !== 'control') ||
      rows.some(({ cells }) => Math.abs(cells[i].value - rows[0].cells[i].value) > 1e-6)
    return varies ? [i] : []
  })
  return {
    columns: kept.map((i) => {
      const { key, group, label, quantity, part, verbs } = figures[i]
      return {
        key,
        group,
        label,
        quantity,
        ...(part === undefined ? {} : { part }),
        ...(verbs ? { verbs } : {}),
      }
    }),
    rows: rows.map(({ title, met, outcome, stopped, cells }) => ({
      title,
      met,
      outcome,
      ...(stopped === undefined ? {} : { stopped }),
      cells: kept.map((i) => cells[i]),
    })),
  }
}

/** How a state ends up, in words; empty where it has a steady point. */
export function outcomeText(sheet: Sheet, { outcome, stopped }: StateRow): string {
  switch (outcome) {
    case 'steady':
      return ''
    case 'stop':
      return `no steady point: ${stopped === undefined ? 'it' : partName(sheet, stopped)} runs to its stop before`
    case 'hunts':
      return 'no steady point: it hunts'
    case 'changes':
      return 'no steady point: it still changes'
    case 'fails':
      return 'could not be solved further'
  }
}
/** A cell as it is read. */
export function cellText(cell: StateCell, { quantity, verbs }: StateColumn, show: Show): string {
  const { value, range, text } = cell
  if (text !== undefined) return text
  const read = withoutNoise(show)
  if (!verbs)
    return range ? `${read(range[0], quantity)} to ${read(range[1], quantity)}` : read(value, quantity)
  if (Math.abs(value) < verbs.still) return 'stands still'
  const ends = range ? [...range].map(Math.abs).sort((a, b) => a - b) : [Math.abs(value)]
  return `${value > 0 ? verbs.forward : verbs.back} at ${ends.map((v) => read(v, quantity)).join(' to ')}`
}
/** Where a state is met: "cycle at 2.87 s". */
export const metText = (sheet: Sheet, { met }: StateRow, show: Show): string =>
  met
    .map(
      ({ schedule, at }) =>
        `${sheet.schedules.find((s) => s.id === schedule)?.name || schedule} at ${instantText(at, show)}`,
    )
    .join('; ')

/** An input that a state may set: a valve's command, a coil, a motor's supply. */
export interface StateCommand {
  readonly component: string
  readonly name: string
  readonly spec: InputSpec
}
/** The inputs of a sheet that states may set. */
export function commandsOf(sheet: Sheet): StateCommand[] {
  return sheet.components.flatMap((component) => {
    const { resolved } = resolveComponent(component)
    if (!resolved) return []
    const idle = new Set<string>(resolved.kind.idleInputs?.(resolved.values) ?? [])
    return (resolved.kind.inputs ?? []).flatMap((spec: InputSpec): StateCommand[] =>
      spec.ofLoad || typeof spec.rest === 'string' || idle.has(spec.name)
        ? []
        : [{ component: component.id, name: nameOf(component), spec }],
    )
  })
}
