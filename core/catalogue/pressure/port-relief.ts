/** Quick reliefs with checks beside them: what guards the lines of an actuator. */
import { quantity } from '../kind'
import { openRamp, pathCoefficient, rootDrop } from '../laws'

/** Pressure drop at rated flow of a relief that is wide open, Pa. */
const WIDE_OPEN_DROP = 4e5
/** A spring backed right off still pushes this much, Pa. */
const LOWEST_SETTING = 2e5

export const portReliefParameters = (setting: string) =>
  ({
    setting: quantity('Setting', 'pressure', setting, 2e5, 700e5, { note: 'at rated flow' }),
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    override: quantity('Override', 'share', '15 %', 0.005, 0.6, { note: '(p_full − p_crack)/p_full' }),
    timeConstant: quantity('Response', 'time', '2 ms', 1e-4, 1),
  }) as const
export interface PortReliefValues {
  readonly ratedFlow: number
  readonly override: number
  readonly timeConstant: number
}

/**
 * One quick relief as an element of a larger one: Q = q_r·min(y, lim), τ·dy/dt = min(L(s), lim) − y as the relief valve,
 * its setting at rated flow.
 */
export function portRelief(v: PortReliefValues) {
  const wide = pathCoefficient(1, WIDE_OPEN_DROP)
  const limit = (drop: number) => (drop > 0 ? wide * rootDrop(drop) : 0)
  return {
    flow: (opening: number, drop: number) => v.ratedFlow * Math.min(opening, limit(drop)),
    rate(opening: number, drop: number, setting: number) {
      const full = setting > LOWEST_SETTING ? setting : LOWEST_SETTING
      const wanted = openRamp((drop - full * (1 - v.override)) / (full * v.override))
      return (Math.min(wanted, limit(drop)) - opening) / v.timeConstant
    },
  }
}
