import { describe, expect, it } from 'vitest'
import { formula } from './formula'
import { nitrogenCompressibility, nitrogenDensity } from '../fluid/nitrogen'

describe('a formula', () => {
  it.each([
    ['a + b * c', { a: 1, b: 2, c: 3 }, 7],
    ['(a + b) * c', { a: 1, b: 2, c: 3 }, 9],
    ['a / b / c', { a: 12, b: 2, c: 3 }, 2],
    ['a - b - c', { a: 9, b: 2, c: 3 }, 4],
    ['sqrt(a * b^2)', { a: 4, b: 3 }, 6],
    ['pi * d^2 / 4', { d: 2 }, Math.PI],
    ['max(a, b)', { a: 2, b: 5 }, 5],
    ['a > 1 ? b : c', { a: 2, b: 5, c: 7 }, 5],
    ['a > 1 and b < 2', { a: 2, b: 5 }, 0],
    ['log(a)', { a: Math.E }, 1],
  ])('%s is computed', (text, values, expected) =>
    expect(formula(text).evaluate(values)).toBeCloseTo(expected, 12),
  )
  it('has no value where there is no real one', () => {
    expect(formula('sqrt(a)').evaluate({ a: -1 })).toBeNaN()
    expect(formula('1 / a').evaluate({ a: 0 })).toBe(Infinity)
  })
  it.each([
    ['force / (eta * p)', 'F / (η · p)'],
    ['bore^2 * pi / 4', 'D² · π / 4'],
    ['sqrt(4 * p)', '√(4 · p)'],
    ['-p', '−p'],
    ['p > 1 ? force : bore', 'F if p > 1, else D'],
    ['p^(1 / eta)', 'p^(1 / η)'],
  ])('%s is shown in symbols', (text, shown) => {
    const symbols: Record<string, string> = { force: 'F', eta: 'η', p: 'p', bore: 'D' }
    expect(formula(text).print((name) => symbols[name])).toBe(shown)
  })
  it('puts a value with its unit in brackets where it is raised to a power', () => {
    expect(formula('d^2 / 4').print(() => '80 mm')).toBe('(80 mm)² / 4')
    expect(formula('d / 4').print(() => '80 mm')).toBe('80 mm / 4')
  })
  it.each(['a +', '(a', 'a ? b', '[1, 2]', 'a = 3'])('refuses "%s"', (text) =>
    expect(() => formula(text)).toThrow(),
  )
  it('shows only the case that applies', () => {
    const cases = formula('a > 1 ? (b > 1 ? b : c + 1) : a')
    const shown = (name: string) => name
    expect(cases.printActive(shown, { a: 2, b: 0, c: 0 })).toBe('c + 1')
    expect(cases.printActive(shown, { a: 2, b: 3, c: 0 })).toBe('b')
    expect(cases.printActive(shown, { a: 0 })).toBe('a')
    expect(cases.printActive(shown, {})).toContain('if a > 1')
  })
  it('names what it reads', () => {
    expect(formula('max(a, 2) + viscosity(t, a, b) * pi').names.slice().sort()).toEqual(['a', 'b', 't'])
  })
})

describe('nitrogen', () => {
  it('is an ideal gas at low pressure', () => {
    // p · M / (R · T) at 1 bar and 300 K
    expect(nitrogenDensity(1e5, 300)).toBeCloseTo((1e5 * 0.0280134) / (8.314462618 * 300), 3)
  })
  it('follows the second virial coefficient at moderate pressure', () => {
    // B of nitrogen at 300 K is about −4.5 cm³/mol: Z = 1 + B · p / (R · T)
    const z = 1 + (-4.5e-6 * 20e5) / (8.314462618 * 300)
    expect(nitrogenCompressibility(20e5, 300)).toBeCloseTo(z, 2)
  })
  it('is harder to compress than an ideal gas at high pressure, and more so the higher', () => {
    const z = [100, 200, 300, 400].map((bar) => nitrogenCompressibility(bar * 1e5, 293))
    for (let i = 1; i < z.length; i++) expect(z[i]).toBeGreaterThan(z[i - 1])
    expect(z[3]).toBeGreaterThan(1.1)
  })
})
