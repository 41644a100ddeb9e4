/** How every relief valve opens, however it is set. */
import { smoothPositivePart, pathCoefficient, smoothSquareRoot } from '../flow-laws'

/** Pressure drop at rated flow of a relief that is wide open, Pa. */
const WIDE_OPEN_DROP = 4e5
/** A knob backed right off still leaves the spring's own push, Pa. */
const LOWEST_SETTING = 2e5

/** The setting that holds for a knob turned to `asked`. Pa */
export const heldSetting = (asked: number) => (asked > LOWEST_SETTING ? asked : LOWEST_SETTING)

/**
 * Q = q_r·min(y, lim); τ·dy/dt = min(L(s), lim) − y; s = (Δp − p_crack)/(p_full − p_crack);
 * lim = max(0, path(Δp; q_r, 4 bar))/q_r: never wider than fully open, never backwards.
 * @param v ratedFlow m³/s, timeConstant s
 */
export function reliefLaw(v: { readonly ratedFlow: number; readonly timeConstant: number }) {
  const { ratedFlow, timeConstant } = v
  const wide = pathCoefficient(1, WIDE_OPEN_DROP)
  const limit = (drop: number) => wide * smoothSquareRoot(drop > 0 ? drop : 0)
  return {
    /** @param drop Pa @returns m³/s */
    flow: (opening: number, drop: number) =>
      ratedFlow * (opening > 0 ? Math.min(opening, limit(drop)) : opening),
    /** @param crack Pa @param span p_full − p_crack, Pa @returns 1/s */
    rate: (opening: number, drop: number, crack: number, span: number) => {
      const asked = smoothPositivePart((drop - crack) / span)
      return ((asked > 0 ? Math.min(asked, limit(drop)) : 0) - opening) / timeConstant
    },
  }
}
