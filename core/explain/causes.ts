/** What begins a state of a run. */
import type { Happening } from './happenings'
import { isMotion, type RunState } from './states'

/** Most causes that a line lists. */
const MOST_CAUSES = 5

/**
 * Happenings that count as the cause of a state: commands, and what the control does to the machine with the switch that made it do so; else
 * what follows by itself. Relays and steps count where they do nothing to the machine.
 */
export function causesOf({ happenings }: RunState, isMoving: boolean): Happening[] {
  const causes = happenings.filter((h) => h.kind !== 'effect')
  if (causes.length) {
    const acted = causes.find((h) => h.kind === 'control')
    const switched = happenings.filter((h) => h.role === 'switch' && acted && h.at <= acted.at)
    const outer = causes.filter((h) => h.role !== 'control')
    const isBegun = switched.length > 0 || outer.some((h) => h.kind !== 'control')
    // where neither a hand nor a switch began it, a timer or a step did
    const begun = isBegun || !outer.length ? [] : causes.filter((h) => h.role === 'control').slice(0, 1)
    return [...begun, ...switched, ...(outer.length ? outer : causes)].slice(0, MOST_CAUSES)
  }
  const effects = happenings.filter((h) => !isMotion(h))
  if (effects.length) return effects.slice(0, MOST_CAUSES)
  return isMoving ? [] : happenings.slice(0, MOST_CAUSES)
}
/** What begins a state, in a clause; empty where only what moves is new. */
export function causeText(begunBy: readonly Happening[], start: number): string {
  const begins = start === 0 && !begunBy.some((h) => h.kind !== 'effect') ? ['the run begins'] : []
  // a part that bounces at its stop does so twice
  return [...new Set([...begins, ...begunBy.map((h) => h.text)])].join(', ')
}
