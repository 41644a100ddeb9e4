import { describe, expect, it } from 'vitest'
import { CircuitArrays } from '../../simulate/circuit/arrays'
import { addRelief, heldSetting, RELIEF, reliefFlow, reliefNumbers } from './relief-law'

describe('the law of a relief valve', () => {
  const [ratedFlow, timeConstant] = [1e-3, 5e-3]
  const crack = 90e5
  const span = 10e5

  const numbers = reliefNumbers(ratedFlow, timeConstant)
  numbers[RELIEF.crack] = crack
  numbers[RELIEF.span] = span
  /** What it writes at an opening and a drop. */
  const at = (opening: number, drop: number) => {
    const states = [{ name: 'opening', label: 'opening', quantity: 'share', initial: 0, scale: 1 }] as const
    const [local] = new CircuitArrays([{ model: { states }, ports: 2, inputs: 0 }]).locals
    local.p[0] = drop + 3e5
    local.p[1] = 3e5
    local.x[0] = opening
    addRelief(local, 0, 0, 1, numbers)
    return { rate: local.dx[0], flows: [...local.q] }
  }

  it('passes the opened share of its rated flow', () => {
    expect(reliefFlow(ratedFlow, 0.4, 100e5)).toBeCloseTo(0.4e-3, 9)
  })
  it('stands still where the opening answers to the drop, and opens above it', () => {
    expect(at(0.5, crack + 0.5 * span).rate).toBeCloseTo(0, 6)
    expect(at(0.5, crack + 0.6 * span).rate).toBeCloseTo(0.1 / 5e-3, 1)
    expect(at(0.5, crack).rate).toBeLessThan(0)
    expect(at(0.5, crack - span).rate).toBe(-0.5 / timeConstant)
  })
  it('never passes more than the wide-open seat, and nothing backwards', () => {
    // at a quarter of the 4 bar of its wide-open drop the seat passes half its rated flow
    expect(reliefFlow(ratedFlow, 1, 1e5)).toBeCloseTo(0.5e-3, 5)
    expect(reliefFlow(ratedFlow, 1, -5e5)).toBe(0)
  })
  it('takes at its inlet what it gives at its outlet, as the same law says', () => {
    for (const [opening, drop] of [
      [0.4, 100e5],
      [1, 1e5],
      [1, -5e5],
      [-1e-4, 50e5],
    ]) {
      const flow = reliefFlow(ratedFlow, opening, drop)
      expect(at(opening, drop).flows).toEqual([flow + 0, 0 - flow])
    }
  })
  it('keeps the push of the spring when the knob is backed right off', () => {
    expect(heldSetting(0)).toBe(2e5)
    expect(heldSetting(50e5)).toBe(50e5)
  })
})
