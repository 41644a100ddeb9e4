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
    expect(oil.bulkModulus(100e5) / 1.4711334e9).toBeCloseTo(1, 6)
    expect(oil.bulkModulus((100e5 * 63 ** 2) / (63 ** 2 - 36 ** 2)) / 1.4851855e9).toBeCloseTo(1, 6)
    // at atmospheric pressure: K_l·1.005/(1 + 0.005·K_l/(1.4·p_atm))
    expect(oil.bulkModulus(0)).toBeCloseTo((1.5e9 * 1.005) / (1 + (0.005 * 1.5e9) / (1.4 * 101325)), 0)
    expect(oil.bulkModulus(-101325)).toBeLessThan(10)
    expect(oil.bulkModulus(-1e9)).toBeGreaterThan(0)
  })

  it('knows the slope of its bulk modulus, and none where it is cut off', () => {
    for (const p of [-101000, -0.5e5, 0, 1e5, 20e5, 300e5]) {
      const h = 1e-3 * (p + 101325)
      const slope = (oil.bulkModulus(p + h) - oil.bulkModulus(p - h)) / (2 * h)
      expect(oil.bulkModulusSlope(p) / slope).toBeCloseTo(1, 4)
    }
    expect(oil.bulkModulusSlope(-2e5)).toBe(0)
  })
})
