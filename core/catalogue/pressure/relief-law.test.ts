import { describe, expect, it } from 'vitest'
import { heldSetting, reliefFlow, reliefRate } from './relief-law'

describe('the law of a relief valve', () => {
  const [ratedFlow, timeConstant] = [1e-3, 5e-3]
  const crack = 90e5
  const span = 10e5

  it('passes the opened share of its rated flow', () => {
    expect(reliefFlow(ratedFlow, 0.4, 100e5)).toBeCloseTo(0.4e-3, 9)
  })
  it('stands still where the opening answers to the drop, and opens above it', () => {
    expect(reliefRate(timeConstant, 0.5, crack + 0.5 * span, crack, span)).toBeCloseTo(0, 6)
    expect(reliefRate(timeConstant, 0.5, crack + 0.6 * span, crack, span)).toBeCloseTo(0.1 / 5e-3, 1)
    expect(reliefRate(timeConstant, 0.5, crack, crack, span)).toBeLessThan(0)
  })
  it('never passes more than the wide-open seat, and nothing backwards', () => {
    // at a quarter of the 4 bar of its wide-open drop the seat passes half its rated flow
    expect(reliefFlow(ratedFlow, 1, 1e5)).toBeCloseTo(0.5e-3, 5)
    expect(reliefFlow(ratedFlow, 1, -5e5)).toBe(0)
  })
  it('keeps the push of the spring when the knob is backed right off', () => {
    expect(heldSetting(0)).toBe(2e5)
    expect(heldSetting(50e5)).toBe(50e5)
  })
})
