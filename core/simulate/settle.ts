/** The rest to which a circuit comes when the commands of one instant stay: pumps running, loads where they settle. */
import { GuardWatch } from './events'
import { linearSolver, type LinearSolver } from './linear'
import type { Network } from './network'
import { Rosenbrock } from './rosenbrock'

/** It is at rest when no state moves by more than this share of its scale in a second. */
const REST = 5e-2
/** Only the rest counts, not the way to it: that is followed roughly until no state moves by more than its scale in a second. */
const NEAR_REST = 1
const ROUGHLY = 1e-2
const CLOSELY = 1e-3
/** What has not come to rest by then goes on for ever: a motor that swings, a load that creeps. */
const LONGEST = 120
const STEP_BUDGET = 20_000
const FIRST_STEP = 1e-4

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
  const counting = countingStates(network)
  const y = Float64Array.from(network.initial)
  network.hold(at)
  network.settleModes(0, y)
  const way = new Way(network, y, counting)
  way.follow(Math.max(tolerance, ROUGHLY), NEAR_REST)
  const atRest = way.follow(Math.max(tolerance, CLOSELY), REST)
  for (let i = 0; i < network.n; i++) if (!counting[i]) network.initial[i] = y[i]
  network.release()
  return { time: way.time, atRest }
}

/** The way of a circuit whose commands stand still. */
class Way {
  time = 0
  private steps = 0
  private readonly guards: GuardWatch
  private readonly linear: LinearSolver
  private readonly rate: Float64Array

  /** @param y where it begins, and after `follow` where it has come to */
  constructor(
    private readonly network: Network,
    private readonly y: Float64Array,
    private readonly counting: Uint8Array,
  ) {
    this.guards = new GuardWatch(network)
    this.linear = linearSolver(network.pattern)
    this.rate = new Float64Array(network.n)
  }

  /** @returns whether it came so far that no state moves by more than `rest` of its scale in a second */
  follow(tolerance: number, rest: number): boolean {
    const { network, y, guards } = this
    const absolute = network.scale.map((s) => s * tolerance)
    const solver = new Rosenbrock(network, this.linear, tolerance, absolute)
    const look = (share: number) => {
      solver.interpolate(share, y)
      network.evaluate(solver.tOld + share * (solver.t - solver.tOld), y)
    }
    solver.restart(this.time, y, FIRST_STEP)
    network.evaluate(this.time, y)
    guards.take()
    while (!this.isAtRest(rest)) {
      if (solver.t >= LONGEST || this.steps++ > STEP_BUDGET || !solver.step(LONGEST)) return false
      const event = this.eventIn(solver.t - solver.tOld, look)
      this.time = solver.t
      if (event === undefined) continue
      this.time = solver.tOld + event * (solver.t - solver.tOld)
      guards.fire()
      solver.restart(this.time, y, FIRST_STEP)
      network.evaluate(this.time, y)
      guards.take()
    }
    return true
  }

  /** Share of the last step at which a guard first changes sides; the network stands there, or where none does at the end. */
  private eventIn(length: number, look: (share: number) => void): number | undefined {
    const { guards } = this
    for (const half of [0.5, 1]) {
      look(half)
      if (guards.crossed()) return guards.locate(half - 0.5, half, length, look)
    }
    guards.accept()
    return undefined
  }

  /** The network has been evaluated where it stands. */
  private isAtRest(rest: number): boolean {
    const { rate, counting } = this
    const { scale } = this.network
    this.network.rateHere(rate)
    for (let i = 0; i < rate.length; i++)
      if (!counting[i] && !(Math.abs(rate[i]) <= rest * scale[i])) return false
    return true
  }
}

function countingStates(network: Network): Uint8Array {
  const counting = new Uint8Array(network.n)
  for (const e of network.elements)
    e.states.forEach((s, i) => {
      if (s.counts) counting[e.firstState + i] = 1
    })
  return counting
}
