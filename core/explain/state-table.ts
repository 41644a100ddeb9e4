/**
 * The states of a machine as a table: for each combination of commands and motions that its schedules reach, that its control can give
 * beside, and that was added by hand, the operating point.
 */
import type { InputSpec, Show } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { controlCombinations } from '../control/combinations'
import { nameOf, type Sheet, type SheetState } from '../sheet/schema'
import type { Network } from '../simulate/circuit/network'
import type { RunResult } from '../simulate/result'
import { findSteadyState } from '../simulate/steady-state'
import { parseQuantity } from '../units/text'
import { Moments } from './moment'
import { directionOf, moversOf, type Mover } from './movers'
import { LONGEST, settle, type Settled } from './settle'
import { LinePorts, NO_PRESSURE, pressureStack, type Stack } from './stack'
import { stateFigures, type StateColumn, type StateFigure } from './state-figures'
import { walkthroughOf, type WalkthroughState } from './walkthrough'
import { partName, sentence } from './words'

export interface StateCell {
  /** SI; with a range where there is no steady point. */
  readonly value: number
  readonly range?: readonly [least: number, most: number]
  /** In words, where a number alone would not do: "position a", "extends". */
  readonly text?: string
  /** What sets the pressure, where there is one. */
  readonly fixedBy?: Stack['fixedBy']
}
export interface StateRow {
  /** What begins it and what moves, in a sentence; what the control switches on; or the name of one that was added. */
  readonly title: string
  readonly origin: 'schedule' | 'control' | 'added'
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
  /** Whether all that the control can do was looked at. */
  readonly isControlComplete: boolean
}

/** A row with all figures, before those that are alike everywhere are left out. */
interface Found extends Omit<StateRow, 'met'> {
  /** What distinguishes it: commands, contacts and motions. */
  readonly key: string
  readonly met: { readonly schedule: string; readonly at: number }[]
}
/** An input that is set, SI. */
interface Command {
  readonly component: string
  readonly input: string
  readonly value: number
}

/** Of a state that ends by itself so much of the rest of it is solved, and so much at least, s. */
const WITHIN = 0.9
const SHORTEST = 0.05
/** Share of a value from which on its range is given. */
const SPREAD = 0.02
/** Pressures of one state agree to this share, or this many Pa. */
const ALIKE = 0.15
const ALIKE_PRESSURE = 5e5
/** Commands that differ by less are the same. */
const SAME_COMMAND = 1e-3

/**
 * @param runOf a recorded run of each schedule @param show for the titles of the states @param added beside what is found
 * @throws Error where the sheet cannot be simulated
 */
export function stateTable(
  sheet: Sheet,
  runOf: (schedule: string) => RunResult,
  show: Show,
  added: readonly SheetState[] = [],
): StateTable {
  const found: Found[] = []
  let figures: StateFigure[] = []
  for (const { id } of sheet.schedules) {
    const result = runOf(id)
    const moments = new Moments(sheet, result)
    const movers = moversOf(sheet, result)
    figures = stateFigures(moments, result, movers)
    for (const state of walkthroughOf(moments, result, show)) {
      moments.showRecorded(result, state.shownAt)
      const row = solved(moments, state, figures)
      const key = keyOf(figures, row.cells, movers)
      const met = { schedule: id, at: state.t }
      const known = found.find((f) => f.key === key && isSame(f.cells, row.cells, figures))
      if (known) known.met.push(met)
      else
        found.push({
          ...row,
          key,
          title: state.cause ? sentence(state.cause) : state.summary,
          origin: 'schedule',
          met: [met],
        })
    }
  }
  let isControlComplete = true
  const first = sheet.schedules[0]
  if (first) {
    const result = runOf(first.id)
    const { combinations, complete } = controlCombinations(sheet)
    isControlComplete = complete
    for (const commands of combinations)
      if (!found.some(({ cells }) => hasCommands(figures, cells, commands)))
        found.push(
          restRow(commandsTitle(sheet, commands), 'control', new Moments(sheet, result), commands, figures),
        )
    for (const { name, commands } of added) {
      const moments = new Moments(sheet, result)
      found.push(restRow(name, 'added', moments, readCommands(moments, commands), figures))
    }
  }
  return { ...compact(figures, found), isControlComplete }
}

/** The operating point from the instant that is shown. */
function solved(
  moments: Moments,
  { shownAt, end, endsBy }: WalkthroughState,
  figures: readonly StateFigure[],
): Pick<Found, 'outcome' | 'stopped' | 'cells'> {
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
  network.modesLoaded()
  const isSteady = outcome === 'changes' && !cells.some((c) => c.range)
  return {
    outcome: isSteady ? 'steady' : outcome,
    ...(part === undefined ? {} : { stopped: part }),
    cells,
  }
}

/** @throws Error where a command is none of the sheet, or its value cannot be read */
function readCommands({ sheet, network }: Moments, commands: SheetState['commands']): Command[] {
  return commands.map(({ component, input, value }) => {
    const index = network.inputs.find(component, input)
    if (index < 0) throw new Error(`${partName(sheet, component)} has no command "${input}".`)
    const { spec } = network.inputs.inputs[index]
    const read = parseQuantity(value, spec.quantity)
    if (!read.ok) throw new Error(`${partName(sheet, component)}, ${spec.label}: ${read.message}`)
    return { component, input, value: Math.min(spec.max, Math.max(spec.min, read.si)) }
  })
}

/** What is switched on, in words. */
function commandsTitle(sheet: Sheet, commands: readonly Command[]): string {
  const on = commands
    .filter(({ value }) => value !== 0)
    .map(({ component, input, value }) => {
      const part = sheet.components.find((c) => c.id === component)!
      const spec = findKind(part.kind)?.inputs?.find(({ name }: InputSpec) => name === input)
      const action = spec?.positions?.find((p: { value: number }) => p.value === value)?.action
      return action ? `${nameOf(part)} ${action}` : `${nameOf(part)} is on`
    })
  return sentence(on.length ? on.join(', ') : 'nothing has current')
}

/** Whether a state has these commands. */
const hasCommands = (
  figures: readonly StateFigure[],
  cells: readonly StateCell[],
  commands: readonly Command[],
): boolean =>
  commands.every(({ component, input, value }) => {
    const at = figures.findIndex(({ key }) => key === `${component}.${input}`)
    return at < 0 || Math.abs(cells[at].value - value) < SAME_COMMAND
  })

/** The rest that a combination of commands leads to from where the machine is drawn. @param moments new: nothing has been shown */
function restRow(
  title: string,
  origin: Found['origin'],
  { network, tolerance }: Moments,
  commands: readonly Command[],
  figures: readonly StateFigure[],
): Found {
  for (const { component, input, value } of commands)
    network.inputs.set(network.inputs.find(component, input), value, 'hand')
  network.unfreezeInputs()
  const { converged } = findSteadyState(network, tolerance)
  network.freezeInputs(0)
  network.invalidate()
  network.observe(0, network.initial)
  const cells = cellsOf(network, figures).map(
    // the control itself is not worked out there
    (cell, i): StateCell => (figures[i].group === 'control' ? { value: Number.NaN, text: '' } : cell),
  )
  return { key: '', title, origin, met: [], outcome: converged ? 'steady' : 'changes', cells }
}

function cellsOf(
  network: Network,
  figures: readonly StateFigure[],
  range?: { readonly least: Float64Array; readonly most: Float64Array },
): StateCell[] {
  const ports = new LinePorts(network)
  return figures.map(({ read, text, verbs, line }, i): StateCell => {
    const value = read(network)
    const words = text?.(value)
    const spread = range && range.most[i] - range.least[i]
    const isRange =
      spread !== undefined &&
      spread > Math.max(verbs?.still ?? 0, SPREAD * Math.abs(range!.most[i])) &&
      words === undefined
    const isPressed = line !== undefined && Math.abs(value) > NO_PRESSURE
    return {
      value,
      ...(isRange ? { range: [range!.least[i], range!.most[i]] as const } : {}),
      ...(words === undefined ? {} : { text: words }),
      ...(isPressed ? { fixedBy: pressureStack(ports, line).fixedBy } : {}),
    }
  })
}

/** States with the same commands, contacts and motions have one key. */
const keyOf = (figures: readonly StateFigure[], cells: readonly StateCell[], movers: readonly Mover[]) =>
  figures
    .map(({ group, part }, i) => {
      const { value } = cells[i]
      if (group === 'commands') return value.toFixed(2)
      if (group === 'control') return value > 0.5 ? 1 : 0
      if (group !== 'motion') return ''
      const mover = movers.find((m) => m.component === part)!
      return directionOf(value, mover.still)
    })
    .join()
/** Whether two states of one key are the same: their pressures agree. */
const isSame = (a: readonly StateCell[], b: readonly StateCell[], figures: readonly StateFigure[]) =>
  figures.every(
    ({ group }, i) =>
      group !== 'pressures' ||
      Math.abs(a[i].value - b[i].value) < Math.max(ALIKE_PRESSURE, ALIKE * Math.abs(b[i].value)),
  )

/** Commands and contacts that are alike in all states are left out. */
function compact(
  figures: readonly StateFigure[],
  rows: readonly Found[],
): Pick<StateTable, 'columns' | 'rows'> {
  const kept = figures.flatMap(({ group }, i) => {
    const varies =
      (group !== 'commands' && group !== 'control') ||
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
    rows: rows.map(({ title, origin, met, outcome, stopped, cells }) => ({
      title,
      origin,
      met,
      outcome,
      ...(stopped === undefined ? {} : { stopped }),
      cells: kept.map((i) => cells[i]),
    })),
  }
}
