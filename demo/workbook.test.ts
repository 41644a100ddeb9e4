/** The workbook of each machine, computed by an evaluator of spreadsheets that knows nothing of the sizes: as on the screen in every cell. */
import { strFromU8, unzipSync } from 'fflate'
import FormulaParser from 'fast-formula-parser'
import { describe, expect, it } from 'vitest'
import { calculationWorkbook } from '../core/formats/calculation-xlsx'
import { parseXml, type XmlElement } from '../core/formats/xml'
import { sizeMachine, type Sizing } from '../core/size/graph'
import { formatNumber } from '../core/units/text'
import { fromSI, shownUnit } from '../core/units/quantities'
import { demoMachines } from './machines'

interface Workbook {
  /** The value of a cell; formulas are computed, with all that they ask for. */
  value(address: string): number | string
  readonly formulas: number
  readonly rows: number
}
const child = (e: XmlElement, name: string) => e.children.find((c) => c.name === name)

/** Reads a workbook as ECMA-376 lays it down: cells with their formulas, or with texts of the shared list. */
function opened(bytes: Uint8Array): Workbook {
  const parts = unzipSync(bytes)
  const part = (name: string) => parseXml(strFromU8(parts[name]))
  const shared = parts['xl/sharedStrings.xml']
    ? part('xl/sharedStrings.xml').children.map((si) => child(si, 't')?.text ?? '')
    : []
  const cells = new Map<string, { formula?: string; value: number | string }>()
  const rows = child(part('xl/worksheets/sheet1.xml'), 'sheetData')!.children
  for (const row of rows)
    for (const c of row.children) {
      const text = child(c, 'v')?.text ?? ''
      const value =
        c.attributes.t === 's' ? shared[Number(text)] : c.attributes.t === 'inlineStr' ? '' : Number(text)
      cells.set(c.attributes.r, { formula: child(c, 'f')?.text, value })
    }
  const done = new Map<string, number | string>()
  const value = (address: string): number | string => {
    const known = done.get(address)
    if (known !== undefined) return known
    const cell = cells.get(address)
    if (!cell) throw new Error(`no cell ${address}`)
    const result = cell.formula === undefined ? cell.value : computed(cell.formula)
    done.set(address, result)
    return result
  }
  const letters = (column: number) => String.fromCharCode(64 + column)
  const extreme =
    (of: (...values: number[]) => number) =>
    (...values: { value: number }[]) =>
      of(...values.map((v) => v.value))
  const parser = new FormulaParser({
    // these two it leaves to its user
    functions: { MAX: extreme(Math.max), MIN: extreme(Math.min) },
    onCell: ({ row, col }) => value(`${letters(col)}${row}`),
    onRange: () => {
      throw new Error('no ranges are used')
    },
  })
  const computed = (formula: string): number => {
    // one formula at a time: what it asks for is computed before
    for (const [address] of formula.matchAll(/\b[A-Z]\d+\b/g)) value(address)
    const result = parser.parse(formula, { row: 1, col: 1, sheet: 'Calculation' }) as unknown
    if (typeof result === 'boolean') return Number(result)
    if (typeof result !== 'number') throw new Error(`${formula}: ${String(result)}`)
    return result
  }
  return {
    value,
    formulas: [...cells.values()].filter((c) => c.formula !== undefined).length,
    rows: rows.length,
  }
}

/** What stands on the screen, in the order of the workbook. */
const shownValues = ({ nodes }: Sizing) =>
  nodes.map(({ id, card, values }) => ({
    id,
    values: Object.entries(card.variables).flatMap(([name, { quantity }]) =>
      values[name] === undefined ? [] : [{ name, quantity, value: values[name] }],
    ),
  }))

const variants = demoMachines().flatMap((m) =>
  m.variants.map((v) => [`${m.name}, ${v.name}`, sizeMachine(m.brief, v.sheet.sizing)] as const),
)

describe.each(variants)('%s', (_name, sizing) => {
  it('has in its workbook what stands on the screen', async () => {
    const workbook = opened(await calculationWorkbook(sizing, 'Calculation'))
    expect(workbook.formulas).toBeGreaterThan(50)
    let row = 2
    for (const { id, values } of shownValues(sizing)) {
      row += 2
      for (const { name, quantity, value } of values) {
        row++
        const si = workbook.value(`C${row}`)
        const scale = Math.max(Math.abs(value), 1e-12)
        expect(
          Math.abs(Number(si) - value) / scale,
          `${id} ${name}, C${row}: ${si} for ${value}`,
        ).toBeLessThan(1e-9)
        const metric = workbook.value(`F${row}`) as number
        expect(formatNumber(metric), `${id} ${name} in metric units`).toBe(
          formatNumber(fromSI(value, shownUnit(quantity, 'metric'))),
        )
      }
    }
    expect(workbook.rows).toBeGreaterThanOrEqual(row - sizing.nodes.length)
  })
})

it('follows a change of an input through all cards, as the sizes do', async () => {
  const [{ brief, variants }] = demoMachines()
  const before = sizeMachine(brief, variants[0].sheet.sizing)
  // the input is changed in the file, and the sizes are made anew with the same value given
  const node = before.nodes.find(({ id }) => id.startsWith('cylinder-bore@'))!
  const input = Object.entries(node.card.variables).find(
    ([name, v]) => v.role === 'input' && v.quantity === 'pressure' && node.values[name]! > 0,
  )![0]
  let at = 2
  for (const { id, values } of shownValues(before)) {
    at += 2
    const index = values.findIndex((v) => v.name === input)
    if (id === node.id) {
      at += index + 1
      break
    }
    at += values.length
  }
  const parts = unzipSync(await calculationWorkbook(before, 'Calculation'))
  const text = strFromU8(parts['xl/worksheets/sheet1.xml'])
  const cell = new RegExp(`(<c r="C${at}"[^>]*>)[^]*?(</c>)`)
  expect(text).toMatch(cell)
  const value = 1.1 * node.values[input]!
  const { zipSync, strToU8 } = await import('fflate')
  const changed = opened(
    zipSync({ ...parts, 'xl/worksheets/sheet1.xml': strToU8(text.replace(cell, `$1<v>${value}</v>$2`)) }),
  )
  const after = sizeMachine(brief, {
    ...variants[0].sheet.sizing,
    values: {
      ...variants[0].sheet.sizing.values,
      [node.id]: { ...variants[0].sheet.sizing.values[node.id], [input]: `${value} Pa` },
    },
  })
  const own = after.nodes.find(({ id }) => id === node.id)!
  let row = 2
  const compared: string[] = []
  for (const { id, values } of shownValues(before)) {
    row += 2
    for (const { name } of values) {
      row++
      if (id !== node.id || node.card.variables[name].role !== 'step') continue
      const [now, wanted] = [Number(changed.value(`C${row}`)), own.values[name]!]
      expect(Math.abs(now - wanted), name).toBeLessThanOrEqual(1e-9 * Math.abs(wanted))
      if (Math.abs(now / node.values[name]! - 1) > 0.01) compared.push(name)
    }
  }
  expect(compared.length).toBeGreaterThan(1)
})
