import { expect, it } from 'vitest'
import { leakageSlope, shaftTorque } from './displacement-machine'

it('leaks what the volumetric efficiency says at the rated point', () => {
  // 10 cm³/rad at 150 rad/s, 95 %, 200 bar: 5 % of 1.5 L/s
  expect(leakageSlope(0.95, 10e-6, 150, 200e5) * 200e5).toBeCloseTo(0.05 * 1.5e-3, 10)
})
it('takes more than the ideal torque where it pumps, gives less where it is driven, and drags either way', () => {
  expect(shaftTorque(90, 150, 0.9, 0)).toBeCloseTo(100)
  expect(shaftTorque(-90, 150, 0.9, 0)).toBeCloseTo(-81)
  expect(shaftTorque(-90, -150, 0.9, 0)).toBeCloseTo(-100)
  expect(shaftTorque(0, 150, 0.9, 4)).toBeCloseTo(4)
  expect(shaftTorque(0, -150, 0.9, 4)).toBeCloseTo(-4)
  expect(shaftTorque(0, 0, 0.9, 4)).toBe(0)
})
