import { expect, it } from 'vitest'
import type { Local } from './kind'
import { holdShaft, leakageSlope, shaftTorque } from './displacement-machine'

it('leaks what the volumetric efficiency says at the rated point', () => {
  // 10 cm³/rad at 150 rad/s, 95 %, 200 bar: 5 % of 1.5 L/s
  expect(leakageSlope(0.95, 10e-6, 150, 200e5) * 200e5).toBeCloseTo(0.05 * 1.5e-3, 10)
})
it('takes more than the ideal torque where it pumps, gives less where it is driven, and drags either way', () => {
  expect(shaftTorque(90, 1, 0.9, 0)).toBeCloseTo(100)
  expect(shaftTorque(-90, 1, 0.9, 0)).toBeCloseTo(-81)
  expect(shaftTorque(-90, -1, 0.9, 0)).toBeCloseTo(-100)
  expect(shaftTorque(0, 1, 0.9, 4)).toBeCloseTo(4)
  expect(shaftTorque(0, -1, 0.9, 4)).toBeCloseTo(-4)
  expect(shaftTorque(0, 0, 0.9, 4)).toBe(0)
})
it('is held at rest by its drag and by what its efficiency takes of either torque', () => {
  const local = { holdForward: new Float64Array(1), holdBack: new Float64Array(1) } as Local
  holdShaft(local, 0, 90, 0.9, 4)
  // forward it would take 100 and 4; backward the oil would drive it with 81, less 4
  expect(local.holdForward[0]).toBeCloseTo(100 + 4 - 90)
  expect(local.holdBack[0]).toBeCloseTo(90 - 81 + 4)
})
