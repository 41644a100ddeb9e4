/**
 * A run that is worked by hand: it goes on towards an instant that a clock asks for, takes actions in between, and can go back to any
 * instant and on from there. It knows nothing of the clock.
 *
 * It takes whole steps and shows instants within the last one, so frames change nothing; what was done is a list of actions that gives
 * the same numbers to the last bit when it is replayed.
 */
import type { Sheet, Schedule } from '../sheet/schema'
import type { Action } from './actions'
import { compile, type Compiled } from './compile'
import type { Control, ControlDefinition } from './control-interface'
import type { RunResult } from './result'
import { Simulation } from './simulation'
import type { Snapshot } from './snapshot'
import { parseQuantity } from '../units/text'

export interface LiveOptions {
  /** How long a step may be at first, s: an action takes effect at most so far ahead of what is shown. */
  readonly longestStep?: number
  /** The commands of 0 s are held; else the schedule goes on commanding. */
  readonly held?: boolean
  readonly control?: Control
  /** Samples that are kept of all signals together; older ones are merged without losing peaks. */
  readonly room?: number
}

const LONGEST_STEP = 0.02
/** Values of all samples: 15 million of four bytes. */
const ROOM = 15e6
/** s between two snapshots, at first, and how many are kept. */
const CHECKPOINT_EVERY = 0.5
const MOST_CHECKPOINTS = 400

/** A schedule with its commands of 0 s held. */
export function heldSchedule(schedule: Schedule): Schedule {
  return {
    ...schedule,
    actions: [],
    longestStep: undefined,
    tracks: schedule.tracks.flatMap((track) => {
      const [first] = track.points
      const at = parseQuantity(first.at, 'time')
      return at.ok && at.si === 0 ? [{ ...track, points: [first] }] : []
    }),
  }
}

/**
 * Compiles a sheet to be worked by hand, without what its schedule does by hand. @param held whether the commands of 0 s are held
 * @param control of the sheet, where it has one
 */
export function compileLive(
  sheet: Sheet,
  scheduleId: string | undefined,
  held: boolean,
  control?: ControlDefinition,
) {
  const schedules = sheet.schedules.map((s) =>
    held ? heldSchedule(s) : { ...s, actions: [], longestStep: undefined },
  )
  return compile({ ...sheet, schedules }, scheduleId, { burstable: true, control })
}

/** What a live run has found: with what is needed to replay it. */
export type LiveResult = RunResult & Required<Pick<RunResult, 'live'>>

export class LiveRun {
  readonly simulation: Simulation
  /** Instant that is shown, s: within the last step. */
  shown = 0
  private readonly options: Required<Pick<LiveOptions, 'longestStep' | 'held'>>
  private checkpoints: Snapshot[] = []
  private checkpointEvery = CHECKPOINT_EVERY

  constructor(
    readonly compiled: Compiled,
    { longestStep = LONGEST_STEP, held = true, control, room = ROOM }: LiveOptions = {},
  ) {
    this.options = { longestStep, held }
    this.simulation = new Simulation(compiled, { control, longestStep, room })
    this.checkpoints.push(this.simulation.snapshot())
  }

  get stopped() {
    return this.simulation.stopped
  }

  /**
   * Goes on until an instant can be shown. @param to s @param mayGoOn asked before each step: whether there is time for another
   * @param pause asked after each step: whether to show the end of it and stop there
   */
  goOn(to: number, mayGoOn: () => boolean = () => true, pause?: (event: boolean) => boolean): void {
    const { simulation } = this
    let end = to
    while (simulation.time < end && !simulation.stopped && mayGoOn()) {
      const listed = simulation.events.count
      simulation.step(Infinity)
      this.keepCheckpoint()
      if (pause?.(simulation.events.count !== listed)) end = simulation.time
    }
    this.shown = Math.max(this.shown, Math.min(end, simulation.time))
  }

  /** Values of all signals at the instant that is shown. @param out as long as there are signals, or longer */
  frame(out: Float64Array): Float64Array {
    const { simulation } = this
    const { recorder } = simulation
    simulation.observeAt(this.shown)
    for (let i = 0; i < recorder.signals.length; i++) out[i] = recorder.value(i)
    simulation.observeAt(simulation.time)
    return out
  }

  /** Does something now. @returns it with its instant @throws Error in plain words where it cannot be done */
  do(action: ActionNow): Action {
    const { simulation } = this
    switch (action.kind) {
      case 'set':
        simulation.set(action.component, action.target, action.value)
        break
      case 'release':
        simulation.release(action.component, action.target)
        break
      case 'parameter':
        simulation.setParameter(action.component, action.target, action.value)
        break
      case 'longestStep':
        simulation.setLongestStep(action.value)
    }
    return simulation.actions[simulation.actions.length - 1]
  }

  /** What was done so far, in order. */
  get actions(): readonly Action[] {
    return this.simulation.actions
  }

  /**
   * Goes to an instant of a run with these actions: this one, another branch, or a list that was edited. It starts from the last
   * snapshot that both have in common.
   */
  goTo(actions: readonly Action[], t: number): void {
    const { simulation } = this
    const wanted = actions.filter((a) => a.at <= t)
    const common = commonLength(simulation.actions, wanted)
    // where they differ first
    const limit = Math.min(t, simulation.actions[common]?.at ?? Infinity, wanted[common]?.at ?? Infinity)
    while (this.checkpoints.length > 1 && !isBefore(this.checkpoints.at(-1)!, limit, common))
      this.checkpoints.pop()
    const from = this.checkpoints.at(-1)!
    simulation.restore(from)
    for (const action of wanted.slice(from.done)) simulation.plan(action)
    this.shown = from.time
    this.goOn(t)
    this.shown = Math.min(t, simulation.time)
  }

  /** What it has found so far. */
  result(): LiveResult {
    return { ...this.simulation.result(), live: this.options }
  }

  private keepCheckpoint(): void {
    const { checkpoints, simulation } = this
    if (simulation.time < checkpoints.at(-1)!.time + this.checkpointEvery) return
    const snapshot = simulation.snapshot()
    // what is planned belongs to the list that is being replayed
    checkpoints.push({ ...snapshot, queue: snapshot.queue.filter(({ source }) => source !== 'user') })
    if (checkpoints.length <= MOST_CHECKPOINTS) return
    this.checkpoints = checkpoints.filter((_, i) => i % 2 === 0)
    this.checkpointEvery *= 2
  }
}

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never
export type ActionNow = DistributiveOmit<Action, 'at'>

const isSame = (a: Action, b: Action) => JSON.stringify(a) === JSON.stringify(b)
function commonLength(a: readonly Action[], b: readonly Action[]): number {
  let i = 0
  while (i < a.length && i < b.length && isSame(a[i], b[i])) i++
  return i
}
/** Whether a snapshot lies before an instant and has no more than these first actions in it. */
const isBefore = ({ time, done }: Snapshot, t: number, actions: number) =>
  done <= actions && (time < t || time === 0)

/** Replays what was done by hand from the start. @param until s, where nothing is said the last action @throws Error where it cannot be run */
export function replay(sheet: Sheet, recorded: RunResult, control?: ControlDefinition): RunResult {
  const { live } = recorded
  if (!live) throw new Error('This run was not worked by hand.')
  const { compiled, findings } = compileLive(sheet, recorded.schedule, live.held, control)
  if (!compiled) throw new Error(findings.find((f) => f.severity === 'error')!.message)
  const run = new LiveRun(compiled, live)
  run.goTo(recorded.actions, recorded.duration)
  // the step that could not be taken fails again
  let left = recorded.stopped ? 1 : 0
  run.goOn(Infinity, () => left-- > 0)
  return run.result()
}
