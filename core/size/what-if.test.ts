import { describe, expect, it } from 'vitest'
import { findCard } from './cards'
import { freeCard } from './graph'
import { numericInputs, spreadOf, sweep } from './what-if'

const loss = freeCard(findCard('line-loss')!, { flow: '10 L/min', fittings: '0' })
const bore = freeCard(findCard('cylinder-bore')!, {})

describe('a sweep', () => {
  it('over one input follows the formula', () => {
    const { x, y, results } = sweep(loss, 'speed', { name: 'flow', from: 1e-4, to: 3e-4, count: 5 })
    expect(y).toEqual([undefined])
    expect(x).toHaveLength(5)
    // v = 4 · Q / (π · d²)
    x.forEach((q, i) => expect(results[0][i]).toBeCloseTo((4 * q) / (Math.PI * 0.013 ** 2), 9))
  })
  it('over two has a row for each value of the second, and the sizes follow', () => {
    const { y, results } = sweep(
      bore,
      'bore',
      { name: 'force', from: 20e3, to: 100e3, count: 3 },
      { name: 'maximumPressure', from: 100e5, to: 200e5, count: 2 },
    )
    expect(y).toEqual([100e5, 200e5])
    expect(results[0].map((v) => Math.round(v! * 1000))).toEqual([63, 100, 140])
    expect(results[1][2]!).toBeLessThan(results[0][2]!)
  })
  it('marks where the card warns, and stays within what an input may be', () => {
    const { warned, x } = sweep(bore, 'margin', { name: 'efficiency', from: 0.1, to: 3, count: 4 })
    expect(Math.min(...x)).toBe(0.3)
    expect(Math.max(...x)).toBe(1)
    expect(warned[0]).toHaveLength(4)
  })
  it('offers quantities only', () => {
    const names = numericInputs(findCard('cylinder-buckling')!).map(([name]) => name)
    expect(names).toContain('stroke')
    expect(names).not.toContain('mounting')
  })
})

describe('the spread of a result', () => {
  it('adds the squares of single deviations, and names who causes it', () => {
    // p = F / A / η + p₂ / η + Δp with everything else fixed: the deviation of the force is 10 % of F / (A · η)
    const spread = spreadOf(bore, 'pressure', { force: 0.1, lineLoss: 0.2 })!
    const byForce = (0.1 * 60e3) / bore.values.pistonArea / 0.93
    expect(spread.contributions.map((c) => c.name)).toEqual(['force', 'lineLoss'])
    expect(spread.contributions[0].high - spread.nominal).toBeCloseTo(byForce, 0)
    expect(spread.likely).toBeCloseTo(Math.hypot(byForce, 2e5), 0)
    expect(spread.worst[1] - spread.nominal).toBeCloseTo(byForce + 2e5, 0)
    expect(spread.contributions.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 12)
  })
  it('is nothing without tolerances or without a result', () => {
    expect(spreadOf(bore, 'pressure', { force: 0 })).toMatchObject({ likely: 0, contributions: [] })
    expect(spreadOf({ ...bore, values: {} }, 'pressure', { force: 0.1 })).toBeUndefined()
  })
})
