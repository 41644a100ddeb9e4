/** Losses of pumps and motors (ISO 4391): leakage and shaft torque. */
import type { Local } from './kind'

/**
 * Slope of the leakage over the pressure drop, m³/s/Pa, from the volumetric efficiency at the rated point:
 * Q_leak = (1 − η_v)·V·n at the rated drop, and in proportion to the drop elsewhere (laminar gaps). To be multiplied by
 * `fluid.leakageFactor`, as gaps leak in inverse proportion to the viscosity.
 * @param displacement m³/rad @param ratedSpeed rad/s @param ratedPressure Pa
 */
export const leakageSlope = (
  volumetricEfficiency: number,
  displacement: number,
  ratedSpeed: number,
  ratedPressure: number,
): number => ((1 - volumetricEfficiency) * displacement * ratedSpeed) / ratedPressure

/**
 * Torque that a displacement machine takes from its shaft, N·m. The ideal torque V·Δp is divided by the hydro-mechanical
 * efficiency where the shaft drives (the machine pumps) and multiplied by it where the oil drives; dry friction comes in addition.
 * @param ideal V·Δp, N·m @param direction in which it turns, 1 or −1; 0 where it is held, without losses
 * @param efficiency hydro-mechanical @param drag dry friction, N·m
 */
export function shaftTorque(ideal: number, direction: number, efficiency: number, drag: number): number {
  if (direction === 0) return ideal
  return (ideal * direction >= 0 ? ideal / efficiency : ideal * efficiency) + drag * direction
}

/**
 * What keeps the shaft of a displacement machine at rest: by how much its torque differs once it turns either way.
 * @param place index of its dry friction
 */
export function holdShaft(l: Local, place: number, ideal: number, efficiency: number, drag: number): void {
  l.holdForward[place] = shaftTorque(ideal, 1, efficiency, drag) - ideal
  l.holdBack[place] = ideal - shaftTorque(ideal, -1, efficiency, drag)
}
