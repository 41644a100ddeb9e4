import { describe, expect, it } from 'vitest'
import { bucklingLoad, isSlender, YIELD, YOUNG } from './column'

describe('a rod as a column', () => {
  it('fails by Euler where it is slender: π²·E·I/L²', () => {
    const inertia = (Math.PI * 0.036 ** 4) / 64
    expect(isSlender(0.036, 1.25)).toBe(true)
    expect(bucklingLoad(0.036, 1.25)).toBeCloseTo((Math.PI ** 2 * YOUNG * inertia) / 1.25 ** 2, 6)
    // 8.24e-8 m⁴, 1.25 m
    expect(bucklingLoad(0.036, 1.25) / 1e3).toBeCloseTo(109.4, 0)
  })
  it('fails at its yield where it is short, and goes over from one law to the other without a step', () => {
    const area = (Math.PI * 0.05 ** 2) / 4
    expect(bucklingLoad(0.05, 0.01) / (YIELD * area)).toBeCloseTo(1, 3)
    const limit = (0.05 / 4) * Math.PI * Math.sqrt((2 * YOUNG) / YIELD)
    expect(bucklingLoad(0.05, limit * 0.9999) / bucklingLoad(0.05, limit * 1.0001)).toBeCloseTo(1, 3)
    expect(bucklingLoad(0.05, limit) / (YIELD * area)).toBeCloseTo(0.5, 3)
  })
})
