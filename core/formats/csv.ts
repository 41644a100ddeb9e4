/** Tables as text with separated fields (RFC 4180). */
import { fromSI, shownUnit } from '../units/quantities'
import type { RunResult } from '../simulate/result'

export type Rows = readonly (readonly (string | number)[])[]

export interface CsvStyle {
  readonly separator: ',' | ';' | '\t'
  readonly decimal: '.' | ','
}
const plainCsv: CsvStyle = { separator: ',', decimal: '.' }

/** What a spreadsheet would take for a formula, whatever it takes for a separator; also when it is guarded already. */
const FORMULA = /^'*[=+\-@\t\r]/
/** The text of a field without the apostrophe that `csv` sets before what a spreadsheet would take for a formula. */
export const withoutGuard = (text: string): string =>
  text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text

/** A text as a field, with an apostrophe before what a spreadsheet would take for a formula. */
function field(text: string): string {
  const safe = FORMULA.test(text) && !Number.isFinite(Number(text)) ? `'${text}` : text
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
