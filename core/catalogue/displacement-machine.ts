/** Losses of pumps and motors (ISO 4391): leakage and shaft torque. */
import { frictionReversal, SHAFT_REVERSAL } from './flow-laws'

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
 * @param ideal V·Δp, N·m @param speed rad/s @param efficiency hydro-mechanical @param drag dry friction, N·m
 */
export const shaftTorque = (ideal: number, speed: number, efficiency: number, drag: number): number =>
  ideal * (ideal * speed >= 0 ? 1 / efficiency : efficiency) + drag * frictionReversal(speed / SHAFT_REVERSAL)
