/** The states of a machine in words: how each ends up, where it is met, its figures as read. */
import type { Show } from '../catalogue/kind'
import type { Sheet } from '../sheet/schema'
import type { StateColumn } from './state-figures'
import type { StateCell, StateRow, StateTable } from './state-table'
import { instantText, partName, withoutNoise } from './words'

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
  if (!verbs) {
    // both ends may read alike
    const ends = new Set((range ?? [value]).map((end) => read(end, quantity)))
    return [...ends].join(' to ')
  }
  if (Math.abs(value) < verbs.still) return 'stands still'
  const ends = range ? [...range].map(Math.abs).sort((a, b) => a - b) : [Math.abs(value)]
  return `${value > 0 ? verbs.forward : verbs.back} at ${ends.map((v) => read(v, quantity)).join(' to ')}`
}
/** Where a state is met: "cycle at 2.87 s". */
export function metText(sheet: Sheet, { met, origin }: StateRow, show: Show): string {
  if (origin === 'control') return 'in no schedule; the control can reach it'
  if (origin === 'added') return 'added'
  return met
    .map(
      ({ schedule, at }) =>
        `${sheet.schedules.find((s) => s.id === schedule)?.name || schedule} at ${instantText(at, show)}`,
    )
    .join('; ')
}
/** How many states there are, and where they come from. */
export function countText({ rows, isControlComplete }: StateTable): string {
  const of = (origin: StateRow['origin']) => rows.filter((row) => row.origin === origin).length
  const [reached, added] = [of('control'), of('added')]
  return (
    [
      `${rows.length} states: ${of('schedule')} from all schedules`,
      ...(reached ? [`${reached} more that the control can reach`] : []),
      ...(added ? [`${added} added`] : []),
    ].join(', ') + (isControlComplete ? '.' : '. The control has more orders of events than were looked at.')
  )
}
