/** The rest to which a circuit comes when the commands of one instant stay: pumps running, loads where they settle. */
import { Chattering } from './circuit/event-functions'
import type { Network } from './circuit/network'
import { StepFailure, Stepper } from './stepper'

/**
 * At rest no state moves by more than this share of its scale in a second, and no more than this share of `SMALL_FLOW` (or of what
 * flows through it) goes into a node and does not come out: in a void or a large volume pressure hardly moves however wrong the flows.
 */
export const REST = 5e-2
const SMALL_FLOW = 1e-6
const SMALL_SHARE = 1e-3
/** Only the rest counts, not the way to it: that is followed roughly until no state moves by more than its scale in a second. */
const NEAR_REST = 1
const ROUGHLY = 1e-2
const CLOSELY = 1e-3
/** What has not come to rest by then never will: a motor that swings, a load that creeps. */
const LONGEST = 120
const STEP_BUDGET = 20_000
const FIRST_STEP = 1e-4
/** Near rest, and after an event, the first step may be as long as this, s: of the way only the end counts. */
const LONGEST_FIRST_STEP = 0.1

export interface SteadyState {
  /** s that were simulated for it. */
  readonly time: number
  readonly converged: boolean
}

/**
 * Follows the circuit from its initial values, commands held as they stand at `at`, until nothing moves, and makes
 * that its initial values. States that only count start anew. Steps grow as the motion dies, so this is a pseudo-transient
 * solution of f(y) = 0 that cannot end on an unstable branch.
 */
export function findSteadyState(network: Network, tolerance: number, at = 0): SteadyState {
  const counting = countingStates(network)
  const y = Float64Array.from(network.initial)
  network.freezeInputs(at)
  const { time, converged: atRest } = integrateToRest(network, y, counting, tolerance)
  for (let i = 0; i < network.n; i++) if (!counting[i]) network.initial[i] = y[i]
  network.unfreezeInputs()
  return { time, converged: atRest }
}

/** @param y where it begins, and afterwards where it has come to */
function integrateToRest(
  network: Network,
  y: Float64Array,
  counting: Uint8Array,
  tolerance: number,
): SteadyState {
  const rate = new Float64Array(network.n)
  let time = 0
  let steps = 0
  try {
    const stepper = new Stepper(network, Math.max(tolerance, ROUGHLY), false)
    const { integrator, events } = stepper
    for (const [relative, rest, firstStep] of [
      [ROUGHLY, NEAR_REST, FIRST_STEP],
      [CLOSELY, REST, LONGEST_FIRST_STEP],
    ]) {
      stepper.setTolerance(Math.max(tolerance, relative))
      events.initialise(time, y)
      integrator.restart(time, y, firstStep)
      while (!isAtRest(network, time, y, counting, rest, rate)) {
        if (time >= LONGEST || steps++ > STEP_BUDGET) return { time, converged: false }
        const share = stepper.step(LONGEST)
        time = stepper.timeAt(share)
        y.set(stepper.y)
        if (share === 1) continue
        events.switchAll(time, y)
        integrator.restart(time, y, Math.min(integrator.h, LONGEST_FIRST_STEP))
      }
    }
  } catch (error) {
    if (!(error instanceof StepFailure || error instanceof Chattering)) throw error
    return { time, converged: false }
  }
  return { time, converged: true }
}

/**
 * Whether no state moves, except those that only count.
 * @param counting 1 for each state that need not rest @param rest share of its scale a second @param rate is written: the rates of all states
 */
export function isAtRest(
  network: Network,
  t: number,
  y: Float64Array,
  counting: Uint8Array,
  rest: number,
  rate = new Float64Array(network.n),
): boolean {
  const { scale, n } = network
  network.rate(t, y, rate)
  for (let i = 0; i < n; i++) if (!counting[i] && !(Math.abs(rate[i]) <= rest * scale[i])) return false
  return network.greatestImbalance(SMALL_FLOW, SMALL_SHARE) <= rest
}

/** Which states only count up: 1 for each. */
export function countingStates(network: Network): Uint8Array {
  const counting = new Uint8Array(network.n)
  for (const e of network.elements)
    e.states.forEach((s, i) => {
      if (s.isCounter) counting[e.firstState + i] = 1
    })
  return counting
}
