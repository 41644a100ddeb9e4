import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { strFromU8, unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { emptySheet } from '../sheet/schema'
import { readBrief } from '../size/brief/read'
import { formula } from '../size/formula'
import { sizeMachine } from '../size/graph'
import { calculationReport } from '../size/report'
import { showIn } from '../units/text'
import { calculationToPdf } from './calculation-pdf'
import { letteringFonts } from '../cli/fonts'
import { siUnit } from '../units/quantities'
import { calculationWorkbook } from './calculation-xlsx'

const brief = readBrief({ purpose: 'press bales', values: { stroke: '600 mm' } })
const sheet = {
  ...emptySheet('Press'),
  sizing: { ...emptySheet('x').sizing, reasons: { 'cylinder-bore@motion': 'In the store.' } },
}
const sizing = sizeMachine(brief, sheet.sizing)

describe('the calculation report', () => {
  const report = calculationReport(sheet, brief, sizing, showIn('metric'))
  it('has what was asked, given, worked out and chosen, and why', () => {
    expect(report.statements).toEqual([{ label: 'What it must do', text: 'press bales' }])
    expect(report.conditions.find((c) => c.label === 'Pressure class')).toMatchObject({
      value: '160 bar',
      origin: 'brief',
    })
    expect(report.conditions.find((c) => c.label === 'Altitude')).toMatchObject({ origin: 'usual value' })
    expect(report.motions[0].values.find((v) => v.label === 'Stroke')!.value).toBe('600 mm')
    const bore = report.sections.find((s) => s.node === 'cylinder-bore@motion')!
    expect(bore.reason).toBe('In the store.')
    // 93 % of 136.7 bar less losses, less back pressure
    expect(bore.steps[0]).toMatchObject({
      formula: 'η · (p − Δp) − p₂',
      numbers: '93 % · (136.7 bar − 10 bar) − 5 bar',
      value: '112.9 bar',
      given: false,
    })
    expect(bore.steps[1].numbers).toBe('60 kN / 112.9 bar')
    expect(bore.steps.find((s) => s.label === 'Bore')!.formula).toBe('ISO 3320, next to D₀')
    expect(bore.inputs.find((i) => i.label === 'Working pressure, at most')!.origin).toBe('Pressure levels')
    const levels = report.sections.find((s) => s.node === 'pressure-levels')!
    expect(levels.inputs.find((i) => i.label === 'Pressure class')!.origin).toBe('brief: pressure class')
    expect(report.notes[0]).toContain('never replace')
    expect(JSON.stringify(report)).not.toMatch(/NaN|Infinity|undefined/)
  })
})

describe('the calculation as a workbook', () => {
  it('writes formulas as spreadsheets read them', () => {
    const cells: Record<string, string> = { a: 'C1', b: 'C2' }
    const of = (text: string) => formula(text).spreadsheet((name) => cells[name])
    expect(of('sqrt(4 * a / pi) + b^2')).toBe('SQRT(4*C1/PI())+C2^2')
    expect(of('a == 1 ? max(a, b) : -b')).toBe('IF(C1=1,MAX(C1,C2),(-C2))')
    expect(of('a > 1 and b < 2')).toBe('AND(C1>1,C2<2)')
    expect(of('viscosity(a, b, b)')).toBeUndefined()
    expect(of('a + c')).toBeUndefined()
  })
  it('has live formulas for steps, links between cards and values for sizes', async () => {
    const parts = unzipSync(await calculationWorkbook(sizing, 'Press, 2026-01-01'))
    const text = strFromU8(parts['xl/worksheets/sheet1.xml'])
    const formulas = [...text.matchAll(/<f>([^<]*)<\/f>/g)].map((m) => m[1])
    expect(formulas.some((f) => /^C\d+\*\(C\d+-C\d+\)-C\d+$/.test(f))).toBe(true)
    // a link from one card to another
    expect(formulas.some((f) => /^C\d+$/.test(f))).toBe(true)
    expect(formulas.length).toBeGreaterThan(200)
    expect(formulas.some((f) => f.startsWith('='))).toBe(false)
  })
  it('names the SI unit of every quantity', () => {
    expect(siUnit('pressure')).toBe('Pa')
    expect(siUnit('temperature')).toBe('K')
    expect(siUnit('displacement')).toBe('m³/rev')
  })
})

describe('the calculation as a document', () => {
  it('has the brief, each formula with its numbers, what was chosen and why, on as many pages as it needs', async () => {
    const report = calculationReport(sheet, brief, sizing, showIn('metric'))
    const heading = { title: 'Calculation: Press', line: 'First variant, 27 November', author: 'A. Fitter' }
    const { bytes, missing } = await calculationToPdf(report, heading, letteringFonts)
    expect(missing).toEqual([])
    const file = join(mkdtempSync(join(tmpdir(), 'calculation-')), 'calculation.pdf')
    writeFileSync(file, bytes)
    const text = spawnSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).stdout
    for (const words of [
      'Calculation: Press',
      'First variant, 27 November',
      'What it must do: press bales',
      'η · (p − Δp) − p2',
      '112.9 bar',
      'Chosen because: In the store.',
      'never replace',
    ])
      expect(text).toContain(words)
    expect(text).toMatch(/2 of \d+/)
  })
})
