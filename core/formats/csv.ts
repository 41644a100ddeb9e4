/** Samples of a run as CSV (RFC 4180): one row a sample, one column a signal, metric units in the heading. */
import { fromSI, shownUnit } from '../units/quantities'
import type { RunResult } from '../simulate/result'

const field = (text: string) => (/[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text)

export function resultToCsv(result: RunResult): string {
  const shown = result.signals
    .map((signal, i) => ({ signal, column: result.columns[i], unit: shownUnit(signal.quantity, 'metric') }))
    .filter(({ signal }) => signal.role !== 'mode')
  const heading = ['t [s]', ...shown.map(({ signal, unit }) => field(`${signal.id} [${unit.symbol || '-'}]`))]
  const rows = [heading.join(',')]
  for (let k = 0; k < result.times.length; k++)
    rows.push(
      [
        Number(result.times[k].toPrecision(12)),
        ...shown.map(({ column, unit }) => Number(fromSI(column[k], unit).toPrecision(7))),
      ].join(','),
    )
  return rows.join('\r\n') + '\r\n'
}
