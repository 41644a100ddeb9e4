import { describe, expect, it } from 'vitest'
import { PowerLaw } from './power-law'

describe('PowerLaw', () => {
  it('is the power to eight figures over its range, and beyond it', () => {
    for (const exponent of [-1 / 1.4, -1, 0.5, 1.5]) {
      const law = new PowerLaw(exponent, 1, 1e9)
      for (let x = 0.3; x < 1e11; x *= 1.0137) expect(law.at(x) / x ** exponent - 1).toBeCloseTo(0, 8)
    }
  })
  it('joins its pieces without a step or a kink', () => {
    const law = new PowerLaw(-1 / 1.4, 1, 1e9)
    for (const joint of [64, 65, 128, 1.015625 * 65536]) {
      const h = joint * 1e-6
      const [before, at, after] = [law.at(joint - h), law.at(joint), law.at(joint + h)]
      expect((after - at) / (at - before)).toBeCloseTo(1, 4)
    }
  })
})
