/** Series of sizes as a table: one row a size, with the name of its series in the first column. */
import { issueText } from '../sheet/issue-text'
import {
  LARGEST_SERIES,
  ownSeriesSchema,
  seriesNames,
  seriesUses,
  sizeProblem,
  type OwnSeries,
  type SeriesUse,
} from '../size/own-series'
import { standardSeries, type SeriesName } from '../size/series'
import { shownUnit } from '../units/quantities'
import { quantityText } from '../units/text'
import { columnName, rowsOf, unitOf, withUnit, type Read } from './csv-read'

const COLUMNS = ['series', 'sizes of', 'use', 'source', 'size'] as const

/** Rows of series; `readSeriesCsv` reads them back. */
export const seriesRows = (list: readonly OwnSeries[]): string[][] => [
  [...COLUMNS],
  ...list.flatMap(({ name, of, use, source, sizes }) => sizes.map((size) => [name, of, use, source, size])),
]

/** A standard series as one of a person's own, to begin with. */
export function copyOfStandard(name: SeriesName): OwnSeries {
  const { label, source, quantity, values } = standardSeries[name]
  const { symbol } = shownUnit(quantity, 'metric')
  return {
    name: `${label}, own`,
    of: name,
    use: 'instead',
    source: `after ${source}`,
    sizes: values.map((v) => quantityText(v, quantity, symbol)),
  }
}

/**
 * Series from a table with the columns series, sizes of, use, source and size; a cell that is left empty has what the row above it has.
 * @returns the series, or what is wrong and in which row
 */
export function readSeriesCsv(text: string): Read<OwnSeries[]> {
  const read = rowsOf(text)
  if (!read.ok) return read
  const wrong = (message: string) => ({ ok: false, message }) as const
  const [heading, ...rows] = read.value
  const names = heading.cells.map(columnName)
  const at = COLUMNS.map((column) => names.indexOf(column))
  const missing = COLUMNS.filter((column, i) => at[i] < 0 && column !== 'use' && column !== 'source')
  if (missing.length)
    return wrong(
      `The first row must name the columns ${COLUMNS.join(', ')}; ${missing.join(', ')} is missing.`,
    )
  const unit = unitOf(heading.cells[at[4]])
  const list = new Map<
    string,
    { name: string; of: SeriesName; use: SeriesUse; source: string; sizes: string[] }
  >()
  let above = ['', '', '', '']
  for (const { cells, line } of rows) {
    const [name, of, use, source, written] = at.map((i) => cells[i] ?? '')
    const size = withUnit(written, unit)
    const first = name || above[0]
    if (!first) return wrong(`Row ${line}: the series has no name.`)
    // what stands above belongs to the series above
    if (name && name !== above[0]) above = ['', '', '', '']
    above = [first, of || above[1], use || above[2], source || above[3]]
    const purpose = seriesNames.find(
      (n) => n === above[1] || standardSeries[n].label.toLowerCase() === above[1].toLowerCase(),
    )
    if (!purpose)
      return wrong(
        `Row ${line}: "${above[1]}" is no kind of sizes. There are ${seriesNames.map((n) => standardSeries[n].label.toLowerCase()).join('; ')}.`,
      )
    const usage = (Object.keys(seriesUses) as SeriesUse[]).find(
      (u) => u === above[2].toLowerCase() || seriesUses[u] === above[2].toLowerCase(),
    )
    if (above[2] && !usage)
      return wrong(`Row ${line}: the use is ${Object.keys(seriesUses).join(' or ')}, not "${above[2]}".`)
    const problem = sizeProblem(purpose, size)
    if (problem) return wrong(`Row ${line}: ${problem}`)
    const known = list.get(first)
    if (known && known.of !== purpose)
      return wrong(`Row ${line}: the series "${first}" has sizes of two kinds.`)
    if (known) known.sizes.push(size)
    else list.set(first, { name: first, of: purpose, use: usage ?? 'added', source: above[3], sizes: [size] })
  }
  if (!list.size) return wrong('The table has no rows below its heading.')
  const parsed = ownSeriesSchema
    .array()
    .max(LARGEST_SERIES.series)
    .safeParse([...list.values()])
  return parsed.success
    ? { ok: true, value: parsed.data }
    : wrong(issueText(parsed.error.issues[0], 'the table'))
}
