/** The calculation of a machine as a workbook: inputs are cells, and steps are formulas that follow them. All cells are in SI. */
import writeExcelFile from 'write-excel-file/universal'
import { originText } from '../size/report'
import type { Origin, SizedNode, Sizing } from '../size/graph'
import { quantities, siUnit } from '../units/quantities'

/** A cell; a formula stands in the file without the sign that people type before it (ECMA-376, 18.3.1.40). */
interface Cell {
  readonly value: string | number
  readonly type?: 'Formula' | StringConstructor | NumberConstructor
  readonly fontWeight?: 'bold'
  readonly format?: string
  readonly wrap?: boolean
}
type Row = (Cell | null)[]

const HEADING = ['Value', 'Symbol', 'SI', 'Unit', 'Comes from', 'In metric units', 'Unit']
/** Column of the value in SI. */
const SI = 'C'
/** An empty row and the title. */
const ROWS_BEFORE_CARD = 2

/** @param values of the cells; formulas are computed by the spreadsheet */
export async function calculationWorkbook(sizing: Sizing, title: string): Promise<Uint8Array> {
  const rows: Row[] = [
    [{ value: title, fontWeight: 'bold' }],
    HEADING.map((value) => ({ value, fontWeight: 'bold' })),
  ]
  const cellOf = cellsOf(sizing, rows.length)
  for (const node of sizing.nodes) {
    rows.push(
      [],
      [
        {
          value: node.motion ? `${node.motion.name}: ${node.card.title}` : node.card.title,
          fontWeight: 'bold',
        },
      ],
    )
    for (const [name, variable] of Object.entries(node.card.variables)) {
      const value = node.values[name]
      if (value === undefined) continue
      const at = rows.length + 1
      const metric = quantities[variable.quantity].units.find(
        (u) => u.symbol === quantities[variable.quantity].shown.metric,
      )!
      rows.push([
        { value: variable.label, wrap: true },
        { value: variable.symbol },
        cellFor(node, name, value, cellOf),
        { value: siUnit(variable.quantity) },
        { value: commentFor(node, name), wrap: true },
        {
          value: `(${SI}${at}-${metric.offset ?? 0})/${metric.factor}`,
          type: 'Formula',
          format: '0.0000',
        },
        { value: metric.symbol },
      ])
    }
  }
  const file = await writeExcelFile(rows as never, {
    sheet: 'Calculation',
    columns: [
      { width: 40 },
      { width: 9 },
      { width: 16 },
      { width: 12 },
      { width: 60 },
      { width: 14 },
      { width: 10 },
    ],
    stickyRowsCount: 2,
    orientation: 'landscape',
  }).toBlob()
  return new Uint8Array(await file.arrayBuffer())
}

/** Where each value stands, by card and variable: links lead to cards above and below. @param above rows before the first card */
function cellsOf({ nodes }: Sizing, above: number): ReadonlyMap<string, string> {
  const cells = new Map<string, string>()
  let at = above
  for (const { id, card, values } of nodes) {
    at += ROWS_BEFORE_CARD
    for (const name of Object.keys(card.variables))
      if (values[name] !== undefined) cells.set(`${id} ${name}`, `${SI}${++at}`)
  }
  return cells
}

/** How several cards give an input together, as a function of a spreadsheet. */
const AGGREGATES: Readonly<Record<string, string>> = { max: 'MAX', min: 'MIN', sum: 'SUM' }

/** A cell that follows others where that is possible: a link to another card, or a formula of this one. */
function cellFor(node: SizedNode, name: string, value: number, cellOf: ReadonlyMap<string, string>): Cell {
  const variable = node.card.variables[name]
  const origin = node.origins[name]
  if (variable.role === 'input') {
    const linked = origin?.type === 'card' ? linkOf(origin, cellOf) : undefined
    return linked ? { value: linked, type: 'Formula' } : { value, type: Number }
  }
  // a chosen size and a given value stand as they are
  if (variable.role === 'choice' || origin?.type === 'given') return { value, type: Number }
  const formula = variable.formula.spreadsheet((n) => cellOf.get(`${node.id} ${n}`))
  return formula ? { value: formula, type: 'Formula' } : { value, type: Number }
}

function linkOf(
  { node, variable, aggregate, nodes }: Extract<Origin, { type: 'card' }>,
  cellOf: ReadonlyMap<string, string>,
): string | undefined {
  if (!aggregate || !nodes) return cellOf.get(`${node} ${variable}`)
  const cells = nodes.map((id) => cellOf.get(`${id} ${variable}`))
  return cells.every((c) => c !== undefined) ? `${AGGREGATES[aggregate]}(${cells.join(',')})` : undefined
}

function commentFor(node: SizedNode, name: string): string {
  const variable = node.card.variables[name]
  if (variable.role === 'input') return originText(node.origins[name])
  if (node.origins[name]?.type === 'given') return 'given here'
  const symbols = variable.formula.print((n) => node.card.variables[n].symbol || node.card.variables[n].label)
  return variable.role === 'choice' ? `next of the series to ${symbols}` : symbols
}
