/** The rest to which a circuit comes when the commands of one instant stay: pumps running, loads where they settle. */
import { GuardWatch } from './events'
import { linearSolver } from './linear'
import type { Network } from './network'
import { Rosenbrock } from './rosenbrock'

/** It is at rest when no state moves by more than this share of its scale in a second. */
const REST = 5e-2
/** What has not come to rest by then goes on for ever: a motor that swings, a load that creeps. */
const LONGEST = 120
const STEP_BUDGET = 20_000
const FIRST_STEP = 1e-4
const WAY_TOLERANCE = 1e-3

export interface Settled {
  /** s that were simulated for it. */
  readonly time: number
  readonly atRest: boolean
}

/**
 * Follows the circuit from its initial values, commands held as they stand at `at`, until nothing moves, and makes
 * that its initial values. States that only count start anew. Steps grow as the motion dies, so this is a pseudo-transient
 * solution of f(y) = 0 that cannot end on an unstable branch.
 */
export function settle(network: Network, tolerance: number, at = 0): Settled {
  // only the rest counts, not the way to it
  const loose = Math.max(tolerance, WAY_TOLERANCE)
  const absolute = network.scale.map((s) => s * loose)
  const solver = new Rosenbrock(network, linearSolver(network.pattern), loose, absolute)
  const guards = new GuardWatch(network)
  const y = Float64Array.from(network.initial)
  const rate = new Float64Array(network.n)
  const counting = countingStates(network)
  const atRest = () => {
    network.rate(solver.t, solver.y, rate)
    for (let i = 0; i < rate.length; i++)
      if (!counting[i] && Math.abs(rate[i]) > REST * network.scale[i]) return false
    return true
  }
  network.hold(at)
  network.settleModes(0, y)
  solver.restart(0, y, FIRST_STEP)
  network.evaluate(0, y)
  guards.take()
  const look = (share: number) => {
    solver.interpolate(share, y)
    network.evaluate(solver.tOld + share * (solver.t - solver.tOld), y)
  }
  let rests = atRest()
  while (!rests && solver.t < LONGEST && solver.statistics.steps < STEP_BUDGET) {
    if (!solver.step(LONGEST)) break
    let happened = false
    for (const half of [0.5, 1]) {
      look(half)
      if (!guards.crossed()) continue
      const event = guards.locate(half - 0.5, half, solver.t - solver.tOld, look)
      happened = true
      guards.fire()
      solver.restart(solver.tOld + event * (solver.t - solver.tOld), y, FIRST_STEP)
      network.evaluate(solver.t, y)
      guards.take()
      break
    }
    if (!happened) guards.accept()
    rests = atRest()
  }
  for (let i = 0; i < network.n; i++) if (!counting[i]) network.initial[i] = solver.y[i]
  network.release()
  return { time: solver.t, atRest: rests }
}

function countingStates(network: Network): Uint8Array {
  const counting = new Uint8Array(network.n)
  for (const e of network.elements)
    e.states.forEach((s, i) => {
      if (s.counts) counting[e.firstState + i] = 1
    })
  return counting
}
