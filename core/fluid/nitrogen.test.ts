import { expect, it } from 'vitest'
import {
  GAS,
  GAS_CONSTANT,
  gasState,
  idealGas,
  molarVolume,
  nitrogenCompressibility,
  realNitrogen,
} from './nitrogen'

/** Constants of the simple fluid and of the reference fluid: B. I. Lee, M. G. Kesler, AIChE J. 21 (1975), table 3. */
const simple = {
  b: [0.1181193, 0.265728, 0.15479, 0.030323],
  c: [0.0236744, 0.0186984, 0, 0.042724],
  d: [0.155488e-4, 0.623689e-4],
  beta: 0.65392,
  gamma: 0.060167,
}
const reference = {
  b: [0.2026579, 0.331511, 0.027655, 0.203488],
  c: [0.0313385, 0.0503618, 0.016901, 0.041577],
  d: [0.48736e-4, 0.0740336e-4],
  beta: 1.226,
  gamma: 0.03754,
}
function compressibility({ b, c, d, beta, gamma }: typeof simple, tr: number, pr: number): number {
  const [bb, cc, dd] = [
    b[0] - b[1] / tr - b[2] / tr ** 2 - b[3] / tr ** 3,
    c[0] - c[1] / tr + c[2] / tr ** 3,
    d[0] + d[1] / tr,
  ]
  const z = (v: number) =>
    1 +
    bb / v +
    cc / v ** 2 +
    dd / v ** 5 +
    (c[3] / (tr ** 3 * v ** 2)) * (beta + gamma / v ** 2) * Math.exp(-gamma / v ** 2)
  let [low, high] = [0.05, 1e4]
  for (let i = 0; i < 200; i++) {
    const v = Math.sqrt(low * high)
    if (z(v) > (pr * v) / tr) low = v
    else high = v
  }
  return (pr * low) / tr
}
function leeKesler(pressure: number, temperature: number): number {
  const [tr, pr] = [temperature / 126.192, pressure / 3.3958e6]
  const z = compressibility(simple, tr, pr)
  return z + (0.0372 / 0.3978) * (compressibility(reference, tr, pr) - z)
}

it('lies within 1 % of the equation of Lee and Kesler from 250 to 400 K up to 500 bar', () => {
  for (let t = 250; t <= 400; t += 25)
    for (let p = 10e5; p <= 500e5; p += 10e5)
      expect(Math.abs(nitrogenCompressibility(p, t) / leeKesler(p, t) - 1), `${t} K, ${p} Pa`).toBeLessThan(
        0.01,
      )
})
it('is filled into bottles of 50 L at 15 °C as these are sold: about 9.4 m³ at 200 bar, 13.2 m³ at 300 bar', () => {
  const sold = (p: number) => (0.05 * p) / nitrogenCompressibility(p, 288.15) / 1e5
  expect(sold(200e5)).toBeCloseTo(9.45, 1)
  expect(sold(300e5)).toBeCloseTo(13.15, 1)
})
it.each([realNitrogen, idealGas])(
  'agrees with itself: energy and entropy belong to one free energy',
  (gas) => {
    const work = (t: number, v: number) => gas.energy(t, v) - t * gas.entropy(t, v)
    for (const [t, p] of [
      [280, 50e5],
      [313, 200e5],
      [380, 450e5],
    ] as const) {
      const v = molarVolume(gas, p, t)
      expect(gas.pressure(t, v)).toBeCloseTo(p, 0)
      const dv = 1e-4 * v
      // −∂A/∂v is the pressure
      expect((work(t, v - dv) - work(t, v + dv)) / (2 * dv) / p).toBeCloseTo(1, 6)
      // ∂u/∂T = T·∂s/∂T
      const heat = (gas.energy(t + 0.1, v) - gas.energy(t - 0.1, v)) / 0.2
      expect((t * (gas.entropy(t + 0.1, v) - gas.entropy(t - 0.1, v))) / 0.2 / heat).toBeCloseTo(1, 5)
      // ∂u/∂v = T·∂p/∂T − p
      const slope = (gas.pressure(t + 0.01, v) - gas.pressure(t - 0.01, v)) / 0.02
      const energySlope = (gas.energy(t, v + dv) - gas.energy(t, v - dv)) / (2 * dv)
      expect(Math.abs(energySlope - (t * slope - p)) / p).toBeLessThan(1e-5)
    }
    // c_v of a thin gas
    const v = molarVolume(gas, 1e5, 300)
    expect((gas.energy(301, v) - gas.energy(299, v)) / 2 / GAS_CONSTANT).toBeCloseTo(2.5, 1)
  },
)

it.each([realNitrogen, idealGas])('has derivatives that agree with its pressure and its energy', (gas) => {
  for (const [t, v] of [
    [250, 3e-4],
    [313, 1.3e-4],
    [420, 8e-5],
    [300, 2e-2],
  ] as const) {
    const state = gasState()
    state[GAS.temperature] = t
    state[GAS.volume] = v
    gas.find(state)
    const central = (of: (temperature: number, volume: number) => number) =>
      (of(t + 0.01, v) - of(t - 0.01, v)) / 0.02
    expect(state[GAS.pressure] / gas.pressure(t, v)).toBeCloseTo(1, 12)
    expect(state[GAS.pressureSlope] / central(gas.pressure)).toBeCloseTo(1, 7)
    expect(state[GAS.heatCapacity] / central(gas.energy)).toBeCloseTo(1, 7)
  }
})
