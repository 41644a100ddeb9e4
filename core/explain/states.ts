/** A run cut into states: what happens together begins one, and it lasts until something else happens. */
import type { Happening } from './happenings'

export interface RunState {
  /** s */
  readonly start: number
  readonly end: number
  /** What begins it, in order; empty where the run begins quietly. */
  readonly happenings: readonly Happening[]
}

/** Where in a state an early value is taken, as a share of its length. */
export const EARLY = 0.3
/** A value that changes by more than this share within a state is reported with both ends. */
export const CHANGES = 0.12
/** What follows within this share of a run, and at least and at most so many seconds, belongs to what began it. */
const TOGETHER = 0.01
const LEAST_TOGETHER = 0.08
const MOST_TOGETHER = 0.4
/** s after the end of a command within which the first effect is its own. */
const ANSWERS = 0.5

/** @param duration s */
const togetherWithin = (duration: number) =>
  Math.min(MOST_TOGETHER, Math.max(LEAST_TOGETHER, TOGETHER * duration))

/**
 * Cuts a run at what happens. What happens within a short time is one state; a command among effects begins one of its own; a release
 * alone begins none. @param happenings in order @param duration s
 */
export function cutIntoStates(happenings: readonly Happening[], duration: number): RunState[] {
  const within = togetherWithin(duration)
  const groups: { start: number; happenings: Happening[]; answered?: number }[] = [
    { start: 0, happenings: [] },
  ]
  const released: Happening[] = []
  for (const h of happenings) {
    if (h.at >= duration) continue
    const last = groups.at(-1)!
    if (h.kind === 'release') {
      released.push(h)
      continue
    }
    const isOwnCommand =
      h.kind === 'command' && h.at > last.start && !last.happenings.some((other) => other.kind === 'command')
    const hasEffect = last.happenings.some((other) => other.kind === 'effect')
    const isAnswer =
      h.kind === 'effect' &&
      last.happenings.length > 0 &&
      (!hasEffect || h.at - last.answered! <= within) &&
      h.at <= Math.max(...last.happenings.map((other) => other.until ?? other.at)) + ANSWERS
    if ((h.at - last.start <= within || isAnswer) && !isOwnCommand) {
      if (h.kind === 'effect') last.answered ??= h.at
      last.happenings.push(h)
      continue
    }
    // a release that something follows at once is its cause
    const cause = released.findLast((r) => r.at <= h.at && h.at - r.at < within && r.at > last.start)
    groups.push({ start: cause?.at ?? h.at, happenings: cause ? [cause, h] : [h] })
  }
  return groups.map(({ start, happenings: own }, i) => ({
    start,
    end: groups[i + 1]?.start ?? duration,
    happenings: own,
  }))
}

/** Whether it is that an actuator begins to move, turns or stops. */
export const isMotion = ({ role }: Happening) => role === 'motion'

/** Of motions that begin and end within one state only the outcome is kept; a state that nothing begins then belongs to the one before. */
export function withOutcomes(states: readonly RunState[]): RunState[] {
  const last = new Map<string, string>()
  const kept: RunState[] = []
  for (const state of states) {
    const outcome = new Map<string, Happening>()
    for (const h of state.happenings) if (isMotion(h)) outcome.set(h.key, h)
    const happenings = state.happenings.filter(
      (h) => !isMotion(h) || (outcome.get(h.key) === h && last.get(h.key) !== h.text),
    )
    for (const [key, { text }] of outcome) last.set(key, text)
    const before = kept.at(-1)
    if (before && !happenings.length) kept[kept.length - 1] = { ...before, end: state.end }
    else kept.push({ ...state, happenings })
  }
  return kept
}
