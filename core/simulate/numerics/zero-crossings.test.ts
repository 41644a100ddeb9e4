import { describe, expect, it } from 'vitest'
import { ZeroCrossings } from './zero-crossings'

/** Looks for the first crossing of some functions of the share; tells where, and after how many looks. */
function search(functions: ((s: number) => number)[], precision = 1e-9) {
  const crossings = new ZeroCrossings(functions.length, false)
  const now = new Float64Array(functions.length)
  let looks = 0
  const look = (share: number) => {
    looks++
    functions.forEach((f, i) => (now[i] = f(share)))
  }
  const before = Float64Array.from(functions, (f) => f(0))
  look(1)
  const found = crossings.find(before, now)
  looks = 0
  return { found, at: found ? crossings.locate(0, 1, precision, look, now) : 1, looks }
}

describe('crossings', () => {
  it('finds none where all keep their side', () => {
    expect(search([(s) => s - 2, () => 1]).found).toBe(false)
  })
  it('finds a smooth one from its far side with few looks', () => {
    const { at, looks } = search([(s) => s ** 3 + s - 0.5])
    expect(at ** 3 + at).toBeGreaterThan(0.5)
    expect(at).toBeCloseTo(0.4238537990697834, 8)
    expect(looks).toBeLessThan(12)
  })
  it('finds the first of several, whatever their sizes and directions', () => {
    const { at } = search([(s) => 1e6 * (s - 0.8), (s) => 1e-6 * (0.3 - s), (s) => s - 0.5])
    expect(at).toBeCloseTo(0.3, 8)
  })
  it('finds a jump in little more than twice the looks of halving', () => {
    const { at, looks } = search([(s) => (s < 0.637 ? -1e-9 : 1e9)], 1e-6)
    expect(at).toBeCloseTo(0.637, 5)
    expect(looks).toBeLessThan(80)
  })
  it('takes zero as above only where told so', () => {
    for (const zeroIsAbove of [true, false])
      expect(new ZeroCrossings(1, zeroIsAbove).find(Float64Array.of(-1), Float64Array.of(0))).toBe(
        zeroIsAbove,
      )
  })
})
