import { describe, expect, it } from 'vitest'
import { Fluid } from '../fluid/fluid'
import { resolveFluid } from '../sheet/resolve'
import { fluidSchema } from '../sheet/schema'
import {
  compensatedEdge,
  endStopChamber,
  DEAD_VOLUME,
  inletFilling,
  smoothUpperLimit,
  starvation,
  addPathFlows,
  CORNER_ROUNDING,
  frictionFactor,
  notchOpening,
  smoothPositivePart,
  circleArea,
  pathCoefficient,
  smoothRamp,
  frictionReversal,
  smoothSquareRoot,
  spoolRate,
} from './flow-laws'

const slope = (f: (x: number) => number, x: number, h = 1e-7) => (f(x + h) - f(x - h)) / (2 * h)

describe('path law', () => {
  it('is the same where several paths are summed, and what one end takes the other gives', () => {
    const drops = [3e5, -40, 0]
    const p = Float64Array.from(drops.flatMap((drop) => [1e6 + drop, 1e6]))
    const q = new Float64Array(8).fill(1)
    addPathFlows(
      Float64Array.of(2e-7, 3e-7, 4e-7, 0),
      Int32Array.of(0, 2, 4, 0),
      Int32Array.of(1, 3, 5, 7),
      p,
      q,
    )
    drops.forEach((drop, i) => {
      const flow = (i + 2) * 1e-7 * smoothSquareRoot(p[2 * i] - p[2 * i + 1])
      expect(Math.sign(flow)).toBe(Math.sign(drop))
      expect(q[2 * i] - 1).toBeCloseTo(flow, 15)
      expect(q[2 * i + 1] - 1).toBeCloseTo(-flow, 15)
    })
    // a closed path leads nowhere
    expect([q[6], q[7]]).toEqual([1, 1])
  })
  it('is the square root far from zero, odd, and straight through zero', () => {
    expect(smoothSquareRoot(100e5)).toBeCloseTo(Math.sqrt(100e5), 1)
    for (const drop of [1, 1e3, 1e5, 3e7]) expect(smoothSquareRoot(-drop)).toBe(-smoothSquareRoot(drop))
    expect(smoothSquareRoot(0)).toBe(0)
    // at Δp « Δp_t it is Δp/√Δp_t
    expect(slope(smoothSquareRoot, 0, 1)).toBeCloseTo(1 / Math.sqrt(0.1e5), 8)
  })
  it('passes nearly its catalogue point', () => {
    const at = (bar: number) => pathCoefficient(1, bar * 1e5) * smoothSquareRoot(bar * 1e5)
    expect(at(5)).toBeCloseTo(1 / (1 + (0.1 / 5) ** 2) ** 0.25, 9)
    expect(1 - at(1)).toBeCloseTo(0.0025, 4)
  })
  it('gives a sharp-edged orifice its textbook flow', () => {
    const fluid = new Fluid(resolveFluid(fluidSchema.parse({ density15: '885.4961832 kg/m³' })).data)
    // 1 mm, 0.7, 870 kg/m³, 100 bar: 0.7 · 0.785e-6 · √(2 · 1e7 / 870) = 5.0 L/min
    const flow = circleArea(1e-3) * fluid.orificeFactor * smoothSquareRoot(100e5)
    expect(flow * 60000).toBeCloseTo(0.7 * (Math.PI / 4) * 1e-6 * Math.sqrt(2e7 / 870) * 60000, 3)
  })
})

describe('openings', () => {
  it('are 0, straight, 1, with a smooth start and end', () => {
    expect([
      smoothRamp(-1),
      smoothRamp(-CORNER_ROUNDING),
      smoothRamp(0.5),
      smoothRamp(1 + CORNER_ROUNDING),
      smoothRamp(2),
    ]).toEqual([0, 0, 0.5, 1, 1])
    for (const corner of [-CORNER_ROUNDING, CORNER_ROUNDING, 1 - CORNER_ROUNDING, 1 + CORNER_ROUNDING]) {
      expect(smoothRamp(corner - 1e-9)).toBeCloseTo(smoothRamp(corner + 1e-9), 8)
      expect(slope(smoothRamp, corner - 1e-5)).toBeCloseTo(slope(smoothRamp, corner + 1e-5), 2)
    }
    expect(smoothRamp(0)).toBeCloseTo(CORNER_ROUNDING / 4, 12)
    expect(1 - smoothRamp(1)).toBeCloseTo(CORNER_ROUNDING / 4, 12)
  })
  it('never fall', () => {
    for (let s = -0.1; s < 1.1; s += 0.001)
      expect(smoothRamp(s + 0.001)).toBeGreaterThanOrEqual(smoothRamp(s))
  })
  it('of a relief go on in a straight line', () => {
    expect([smoothPositivePart(-0.5), smoothPositivePart(0.5), smoothPositivePart(3)]).toEqual([0, 0.5, 3])
    expect(smoothPositivePart(0.01)).toBe(smoothRamp(0.01))
  })
})

describe('frictionReversal', () => {
  it('is the hyperbolic tangent', () => {
    for (const s of [-300, -19.5, -18.5, -2, -1e-3, 0, 1e-6, 0.3, 5, 18.9, 19.1])
      expect(frictionReversal(s)).toBeCloseTo(Math.tanh(s), 14)
  })
})

describe('notchOpening', () => {
  it('is shut within the dead band, full at the end of the stroke, the same both ways', () => {
    for (const exponent of [1, 1.5, 2.2]) {
      const notch = notchOpening({ deadBand: 0.1, exponent })
      expect(notch(0.1)).toBe(0)
      expect(notch(-0.05)).toBe(0)
      expect(notch(1)).toBeCloseTo(1, 12)
      expect(notch(0.55)).toBeCloseTo(0.5 ** exponent, 12)
      expect(notch(-0.55)).toBe(notch(0.55))
    }
  })
})

describe('spool', () => {
  it('moves at constant speed and slows at its end', () => {
    expect(spoolRate(0, 1, 0.03)).toBeCloseTo(1 / 0.03, 9)
    expect(spoolRate(1, -1, 0.03)).toBeCloseTo(-1 / 0.03, 9)
    expect(spoolRate(0.99, 1, 0.03)).toBeCloseTo(0.5 / 0.03, 9)
    expect(spoolRate(1, 1, 0.03)).toBe(0)
  })
})

describe('pipe friction', () => {
  it('is laminar, Blasius, and continuous between', () => {
    expect(frictionFactor(1000)).toBeCloseTo(0.064, 12)
    expect(frictionFactor(1e5)).toBeCloseTo(0.3164 * 1e5 ** -0.25, 12)
    for (const re of [2000, 4000])
      expect(frictionFactor(re * 0.999999)).toBeCloseTo(frictionFactor(re * 1.000001), 5)
    expect(frictionFactor(2828)).toBeCloseTo((0.032 + 0.3164 * 4000 ** -0.25) / 2, 4)
  })
})

describe('compensated flow', () => {
  it('saturates with a corner of half-width 0.02 that has no kink', () => {
    expect([0.5, 0.98, 1, 1.02, 3].map(smoothUpperLimit)).toEqual([
      0.5,
      0.98,
      expect.closeTo(0.995, 12),
      1,
      1,
    ])
    for (const s of [0.98, 1.02])
      expect(slope(smoothUpperLimit, s - 1e-5)).toBeCloseTo(slope(smoothUpperLimit, s + 1e-5), 2)
  })
  it('passes the set flow from 1.05 of its drop on, an orifice below, and nothing back', () => {
    const edge = compensatedEdge(8e5)
    for (const factor of [1.05, 2, 50]) expect(Math.abs(edge(8e5 * factor) - 1)).toBeLessThan(0.01)
    expect(edge(2e5)).toBeCloseTo(0.5, 2)
    expect(edge(-2e5)).toBe(0)
  })
})

describe('inlet filling', () => {
  it('falls from 1 at 0.3 bar absolute to 0 at none', () => {
    expect([0, -71325, -86325, -101325, -2e5].map(inletFilling)).toEqual([1, 1, expect.closeTo(0.5, 9), 0, 0])
    expect(starvation(-71325)).toBeCloseTo(0, 6)
    expect(starvation(-1e5)).toBeGreaterThan(0)
  })
})

describe('a chamber pushed into its stop', () => {
  it('keeps a tenth of its dead volume; what it loses agrees with the flow that leaves it', () => {
    const area = 3e-3
    const chamber = endStopChamber(area)
    expect(DEAD_VOLUME - area * chamber.gone(1)).toBeCloseTo(0.1 * DEAD_VOLUME, 12)
    for (const depth of [1e-4, 5e-3, 0.02, 0.029, 0.05])
      expect(slope(chamber.gone, depth, 1e-8)).toBeCloseTo(chamber.share(depth), 5)
    expect(chamber.gone(1e-5) / 1e-5).toBeCloseTo(1, 3)
  })
})
