/** Tables as text with separated fields (RFC 4180). */
import { fromSI, shownUnit } from '../units/quantities'
import type { RunResult } from '../simulate/result'

export type Rows = readonly (readonly (string | number)[])[]

export interface CsvStyle {
  readonly separator: ',' | ';' | '\t'
  readonly decimal: '.' | ','
}
const plainCsv: CsvStyle = { separator: ',', decimal: '.' }

/** A text as a field; one that a spreadsheet would take for a formula is kept from it, whatever it takes for a separator. */
function field(text: string): string {
  const safe = /^[=+\-@\t\r]/.test(text) && !Number.isFinite(Number(text)) ? `'${text}` : text
  return /[",;\t\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe
}

export function csv(rows: Rows, { separator, decimal }: CsvStyle = plainCsv): string {
  const cell = (value: string | number) => {
    if (typeof value === 'string') return field(value)
    const text = decimal === ',' ? String(value).replace('.', ',') : String(value)
    return text.includes(separator) ? `"${text}"` : text
  }
  return rows.map((row) => row.map(cell).join(separator)).join('\r\n') + '\r\n'
}

/**
 * Samples of a run: one row a sample, one column a signal, metric units in the heading.
 * @param signals ids of those to be written, all where nothing is said
 */
export function resultRows(result: RunResult, signals?: ReadonlySet<string>): Rows {
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
  return rows
}
export const resultToCsv = (result: RunResult, signals?: ReadonlySet<string>, style?: CsvStyle): string =>
  csv(resultRows(result, signals), style)
