import { describe, expect, it } from 'vitest'
import { showQuantity } from '../units/text'
import { briefParameters, briefSchema, resolveBrief, type Brief } from './brief'
import { evaluateFormula, formulaWithNumbers } from './card'
import { sizingCards } from './cards'
import { bores, motorPowers, nextInSeries } from './series'

const brief = (values: Brief['values'] = {}) => briefSchema.parse({ values })
const cardsFor = (values: Brief['values'] = {}) => {
  const read = resolveBrief(brief(values))
  expect(read.problems).toEqual([])
  return sizingCards(read.values!)
}
const card = (id: string, values: Brief['values'] = {}) => cardsFor(values).find((c) => c.id === id)!

describe('formulas', () => {
  const of = (value: number) => ({ value, quantity: 'ratio' as const })
  it.each([
    ['a + b · c', { a: of(1), b: of(2), c: of(3) }, 7],
    ['(a + b) · c', { a: of(1), b: of(2), c: of(3) }, 9],
    ['a / b / c', { a: of(12), b: of(2), c: of(3) }, 2],
    ['a − b − c', { a: of(9), b: of(2), c: of(3) }, 4],
    ['√(a · b²)', { a: of(4), b: of(3) }, 6],
    ['π · d² / 4', { d: of(2) }, Math.PI],
    ['a³ + b⁴', { a: of(2), b: of(2) }, 24],
    ['max(a, b)', { a: of(2), b: of(5) }, 5],
    ['1 / (1 − o)', { o: of(0.2) }, 1.25],
  ])('%s', (formula, terms, value) => expect(evaluateFormula(formula, terms as never)).toBeCloseTo(value, 12))
  it.each(['a +', '(a', 'a b', '? a'])('refuses "%s"', (formula) =>
    expect(() => evaluateFormula(formula, { a: of(1), b: of(2) })).toThrow('Cannot read'),
  )
})

describe('sizing', () => {
  it('reproduces a sum done by hand', () => {
    // 60 kN, 160 bar less 10 bar on the way, 93 %, 5 bar behind the piston:
    // A = 60000 / (0.93 · 150e5 − 5e5) = 44.61 cm² → ⌀ 75.4 mm → 80 mm → A = 50.27 cm²
    const bore = card('bore')
    expect(bore.steps[0].value).toBeCloseTo(44.61e-4, 6)
    expect(bore.answer!.value).toBeCloseTo(0.08, 9)
    // p = (60000 / 50.27e-4 + 5e5) / 0.93 + 10e5 = 143.7 bar
    expect(bore.steps[3].value / 1e5).toBeCloseTo(143.7, 1)
    // 600 mm in 6 s at 50.27 cm²: 30.2 L/min; pump 30.2 / (1500 · 0.92) = 21.9 → 25 cm³
    expect(card('flow').answer!.value * 60000).toBeCloseTo(30.2, 1)
    expect(card('pump').answer!.value * 1e6).toBeCloseTo(25, 9)
    // cracking 143.7 · 1.1 = 158.1, at rated flow 158.1 / 0.8 = 197.6 → 200 bar
    expect(card('relief').answer!.value / 1e5).toBeCloseTo(200, 6)
    // 25 cm³ · 25 1/s · 200 bar / 0.92 = 13.59 kW → 15 kW
    expect(card('motor').steps[0].value).toBeCloseTo(13587, 0)
    expect(card('motor').answer!.value).toBe(15000)
  })
  it('checks the rod by Euler where it is slender and by Johnson where it is stocky', () => {
    const stocky = card('rod')
    expect(stocky.steps[2].meaning).toContain('Johnson')
    expect(stocky.answer!.value).toBeCloseTo(0.036, 9)
    const slender = card('rod', { stroke: '2 m', pressForce: '20 kN', bucklingLength: '2' })
    expect(slender.steps[2].meaning).toContain('Euler')
    // d⁴ = 64 · 3.5 · 20e3 · 4.5² / (π³ · 210e9) → 61.1 mm
    expect(slender.steps[2].value).toBeCloseTo(0.0611, 4)
    for (const c of [stocky, slender])
      if (c.answer) expect(c.steps.find((s) => s.symbol === 'S')!.value).toBeGreaterThanOrEqual(3.5 * 0.999)
  })
  it('names the relief setting as the office does', () => {
    expect(card('relief', { settingAt: 'cracking' }).answer!.value / 1e5).toBeCloseTo(160, 6)
    expect(card('relief', { settingAt: 'cracking' }).answer!.label).toContain('cracking')
    // the motor is sized for the same full-flow pressure either way
    expect(card('motor', { settingAt: 'cracking' }).steps[0].value).toBeCloseTo(
      card('motor').steps[0].value,
      6,
    )
  })
  it('sets the relief by the harder direction', () => {
    const easy = card('relief').steps.find((s) => s.symbol === 'p')!.value
    const hard = card('relief', { returnForce: '55 kN' }).steps.find((s) => s.symbol === 'p')!.value
    expect(hard).toBeGreaterThan(easy * 1.1)
  })
  it('shows the numbers it computes with', () => {
    for (const c of cardsFor())
      for (const s of c.steps) {
        const text = formulaWithNumbers(s, (v, q) => showQuantity(v, q, 'metric'))
        for (const term of Object.values(s.terms))
          expect(text).toContain(showQuantity(term.value, term.quantity, 'metric'))
        expect(Number.isFinite(s.value)).toBe(true)
      }
  })
  it('says where no standard size will do, and stops there', () => {
    const cards = cardsFor({ pressForce: '50 MN' })
    expect(cards).toHaveLength(1)
    expect(cards[0].answer).toBeUndefined()
    expect(cards[0].remarks[0]).toMatchObject({ severity: 'warning' })
  })
  it('refuses a brief that does not read, at the field', () => {
    const read = resolveBrief(brief({ stroke: '600 bar', pressForce: '-1 kN' }))
    expect(read.values).toBeUndefined()
    expect(read.problems.map((p) => p.location.parameter)).toEqual(['stroke', 'pressForce'])
    expect(resolveBrief(brief({ pressStroke: '900 mm' })).problems[0].location.parameter).toBe('pressStroke')
  })
  it('uses every value of the brief in some sum', () => {
    const base = JSON.stringify(cardsFor())
    const other: Record<string, string> = {
      bucklingLength: '2',
      workingPressure: '250 bar',
      volumetricEfficiency: '50 %',
      hydromechanicalEfficiency: '50 %',
      cylinderEfficiency: '50 %',
      reliefMargin: '60 %',
      reliefOverride: '6 %',
      settingAt: 'cracking',
      bucklingSafety: '5',
      shaftSpeed: '1000 rpm',
      backPressure: '30 bar',
      lineLoss: '40 bar',
      rodOverhang: '900 mm',
      pressStroke: '300 mm',
      mass: '900 kg',
      returnForce: '55 kN',
      pressForce: '90 kN',
      returnTime: '2 s',
      advanceTime: '2 s',
      stroke: '900 mm',
    }
    for (const name of Object.keys(briefParameters)) {
      expect(other, name).toHaveProperty(name)
      expect(JSON.stringify(cardsFor({ [name]: other[name] })), name).not.toBe(base)
    }
  })
  it('takes the next of a series, and none beyond its end', () => {
    expect(nextInSeries(bores, 0.063)).toBeCloseTo(0.063, 9)
    expect(nextInSeries(bores, 0.0631)).toBeCloseTo(0.08, 9)
    expect(nextInSeries(motorPowers, 1e9)).toBeUndefined()
  })
})
