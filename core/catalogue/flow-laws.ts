/** Equations that several kinds share: flow through paths, openings, lags. */
import { CAVITATION_PRESSURE, TRANSITION_DROP } from '../fluid/fluid'
import { ATMOSPHERE } from '../units/quantities'

/** Width of the rounding at the corners of an opening ramp. */
export const CORNER_ROUNDING = 0.02
/** Shift speed falls linearly over this last part of a spool's way. */
const SPOOL_DECELERATION_ZONE = 0.02

/**
 * The turbulent path law with a laminar core: Δp/(Δp² + Δp_t²)^¼, so that flow is
 * smooth and odd in Δp. Multiply by C_d·A·√(2/ρ), or by q_r/√Δp_r for a catalogue point.
 * @param drop Pa @returns √Pa
 */
export function smoothSquareRoot(drop: number): number {
  return drop / Math.sqrt(Math.sqrt(drop * drop + TRANSITION_DROP * TRANSITION_DROP))
}

/**
 * Flows of several paths, each its coefficient times `smoothSquareRoot`, taken at one end and given at the other. The law is written out
 * here: a number that leaves a function is put on the heap, and valves are what a circuit has most of.
 * @param coefficients m³/s/√Pa @param from @param to port of each end @param p Pa @param q m³/s, is added to
 */
export function addPathFlows(
  coefficients: Float64Array,
  from: Int32Array,
  to: Int32Array,
  p: Float64Array,
  q: Float64Array,
): void {
  for (let i = 0; i < coefficients.length; i++) {
    if (coefficients[i] === 0) continue
    const a = from[i]
    const b = to[i]
    const drop = p[a] - p[b]
    const flow =
      (coefficients[i] * drop) / Math.sqrt(Math.sqrt(drop * drop + TRANSITION_DROP * TRANSITION_DROP))
    q[a] += flow
    q[b] -= flow
  }
}

/** Coefficient of a path given by a catalogue point, m³/s/√Pa. */
export const pathCoefficient = (ratedFlow: number, ratedDrop: number) => ratedFlow / Math.sqrt(ratedDrop)

/** Area of a round opening, m²; times `fluid.orificeFactor`, C_d·√(2/ρ), it is the coefficient of a sharp edge. */
export const circleArea = (diameter: number) => (Math.PI * diameter * diameter) / 4

/** 0 below, s between, 1 above, with both corners rounded by a parabola (C¹). */
export function smoothRamp(s: number): number {
  if (s <= -CORNER_ROUNDING) return 0
  if (s < CORNER_ROUNDING) return ((s + CORNER_ROUNDING) * (s + CORNER_ROUNDING)) / (4 * CORNER_ROUNDING)
  if (s <= 1 - CORNER_ROUNDING) return s
  if (s < 1 + CORNER_ROUNDING)
    return 1 - ((1 + CORNER_ROUNDING - s) * (1 + CORNER_ROUNDING - s)) / (4 * CORNER_ROUNDING)
  return 1
}

/** 0 below, s above, with the corner rounded: the override line of a relief. */
export function smoothPositivePart(s: number): number {
  if (s <= -CORNER_ROUNDING) return 0
  if (s < CORNER_ROUNDING) return ((s + CORNER_ROUNDING) * (s + CORNER_ROUNDING)) / (4 * CORNER_ROUNDING)
  return s
}

/** s up to 1, 1 above, with the corner rounded as `ramp` has it. */
export function smoothUpperLimit(s: number): number {
  if (s <= 1 - CORNER_ROUNDING) return s
  return s < 1 + CORNER_ROUNDING
    ? 1 - ((1 + CORNER_ROUNDING - s) * (1 + CORNER_ROUNDING - s)) / (4 * CORNER_ROUNDING)
    : 1
}

/**
 * Flow over a metering edge whose compensator keeps a drop across it, as a share of the set flow: the drop over the edge is that of the
 * compensator, or what is available if that is less. Nothing goes back. @param compensated Pa
 */
export function compensatedEdge(compensated: number) {
  const shape = pathCoefficient(1, compensated)
  return (available: number) =>
    available > 0 ? shape * smoothSquareRoot(compensated * smoothUpperLimit(available / compensated)) : 0
}
/** A compensated flow that falls short of its set flow by more than this share is reported. */
export const SHORT_FLOW = 0.02

/**
 * Rate of a spool that moves at constant speed towards a target and slows over the
 * last bit. @param time s for one box @returns boxes per second
 */
export function spoolRate(y: number, target: number, time: number): number {
  const s = (target - y) / SPOOL_DECELERATION_ZONE
  return (s > 1 ? 1 : s < -1 ? -1 : s) / time
}
/**
 * Where a spool with dry friction goes: what drives it may be off by half the width of the hysteresis before it moves, so that it stays
 * exactly where it is, and follows at that distance. @param target of a spool without friction @param half half the hysteresis, in boxes
 */
export function heldByFriction(y: number, target: number, half: number): number {
  if (target - half > y) return target - half
  return target + half < y ? target + half : y
}

/** Beyond this the hyperbolic tangent is 1 in every figure of a double. */
const SATURATED = 19
/** tanh(s), which turns friction round with the speed; the library's takes twice as long, and is mostly asked far out. */
export function frictionReversal(s: number): number {
  if (s > SATURATED) return 1
  return s < -SATURATED ? -1 : 1 - 2 / (1 + Math.exp(2 * s))
}

/**
 * The opening of a notched edge that is travelled past its dead band: ((|y| − d)/(1 − d))^n, 0 within, over the
 * spool position y, 1 = full stroke.
 */
export function notchOpening({
  deadBand,
  exponent,
}: {
  readonly deadBand: number
  readonly exponent: number
}) {
  const rest = 1 - deadBand
  // the usual shape without the library's power, which takes ten times as long
  const usual = exponent === 1.5
  return (y: number) => {
    const beyond = ((y < 0 ? -y : y) - deadBand) / rest
    if (beyond <= 0) return 0
    return usual ? beyond * Math.sqrt(beyond) : beyond ** exponent
  }
}

/**
 * How full the chambers of a pump or motor come from an inlet: falls from 1 to 0 as its absolute pressure falls from 0.3 bar to 0.
 * @param pressure gauge, Pa
 */
export function inletFilling(pressure: number): number {
  const f = (pressure + ATMOSPHERE) / CAVITATION_PRESSURE
  return f < 0 ? 0 : f > 1 ? 1 : f
}
/** How far an inlet lies below the pressure from which it is starved, Pa; above 0 where it is. @param pressure gauge, Pa */
export const starvation = (pressure: number) => CAVITATION_PRESSURE - (pressure + ATMOSPHERE)

/** Shaft speed over which friction and efficiency of pumps and motors change sign, rad/s. */
export const SHAFT_REVERSAL = 0.5

/** Oil in each end of a cylinder or vane chamber and its port at the stop, m³. */
export const DEAD_VOLUME = 5e-5
/** Share of it that is gone where a chamber shrinks no further. */
const END_STOP_VOLUME = 0.9
/**
 * A chamber whose piston is pushed into its stop: its area falls linearly to 0 where nine tenths of the dead volume are gone, so that
 * no force makes it vanish; volume and flow agree.
 * @param area m², or m³/rad
 */
export function endStopChamber(area: number) {
  const deepest = area > 0 ? (2 * END_STOP_VOLUME * DEAD_VOLUME) / area : 1
  return {
    /** Share of the area left at a depth within the stop, m or rad. */
    share: (depth: number) => (depth < deepest ? 1 - depth / deepest : 0),
    /** Depth at the full area that takes the same volume. */
    gone: (depth: number) => (depth < deepest ? depth - (depth * depth) / (2 * deepest) : 0.5 * deepest),
  }
}

/**
 * Darcy friction factor: 64/Re below 2000, Blasius above 4000, straight in log Re between.
 */
export function frictionFactor(re: number): number {
  if (re < 2000) return 64 / Math.max(re, 1e-9)
  if (re > 4000) return 0.3164 * re ** -0.25
  const s = Math.log(re / 2000) / Math.LN2
  return 0.032 + s * (0.3164 * 4000 ** -0.25 - 0.032)
}

/**
 * The pressure drop whose `smoothSquareRoot` is r: the path law the other way round, Δp² = (r⁴ + √(r⁸ + 4·r⁴·Δp_t²))/2.
 * @param r √Pa @returns Pa
 */
export function inverseSmoothSquareRoot(r: number): number {
  const square = r * r
  const size = Math.sqrt((square + Math.sqrt(square * square + 4 * TRANSITION_DROP * TRANSITION_DROP)) / 2)
  return r * size
}

/** Straight lines between pairs, constant beyond the ends. @param x rising */
export function interpolate(x: readonly number[], y: readonly number[], at: number): number {
  let i = 0
  while (i < x.length && x[i] <= at) i++
  if (i === 0) return y[0]
  if (i === x.length) return y[i - 1]
  return y[i - 1] + ((y[i] - y[i - 1]) * (at - x[i - 1])) / (x[i] - x[i - 1])
}
