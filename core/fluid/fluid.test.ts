import { describe, expect, it } from 'vitest'
import { Fluid, densityAt, viscosityAt } from './fluid'

const oil = new Fluid({
  density15: 870,
  viscosity40: 46e-6,
  viscosity100: 6.8e-6,
  temperature: 313.15,
  bulkModulus: 1.5e9,
  freeAir: 0.005,
  airExponent: 1.4,
})

/** Bulk modulus and its slope at a gauge pressure. */
function at(pressure: number) {
  const [moduli, slopes] = [new Float64Array(1), new Float64Array(1)]
  oil.bulkModuli(Float64Array.of(pressure), Int32Array.of(0), moduli, slopes)
  return { modulus: moduli[0], slope: slopes[0] }
}

describe('fluid', () => {
  it('passes through its two viscosity points and thins when warm', () => {
    expect(viscosityAt(313.15, 46e-6, 6.8e-6)).toBeCloseTo(46e-6, 12)
    expect(viscosityAt(373.15, 46e-6, 6.8e-6)).toBeCloseTo(6.8e-6, 12)
    expect(viscosityAt(293.15, 46e-6, 6.8e-6)).toBeGreaterThan(100e-6)
  })

  it('expands with temperature', () => {
    expect(densityAt(288.15, 870)).toBe(870)
    expect(densityAt(313.15, 870)).toBeCloseTo(854.775, 3)
  })

  it('is stiff under pressure and soft where it holds air', () => {
    // independently computed: 1.4711334 GPa at 100 bar, 1.4851855 GPa at 148.48 bar
    expect(at(100e5).modulus / 1.4711334e9).toBeCloseTo(1, 6)
    expect(at((100e5 * 63 ** 2) / (63 ** 2 - 36 ** 2)).modulus / 1.4851855e9).toBeCloseTo(1, 6)
    // at atmospheric pressure: K_l·1.005/(1 + 0.005·K_l/(1.4·p_atm))
    expect(at(0).modulus).toBeCloseTo((1.5e9 * 1.005) / (1 + (0.005 * 1.5e9) / (1.4 * 101325)), 0)
    expect(at(-101325).modulus).toBeLessThan(10)
    expect(at(-1e9).modulus).toBeGreaterThan(0)
  })

  it('knows the slope of its bulk modulus, and none where it is cut off', () => {
    for (const p of [-101000, -0.5e5, 0, 1e5, 20e5, 300e5]) {
      const h = 1e-3 * (p + 101325)
      const slope = (at(p + h).modulus - at(p - h).modulus) / (2 * h)
      expect(at(p).slope / slope).toBeCloseTo(1, 4)
    }
    expect(at(-2e5).slope).toBe(0)
  })

  it('has the strain of its air in closed form, which with the liquid makes up 1/K_e, and goes on below the lowest pressure', () => {
    const strain = (p: number) => {
      const [swelling, slopes] = [new Float64Array(1), new Float64Array(1)]
      oil.airSwelling(Float64Array.of(p), Int32Array.of(0), swelling, slopes)
      return { swelling: swelling[0], slope: slopes[0] }
    }
    for (const absolute of [1.5, 30, 1e3, 1e5, 1e7]) {
      const p = absolute - 101325
      const air = 0.005 * (101325 / absolute) ** (1 / 1.4)
      expect(strain(p).swelling / Math.log1p(air)).toBeCloseTo(1, 6)
      // 1/K_e = 1/(K·(1 + g)) − d ln(1 + g)/dP
      expect((1 / (1.5e9 * (1 + air)) - strain(p).slope) * at(p).modulus).toBeCloseTo(1, 5)
    }
    const [edge, below] = [strain(1 - 101325), strain(-50 - 101325)]
    expect(below.swelling - edge.swelling).toBeCloseTo(-51 * below.slope, 6)
    expect(below.slope * at(-50 - 101325).modulus).toBeCloseTo(-1, 3)
  })
  it('goes on along straight lines, and never below an empty tank', () => {
    const { tanks } = oil
    const [start, temperature] = [tanks[0], oil.temperature]
    oil.restartFrom(10, Float64Array.of(0.02, 0.1), 320, Float64Array.of(-0.01, 0.02), 0.5)
    oil.setTime(11)
    expect([tanks[0], tanks[1], oil.temperature]).toEqual([
      expect.closeTo(0.01, 12),
      expect.closeTo(0.12, 12),
      320.5,
    ])
    oil.setTime(20)
    expect(tanks[0]).toBe(0)
    oil.restartFrom(0, Float64Array.of(start, start), temperature, Float64Array.of(0, 0), 0)
    expect(oil.temperature).toBe(temperature)
  })
})
