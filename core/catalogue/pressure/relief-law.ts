/** How every relief valve opens, however it is set. */
import type { Local } from '../kind'
import { smoothPositivePart, pathCoefficient, smoothSquareRoot } from '../flow-laws'

/** Pressure drop at rated flow of a relief that is wide open, Pa. */
const WIDE_OPEN_DROP = 4e5
/** A knob backed right off still leaves the spring's own push, Pa. */
const LOWEST_SETTING = 2e5

/** The setting that holds for a knob turned to `asked`. Pa */
export const heldSetting = (asked: number) => (asked > LOWEST_SETTING ? asked : LOWEST_SETTING)

const WIDE = pathCoefficient(1, WIDE_OPEN_DROP)
/** How wide it can be at most: as wide as fully open. */
const limit = (drop: number) => (drop > 0 ? WIDE * smoothSquareRoot(drop) : 0)

/**
 * Q = q_r·min(y, lim), lim = max(0, path(Δp; q_r, 4 bar))/q_r: never wider than fully open, never backwards.
 * @param ratedFlow m³/s @param drop Pa @returns m³/s
 */
export function reliefFlow(ratedFlow: number, opening: number, drop: number): number {
  if (!(opening > 0)) return ratedFlow * opening
  const most = limit(drop)
  return ratedFlow * (opening < most ? opening : most)
}
/**
 * The numbers of one relief: rated flow, m³/s; time constant, s; p_crack and p_full − p_crack, Pa. They lie in an array, and what follows
 * works on ports and states by their indices: numbers that pass from function to function are put on the heap.
 */
export const RELIEF = { ratedFlow: 0, timeConstant: 1, crack: 2, span: 3 } as const
export const reliefNumbers = (ratedFlow: number, timeConstant: number) =>
  Float64Array.of(ratedFlow, timeConstant, Number.NaN, Number.NaN)

/**
 * Writes the rate of its opening, τ·dy/dt = min(L(s), lim) − y with s = (Δp − p_crack)/(p_full − p_crack), and adds its flow, that of
 * `reliefFlow`, taken at one port and given at the other.
 */
export function addRelief(
  { p, q, x, dx }: Local,
  state: number,
  inlet: number,
  outlet: number,
  numbers: Float64Array,
): void {
  const drop = p[inlet] - p[outlet]
  const opening = x[state]
  const asked = smoothPositivePart((drop - numbers[RELIEF.crack]) / numbers[RELIEF.span])
  const most = asked > 0 || opening > 0 ? limit(drop) : 0
  dx[state] = ((asked < most ? asked : most) - opening) / numbers[RELIEF.timeConstant]
  const flow = numbers[RELIEF.ratedFlow] * (opening < most ? opening : most)
  q[inlet] += flow
  q[outlet] -= flow
}
