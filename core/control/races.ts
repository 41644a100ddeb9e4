/** Relays that change at one instant: whether the outcome depends on which of them is first. */
import { nameOf } from '../sheet/schema'
import { copyOf, type Change, type Logic, type LogicState, type Surroundings } from './logic'

/** More that change together are not tried in every order. */
const MOST_TOGETHER = 5

/** Changes of relays after which what they do together counts as going on without end. */
const MOST_CHANGES = 20

/**
 * Where relays rest after some change first at t, then the others that still are to change, and all that follows from it; nothing where
 * they never rest.
 */
function outcome(
  logic: Logic,
  before: LogicState,
  around: Surroundings,
  t: number,
  first: (device: number) => boolean,
): readonly boolean[] | undefined {
  const state = copyOf(before)
  logic.expire(state, t, first, around)
  logic.solve(state, around, t)
  logic.expire(state, t, undefined, around)
  logic.solve(state, around, t)
  return logic.rest(state, around, MOST_CHANGES) ? state.devices.map(({ on }) => on) : undefined
}

/** What would be different with one of the relays that are due at t before the others. */
export function racesAt(logic: Logic, state: LogicState, around: Surroundings, t: number): Change[] {
  const { devices } = logic.program
  const due = logic.due(state, t).filter((i) => devices[i].type.settlesAtStart)
  if (due.length < 2 || due.length > MOST_TOGETHER) return []
  const together = outcome(logic, state, around, t, () => true)
  for (const first of due) {
    const other = outcome(logic, state, around, t, (i) => i === first)
    // where neither order comes to rest, nothing can be compared
    if (!together && !other) continue
    const different = devices.flatMap((_, i) => (other && together && other[i] === together[i] ? [] : [i]))
    if (!different.length) continue
    const shown = (on: readonly boolean[] | undefined) =>
      on
        ? different
            .filter((i) => devices[i].type.settlesAtStart)
            .map((i) => `${nameOf(devices[i].device)} ${on[i] ? 'on' : 'off'}`)
            .join(', ')
        : 'no rest'
    const name = nameOf(devices[first].device)
    return [
      {
        device: devices[first].device.id,
        what: `race of ${due.map((i) => nameOf(devices[i].device)).join(' and ')}: together ${shown(together)}; with ${name} first ${shown(other)}`,
      },
    ]
  }
  return []
}
