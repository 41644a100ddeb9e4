/** Tables as CSV (RFC 4180). */
import { fromSI, shownUnit } from '../units/quantities'
import type { RunResult } from '../simulate/result'

/** A text as a field; one that a spreadsheet would take for a formula is kept from it. */
const field = (text: string) => {
  const safe = /^[=+\-@\t\r]/.test(text) && !Number.isFinite(Number(text)) ? `'${text}` : text
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe
}
export const csv = (rows: readonly (readonly (string | number)[])[]) =>
  rows.map((row) => row.map((cell) => field(String(cell))).join(',')).join('\r\n') + '\r\n'

/**
 * Samples of a run: one row a sample, one column a signal, metric units in the heading.
 * @param signals ids of those to be written, all where nothing is said
 */
export function resultToCsv(result: RunResult, signals?: ReadonlySet<string>): string {
  const shown = result.signals
    .map((signal, i) => ({ signal, column: result.columns[i], unit: shownUnit(signal.quantity, 'metric') }))
    .filter(({ signal }) => signal.role !== 'mode' && (!signals || signals.has(signal.id)))
  const rows: (string | number)[][] = [
    ['t [s]', ...shown.map(({ signal, unit }) => `${signal.id} [${unit.symbol || '-'}]`)],
  ]
  for (let k = 0; k < result.times.length; k++)
    rows.push([
      Number(result.times[k].toPrecision(12)),
      ...shown.map(({ column, unit }) => Number(fromSI(column[k], unit).toPrecision(7))),
    ])
  return csv(rows)
}
