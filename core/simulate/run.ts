/** Runs a compiled sheet through its schedule. */
import type { Action } from './actions'
import type { Compiled } from './compile'
import type { Control } from './control-interface'
import type { RunResult } from './result'
import { Simulation } from './simulation'

export interface RunOptions {
  /** Where the run ends, s; the schedule's duration where nothing is said. Beyond it, commands stay as they are. */
  readonly until?: number
  /** Called now and then with how far the run is; false ends it. */
  readonly progress?: (t: number, duration: number) => boolean | void
  readonly control?: Control
  readonly longestStep?: number
  /** What is done from outside, besides the schedule. */
  readonly actions?: readonly Action[]
}

/** A run that needs more steps than this is given up. */
const STEP_BUDGET = 400_000
const STEPS_BETWEEN_PROGRESS = 100

export function run(compiled: Compiled, options: RunOptions = {}): RunResult {
  return continueRun(
    simulationOf(compiled, options),
    options.until ?? compiled.settings.duration,
    options.progress,
  )
}

/** A simulation with what its schedule, and the options, do by hand. */
export function simulationOf(
  compiled: Compiled,
  options: Omit<RunOptions, 'until' | 'progress'> = {},
): Simulation {
  const longestStep = options.longestStep ?? compiled.settings.longestStep
  const simulation = new Simulation(compiled, { control: options.control, longestStep })
  for (const action of [...compiled.actions, ...(options.actions ?? [])]) simulation.plan(action)
  return simulation
}

/** Goes on with a simulation to an instant, s. */
export function continueRun(
  simulation: Simulation,
  until: number,
  progress?: RunOptions['progress'],
): RunResult {
  while (!simulation.stopped && simulation.time < until) {
    stepSome(simulation, until)
    if (progress?.(simulation.time, until) === false) stopByRequest(simulation)
  }
  return simulation.result()
}

/**
 * Goes on to an instant, and lets others come to their turn in between; `end` is asked each time.
 * @param turn s of wall time between two turns
 */
export async function runInSlices(
  simulation: Simulation,
  until: number,
  turn: number,
  end: (t: number) => boolean,
): Promise<RunResult> {
  while (!simulation.stopped && simulation.time < until) {
    const pause = performance.now() + 1000 * turn
    do stepSome(simulation, until)
    while (!simulation.stopped && simulation.time < until && performance.now() < pause)
    await new Promise((resolve) => setTimeout(resolve))
    if (end(simulation.time)) stopByRequest(simulation)
  }
  return simulation.result()
}

/** Some steps towards an instant, fewer than it takes to notice. */
function stepSome(simulation: Simulation, until: number): void {
  const { statistics } = simulation
  for (let i = 0; i < STEPS_BETWEEN_PROGRESS && !simulation.stopped && simulation.time < until; i++)
    if (statistics.steps >= STEP_BUDGET) simulation.stop(`gave up after ${STEP_BUDGET} steps`)
    else simulation.step(until)
}

/** What it has found so far stays. */
function stopByRequest(simulation: Simulation): void {
  if (!simulation.stopped) simulation.stop('ended by hand')
}
