import { describe, expect, it } from 'vitest'
import { Tabulated } from './tabulated'

/** x^e as a table tells it, and its slope. */
function power(exponent: number) {
  const table = new Tabulated(
    (x) => x ** exponent,
    (x) => exponent * x ** (exponent - 1),
    1,
    1e9,
  )
  const [values, slopes] = [new Float64Array(1), new Float64Array(1)]
  return (x: number) => {
    table.read(Float64Array.of(x - 5), Int32Array.of(0), { shift: 5, least: 0.2 }, values, slopes)
    return { value: values[0], slope: slopes[0] }
  }
}

describe('Tabulated', () => {
  it('is the function to eight figures over its range, and beyond it', () => {
    for (const exponent of [-1 / 1.4, -1, 0.5, 1.5]) {
      const law = power(exponent)
      for (let x = 0.3; x < 1e11; x *= 1.0137) {
        expect(law(x).value / x ** exponent - 1).toBeCloseTo(0, 8)
        expect(law(x).slope / (exponent * x ** (exponent - 1)) - 1).toBeCloseTo(0, 5)
      }
    }
  })
  it('joins its pieces without a step or a kink', () => {
    const law = power(-1 / 1.4)
    for (const junction of [64, 65, 128, 1.015625 * 65536]) {
      const h = junction * 1e-6
      const [before, at, after] = [law(junction - h), law(junction), law(junction + h)].map((l) => l.value)
      expect((after - at) / (at - before)).toBeCloseTo(1, 4)
    }
  })
  it('stays level below its least', () => {
    const law = power(-1)
    expect(law(0.1)).toEqual({ value: 5, slope: 0 })
  })
})
