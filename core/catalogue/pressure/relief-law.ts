/** How every relief valve opens, however it is set. */
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
 * τ·dy/dt = min(L(s), lim) − y; s = (Δp − p_crack)/(p_full − p_crack).
 * @param timeConstant s @param drop Pa @param crack Pa @param span p_full − p_crack, Pa @returns 1/s
 */
export function reliefRate(
  timeConstant: number,
  opening: number,
  drop: number,
  crack: number,
  span: number,
): number {
  const asked = smoothPositivePart((drop - crack) / span)
  if (!(asked > 0)) return -opening / timeConstant
  const most = limit(drop)
  return ((asked < most ? asked : most) - opening) / timeConstant
}
