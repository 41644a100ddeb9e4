/** The list of machines: searched and sorted. */
import type { MachineRow } from '#shared/api'

export const machineOrders = {
  name: 'Name',
  updated: 'Last changed',
  findings: 'Most findings',
} as const
export type MachineOrder = keyof typeof machineOrders

const findings = ({ sheet }: MachineRow) => (sheet ? 1000 * sheet.errors + sheet.warnings : -1)
const compare: Record<MachineOrder, (a: MachineRow, b: MachineRow) => number> = {
  name: (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  updated: (a, b) => b.updatedAt - a.updatedAt,
  findings: (a, b) => findings(b) - findings(a),
}

/** The machines whose name or description has all words of a search, in an order. */
export function shownMachines(
  list: readonly MachineRow[],
  search: string,
  order: MachineOrder,
): MachineRow[] {
  const words = search.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return list
    .filter(({ name, summary }) => words.every((word) => `${name} ${summary}`.toLowerCase().includes(word)))
    .sort(compare[order])
}

export interface StepState {
  readonly step: 'brief' | 'sheet' | 'sizes' | 'run'
  readonly label: string
  readonly text: string
  /** done: nothing to do; open: something is missing; problem: something is wrong. */
  readonly state: 'done' | 'open' | 'problem'
}
const plural = (n: number, word: string) => `${n} ${word}${n === 1 ? '' : 's'}`

/** The state of each step of the work on a machine. */
export function stepStates({ briefFilled, sheet, lastRun }: MachineRow): StepState[] {
  const step = (
    name: StepState['step'],
    label: string,
    state: StepState['state'],
    text: string,
  ): StepState => ({
    step: name,
    label,
    state,
    text,
  })
  const sheetState = (): StepState => {
    if (!sheet) return step('sheet', 'Sheet', 'open', 'being checked')
    if (!sheet.components) return step('sheet', 'Sheet', 'open', 'not drawn yet')
    const found = [
      sheet.errors && plural(sheet.errors, 'error'),
      sheet.warnings && plural(sheet.warnings, 'warning'),
      sheet.incomplete && plural(sheet.incomplete, 'open port'),
    ].filter(Boolean)
    if (sheet.errors) return step('sheet', 'Sheet', 'problem', found.join(', '))
    return step(
      'sheet',
      'Sheet',
      sheet.warnings || sheet.incomplete ? 'open' : 'done',
      found.join(', ') || 'checks pass',
    )
  }
  const sizesState = (): StepState => {
    if (!sheet?.sized) return step('sizes', 'Sizes', 'open', 'nothing sized')
    const all = sheet.agreeing === sheet.sized
    const waiting = sheet.waiting ? `, ${sheet.waiting} to be assigned` : ''
    return step(
      'sizes',
      'Sizes',
      all ? 'done' : 'open',
      `${sheet.agreeing} of ${sheet.sized} agree${waiting}`,
    )
  }
  const runState = (): StepState => {
    if (!lastRun) return step('run', 'Run', 'open', 'none saved')
    if (!lastRun.finished) return step('run', 'Run', 'problem', 'ended early')
    return lastRun.current
      ? step('run', 'Run', 'done', plural(lastRun.conditions, 'condition'))
      : step('run', 'Run', 'open', 'of an earlier sheet')
  }
  return [
    step('brief', 'Brief', briefFilled ? 'done' : 'open', briefFilled ? 'filled' : 'not filled in'),
    sheetState(),
    sizesState(),
    runState(),
  ]
}
