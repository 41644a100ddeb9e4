/** Runs a compiled sheet through its schedule. */
import type { Action } from './actions'
import type { Compiled } from './compile'
import type { Control } from './control'
import type { RunResult } from './result'
import { Simulation } from './simulation'

export interface RunOptions {
  /** Where the run ends, s; the schedule's duration where nothing is said. Beyond it, commands stay as they are. */
  readonly until?: number
  /** Told now and then how far the run is; false ends it. */
  readonly progress?: (t: number, duration: number) => boolean | void
  readonly control?: Control
  readonly longestStep?: number
  /** What is done from outside, besides the schedule. */
  readonly actions?: readonly Action[]
}

/** A run that needs more steps than this is given up. */
const STEP_BUDGET = 400_000
const STEPS_BETWEEN_PROGRESS = 500

export function run(compiled: Compiled, options: RunOptions = {}): RunResult {
  const simulation = new Simulation(compiled, options)
  for (const action of options.actions ?? []) simulation.plan(action)
  return runOn(simulation, options.until ?? compiled.settings.duration, options.progress)
}

/** Goes on with a simulation to an instant, s. */
export function runOn(simulation: Simulation, until: number, progress?: RunOptions['progress']): RunResult {
  const { statistics } = simulation
  const first = statistics.steps
  let told = first
  while (!simulation.stopped && simulation.time < until) {
    if (statistics.steps - first > STEP_BUDGET) simulation.stop(`gave up after ${STEP_BUDGET} steps`)
    else simulation.step(until)
    if (progress && statistics.steps - told >= STEPS_BETWEEN_PROGRESS) {
      told = statistics.steps
      if (progress(simulation.time, until) === false) simulation.stop('ended by hand')
    }
  }
  return simulation.result()
}
