/** Tables that come as CSV: schedules and load tables, from a spreadsheet or written by hand. */
import Papa from 'papaparse'
import { findKind } from '../catalogue'
import { commandableOf, type TableParameter } from '../catalogue/kind'
import { devicesOf } from '../control/run'
import {
  nameOf,
  tableSchema,
  trackSchema,
  type Schedule,
  type Sheet,
  type TableText,
  type Track,
} from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import { readNumber } from '../units/numbers'
import { parseQuantity } from '../units/text'
import { withoutGuard } from './csv'

export type Read<T> = { ok: true; value: T } | { ok: false; message: string }
const wrong = (message: string) => ({ ok: false, message }) as const

const LARGEST = 2e6
const MOST_ROWS = 50_000

/** Rows of cells; the mark between them (comma, semicolon, tab) is found out. Empty rows are left out. */
export function rowsOf(text: string): Read<{ cells: string[]; line: number }[]> {
  if (text.length > LARGEST) return wrong('The table is larger than 2 MB.')
  const plain = text.replace(/^\uFEFF/, '')
  const [first] = plain.trimStart().split('\n', 1)
  // a comma may be a decimal comma where the cells are separated by another character
  const delimiter = [';', '\t'].find((mark) => first.includes(mark)) ?? ','
  const { data } = Papa.parse<string[]>(plain, { delimiter })
  const rows = data
    .map((cells, i) => ({ cells: cells.map((cell) => withoutGuard(cell.trim())), line: i + 1 }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''))
  if (!rows.length) return wrong('The table is empty.')
  if (rows.length > MOST_ROWS) return wrong(`The table has more than ${MOST_ROWS} rows.`)
  return { ok: true, value: rows }
}

/** The bracket at the end of a heading, from where it opens; -1 where it has none. */
function bracketOf(heading: string): number {
  if (!/[\])]$/.test(heading)) return -1
  return Math.max(heading.lastIndexOf('['), heading.lastIndexOf('('))
}
/** The unit that a heading gives in brackets: "stroke [mm]", "force (kN)". */
export function unitOf(heading: string): string | undefined {
  const text = heading.trim()
  const at = bracketOf(text)
  return at < 0 ? undefined : text.slice(at + 1, -1).trim()
}
/** The name of a column, in small letters and without the unit in brackets. */
export function columnName(heading: string): string {
  const at = heading.search(/[[(]/)
  return (at < 0 ? heading : heading.slice(0, at)).trim().toLowerCase()
}
/** A cell with its unit, its own or that of its column. */
export const withUnit = (cell: string, unit: string | undefined) =>
  unit && readNumber(cell)?.rest === '' ? `${cell} ${unit}` : cell

/**
 * A table of pairs for a parameter: two columns, with units in a heading or in every cell.
 * @returns the table as a sheet file has it, or what is wrong and in which row
 */
export function readTableCsv(text: string, parameter: TableParameter): Read<TableText> {
  const read = rowsOf(text)
  if (!read.ok) return read
  const [first] = read.value
  const columns = [parameter.x, parameter.y]
  const heading = !columns.every((_, i) => /^[-+.\d]/.test(first.cells[i] ?? ''))
  const units = columns.map((_, i) => (heading ? unitOf(first.cells[i] ?? '') : undefined))
  const table: [string, string][] = []
  for (const { cells, line } of heading ? read.value.slice(1) : read.value) {
    if (cells.length < 2) return wrong(`Row ${line} has one column; two are needed.`)
    const pair = columns.map((column, i) => parseQuantity(withUnit(cells[i], units[i]), column.quantity))
    for (const [i, value] of pair.entries())
      if (!value.ok) return wrong(`Row ${line}, ${columns[i].label}: ${value.message}`)
    table.push(pair.map((value) => (value as { text: string }).text) as [string, string])
  }
  const checked = tableSchema.safeParse(table)
  if (!checked.success)
    return wrong(table.length < 2 ? 'A table needs two rows at least.' : 'A table has 200 rows at most.')
  return { ok: true, value: checked.data }
}

export const scheduleHeading = ['Component', 'Command', 'Time', 'Value', 'Shape'] as const
/** A schedule as a table: one row a point. */
export function scheduleRows(sheet: Sheet, schedule: Schedule): string[][] {
  const named = new Map(
    [...devicesOf(sheet), ...sheet.components].map((c) => [c.id, 'kind' in c ? nameOf(c) : c.name]),
  )
  return [
    [...scheduleHeading],
    ...schedule.tracks.flatMap((track) =>
      track.points.map((p) => [
        named.get(track.component) ?? track.component,
        track.input,
        p.at,
        p.value,
        p.shape,
      ]),
    ),
  ]
}

/**
 * The tracks of a schedule from a table with the columns component, command, time, value and (step without it) shape; in any order.
 * Components by designation or id, buttons and switches of the control by name or id, commands by name or label.
 */
export function readScheduleCsv(text: string, sheet: Sheet): Read<Track[]> {
  const devices = devicesOf(sheet)
  const read = rowsOf(text)
  if (!read.ok) return read
  const [heading, ...rows] = read.value
  const names = heading.cells.map(columnName)
  const at = scheduleHeading.map((column) => names.indexOf(column.toLowerCase()))
  const missing = scheduleHeading.filter((column, i) => column !== 'Shape' && at[i] < 0)
  if (missing.length)
    return wrong(
      `The first row must name the columns ${scheduleHeading.join(', ')}; ${missing.join(', ')} is missing.`,
    )
  const units = at.map((i) => unitOf(heading.cells[i] ?? ''))
  const tracks = new Map<string, { component: string; input: string; points: Track['points'] }>()
  for (const { cells, line } of rows) {
    const [who, what, time, value, shape = ''] = at.map((i) => cells[i] ?? '')
    const component =
      sheet.components.find((c) => c.designation === who) ?? sheet.components.find((c) => c.id === who)
    const device = component
      ? undefined
      : (devices.find((d) => d.name === who) ?? devices.find((d) => d.id === who))
    const owner = component ? (findKind(component.kind) ?? {}) : device
    const id = component?.id ?? device?.id
    if (!owner || !id) return wrong(`Row ${line}: there is no component "${who}" on the sheet.`)
    const spec = commandableOf(owner).find(
      (s) => s.name === what || s.label.toLowerCase() === what.toLowerCase(),
    )
    if (!spec) return wrong(`Row ${line}: ${who} cannot be commanded by "${what}".`)
    const parse = (cell: string, unit: string | undefined, quantity: Quantity) =>
      parseQuantity(withUnit(cell, unit), quantity)
    const when = parse(time, units[2], 'time')
    if (!when.ok) return wrong(`Row ${line}, time: ${when.message}`)
    const position = spec.positions?.find((p) => p.label.toLowerCase() === value.toLowerCase())
    const amount = position ? undefined : parse(value, units[3], spec.quantity)
    if (amount && !amount.ok) return wrong(`Row ${line}, value: ${amount.message}`)
    const word = shape.toLowerCase() || 'step'
    if (word !== 'step' && word !== 'ramp')
      return wrong(`Row ${line}: the shape is step or ramp, not "${shape}".`)
    const key = `${id}.${spec.name}`
    if (!tracks.has(key)) tracks.set(key, { component: id, input: spec.name, points: [] })
    const { points } = tracks.get(key)!
    const before = points.length ? parseQuantity(points[points.length - 1].at, 'time') : undefined
    if (before?.ok && before.si > when.si) return wrong(`Row ${line}: the time goes back.`)
    points.push({
      at: when.text,
      value: position ? String(position.value) : (amount as { text: string }).text,
      shape: word,
    })
  }
  const list = [...tracks.values()]
  const checked = trackSchema.array().max(500).safeParse(list)
  if (!checked.success) return wrong(checked.error.issues[0].message)
  return list.length ? { ok: true, value: checked.data } : wrong('The table has no rows below its heading.')
}
