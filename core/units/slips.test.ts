import { describe, expect, it } from 'vitest'
import { findUnit } from './quantities'
import { conversions, slipsOf } from './slips'

describe('units of a value', () => {
  it('are given with the exact factor', () => {
    const psi = conversions(1, findUnit('pressure', 'bar')!, 'pressure').find((c) => c.unit === 'psi')!
    expect(psi.value).toBeCloseTo(14.503773773, 8)
    expect(psi.factor).toBe('× 14.50377377302')
    const f = conversions(20, findUnit('temperature', '°C')!, 'temperature').find((c) => c.unit === '°F')!
    expect(f.value).toBeCloseTo(68, 9)
    expect(f.factor).toBe('× 1.8, then 32')
  })
  it.each([
    ['165', 'pressure', undefined, 'without a unit'],
    ['1470 psi', 'pressure', 100e5, '14.504'],
    ['101.01 bar', 'pressure', 100e5, 'gauge pressure or absolute'],
    ['100 psia', 'pressure', undefined, 'gauge'],
    ['12.009 gpm', 'flow', 10 * 6.30901964e-5, 'imperial to US gallons'],
    ['10 imp gal', 'volume', undefined, 'imperial gallon'],
    ['2', 'displacement', undefined, '32.77 cm³/rev'],
    ['10 kW', 'power', (10e3 * 745.69987158227) / 735.49875, 'metric to mechanical'],
  ] as const)('%s as %s is questioned', (text, quantity, before, words) => {
    expect(slipsOf(text, quantity, before).join(' ')).toContain(words)
  })
  it('are not questioned where nothing is odd', () => {
    expect(slipsOf('160 bar', 'pressure', 150e5)).toEqual([])
    expect(slipsOf('30 L/min', 'flow', 20 / 60000)).toEqual([])
    expect(slipsOf('0.5', 'ratio')).toEqual([])
  })
})
