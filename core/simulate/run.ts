/** Runs a compiled sheet through its schedule: steps, events, samples, conditions, balances. */
import type { Compiled } from './compile'
import { Balance } from './balance'
import { ConditionWatch } from './conditions'
import { linearSolver } from './linear'
import type { Network } from './network'
import { Recorder } from './recorder'
import type { Condition, RunResult } from './result'
import { settle } from './settle'
import { GuardWatch } from './events'
import { Rosenbrock } from './rosenbrock'

export interface RunOptions {
  /** Ends the run early, s. */
  readonly until?: number
  /** Told now and then how far the run is; false ends it. */
  readonly progress?: (t: number, duration: number) => boolean | void
}

/** A run that needs more steps than this is given up. */
const STEP_BUDGET = 400_000
const LONGEST_FIRST_STEP = 1e-3
const STEPS_BETWEEN_PROGRESS = 500
/** A balance error beyond this is told. */
export const BALANCE_WARNING = 1e-3

export function run(compiled: Compiled, options: RunOptions = {}): RunResult {
  return new Run(compiled, options).go()
}

class Run {
  private readonly network: Network
  private readonly solver: Rosenbrock
  private readonly recorder: Recorder
  private readonly watch: ConditionWatch
  private readonly duration: number
  private readonly state: Float64Array
  private readonly guards: GuardWatch
  private samples = 0

  constructor(
    private readonly compiled: Compiled,
    private readonly options: RunOptions,
  ) {
    const { network, settings } = compiled
    this.network = network
    this.duration = Math.min(settings.duration, options.until ?? Infinity)
    const absolute = network.scale.map((s) => s * settings.tolerance)
    this.solver = new Rosenbrock(network, linearSolver(network.pattern), settings.tolerance, absolute)
    this.recorder = new Recorder(network, Math.floor(this.duration / settings.every + 1e-9) + 2)
    this.watch = new ConditionWatch(network)
    this.state = Float64Array.from(network.initial)
    this.guards = new GuardWatch(network)
  }

  go(): RunResult {
    const { network, solver, recorder, watch, guards, state, duration } = this
    const { every, settled, tolerance } = this.compiled.settings
    const tell = (condition: Condition) => watch.instant(condition)
    const warnings: string[] = []
    const breaks = [
      ...new Set(this.compiled.inputs.flatMap((i) => i.signal.breaks).filter((t) => t > 0 && t < duration)),
    ].sort((a, b) => a - b)
    breaks.push(duration)
    if (settled) {
      const rest = settle(network, tolerance)
      state.set(network.initial)
      if (!rest.atRest)
        warnings.push(
          `It did not come to rest with its first commands: the run begins as it was after ${rest.time.toPrecision(3)} s of them.`,
        )
    }
    network.enter(0)
    network.settleModes(0, state)
    solver.restart(0, state, Math.min(LONGEST_FIRST_STEP, duration * 1e-3))
    network.evaluate(0, state)
    network.observe()
    const balance = new Balance(network, this.compiled.tank)
    watch.look(0)
    guards.take()
    let stopped: RunResult['stopped']
    let next = 0
    try {
      for (const limit of breaks) {
        // a command may jump here: what holds at the instant itself is what holds after it
        network.enter(solver.t)
        this.observe(solver.t, solver.y)
        balance.restart()
        watch.look(solver.t)
        recorder.watch(solver.t)
        while (solver.t < limit) {
          this.sampleUpTo(solver.t, every)
          if (solver.statistics.steps > STEP_BUDGET)
            throw new Stop(`gave up after ${STEP_BUDGET} steps`, solver.worst)
          if (!solver.step(Math.min(limit, solver.t + balance.longestStep())))
            throw new Stop('the step size fell to nothing', solver.worst)
          const share = this.takeStep(balance)
          if (share < 1) {
            guards.fire(tell)
            const at = solver.tOld + share * (solver.t - solver.tOld)
            solver.restart(at, state, Math.min(solver.h, LONGEST_FIRST_STEP))
            solver.statistics.events++
            this.observe(solver.t, state)
            balance.restart()
            watch.look(solver.t)
            guards.take()
          }
          if (++next % STEPS_BETWEEN_PROGRESS === 0 && this.options.progress?.(solver.t, duration) === false)
            throw new Stop('ended by hand', -1)
        }
      }
    } catch (error) {
      if (!(error instanceof Stop)) throw error
      const where = error.state >= 0 ? network.describeState(error.state) : undefined
      stopped = {
        message: `The run stopped at ${solver.t.toPrecision(5)} s: ${error.message}${where ? ` (${where.label})` : ''}.`,
        component: where?.component,
        pipe: where?.pipe,
      }
    }
    this.observe(solver.t, solver.y)
    this.sampleUpTo(solver.t, every)
    if (this.samples * every < solver.t + every * (1 - 1e-6) && this.lastSample < solver.t)
      recorder.sample(solver.t)
    const { netlist, schedule } = this.compiled
    const energy = balance.energy()
    const oil = balance.oil()
    for (const [name, error] of [
      ['energy', energy.error],
      ['oil', oil.error],
    ] as const)
      if (error > BALANCE_WARNING)
        warnings.push(
          `The ${name} balance is off by ${(100 * error).toPrecision(2)} %: ask for a more accurate step.`,
        )
    return {
      schedule: schedule.id,
      duration: solver.t,
      finished: !stopped,
      stopped,
      warnings,
      ...recorder.finish(),
      signals: recorder.signals,
      extremes: recorder.extremes(),
      conditions: watch.finish(),
      energy,
      oil,
      statistics: solver.statistics,
      lines: netlist.nodes.map((n) => n.name),
      lineOfPort: Object.fromEntries(netlist.nodeOf),
      lineOfPipe: Object.fromEntries(netlist.nodeOfPipe),
    }
  }

  private lastSample = -1

  private observe(t: number, y: Float64Array): void {
    this.network.evaluate(t, y)
    this.network.observe()
  }

  /** Made once: the loop creates no closures. */
  private readonly look = (share: number) => void this.observeAt(share)

  /** Observes the network at a share of the last step. @returns the instant, s */
  private observeAt(share: number): number {
    const { solver, state } = this
    solver.interpolate(share, state)
    const t = solver.tOld + share * (solver.t - solver.tOld)
    this.observe(t, state)
    return t
  }

  /** Records the sample that is due now, if one is. */
  private sampleUpTo(t: number, every: number): void {
    if (this.samples * every > t * (1 + 1e-12)) return
    // the network may stand at an earlier sample
    if (!this.solver.here) this.observe(t, this.solver.y)
    this.recorder.sample(t)
    this.lastSample = t
    while (this.samples * every <= t * (1 + 1e-12)) this.samples++
  }

  /**
   * Takes account of the last step, up to the first guard that changes sides in it.
   * @returns the share of the step that holds; below 1 the state is that of the event
   */
  private takeStep(balance: Balance): number {
    const { solver, guards } = this
    const { look } = this
    const length = solver.t - solver.tOld
    let t = this.observeAt(0.5)
    if (guards.crossed()) {
      const event = guards.locate(0, 0.5, length, look)
      t = this.observeAt(0.5 * event)
      this.take(t, 0, 0.5 * event, length)
      balance.takeMiddle()
      t = this.observeAt(event)
      this.take(t, 0.5 * event, event, length)
      return this.endStep(balance, event, length)
    }
    this.take(t, 0, 0.5, length)
    balance.takeMiddle()
    t = this.observeAt(1)
    if (guards.crossed()) {
      const event = guards.locate(0.5, 1, length, look)
      this.observeAt(0.5 * event)
      balance.takeMiddle()
      t = this.observeAt(event)
      this.take(t, 0.5, event, length)
      return this.endStep(balance, event, length)
    }
    this.take(t, 0.5, 1, length)
    guards.accept()
    return this.endStep(balance, 1, length)
  }

  /** Conditions and extremes of a part of the last step; the network has been observed at its end, and is left so. */
  private take(t: number, from: number, to: number, length: number): void {
    const { recorder, watch } = this
    if (watch.crossed()) {
      watch.look(this.observeAt(watch.locate(from, to, length, this.look)))
      this.observeAt(to)
    }
    watch.look(t)
    recorder.watch(t)
  }

  /** Closes the account of a step whose end was observed, and takes the samples that lie in it. */
  private endStep(balance: Balance, share: number, length: number): number {
    const { solver, recorder } = this
    const { every } = this.compiled.settings
    balance.takeEnd()
    const end = solver.tOld + share * length
    // the network stands at the end of the step, and at the same oil
    solver.here = share === 1 && !this.compiled.tank.warming
    // one that falls on the end is taken with what holds after it
    while (this.samples * every < end * (1 - 1e-12)) {
      const at = this.samples * every
      this.observeAt(Math.min(share, Math.max(0, (at - solver.tOld) / length)))
      recorder.sample(at)
      this.lastSample = at
      this.samples++
      solver.here = false
    }
    balance.close(share * length)
    // an event is fired where it is
    if (share < 1 && !solver.here) this.observeAt(share)
    return share
  }
}

class Stop extends Error {
  constructor(
    message: string,
    /** State that was in the way, −1 for none. */
    readonly state: number,
  ) {
    super(message)
  }
}
