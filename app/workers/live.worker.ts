/** A run that is worked by hand, away from the interface: it follows the clock, and posts what there is to see. */
import './zodConfig'
import { expose, transfer } from 'comlink'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { Action } from '@oar-bench/core/simulate/actions'
import { compileMachineLive } from '@oar-bench/core/control/run'
import { LiveRun, type ActionNow, type LiveResult } from '@oar-bench/core/simulate/live-run'
import type { Condition, Extremes, RunEvent, RunResult } from '@oar-bench/core/simulate/result'

/** ms between two frames, and how much of it may be spent on steps. */
const FRAME = 20
const BUDGET = 14
/** ms between two reports for the tape. */
const TAPE = 200
/** A clock that stood still, as a laptop with its lid shut, counts for no more than this, s. */
const LONGEST_ELAPSED = 0.25
/** An action takes effect at most so far ahead of what is shown, s of the clock. */
const LEAD = 0.02
/** After an event, by choice, it goes on slowly for so long, ms of the clock, and so much slower. */
const SLOW_FOR = 1200
const SLOWER = 4

export interface Frame {
  /** Instant that is shown, s. */
  readonly t: number
  readonly values: Float64Array
  /** Seconds shown in a second of the clock, of those asked for; 1 where it keeps up. */
  readonly pace: number
  readonly playing: boolean
}
/** What is new for the tape. */
export interface TapeReport {
  readonly t: number
  readonly times: Float64Array
  readonly columns: readonly Float32Array[]
  readonly signals: RunResult['signals']
  readonly extremes: readonly Extremes[]
  readonly conditions: readonly Condition[]
  /** Events since the last report. */
  readonly events: readonly RunEvent[]
  readonly actions: readonly Action[]
  readonly stopped?: RunResult['stopped']
}
export interface StopCondition {
  readonly signal: string
  readonly above: boolean
  /** SI */
  readonly value: number
}
type Sink = {
  frame(frame: Frame): void
  tape(report: TapeReport): void
  /** @param event that it waited for */
  paused(why: string, event?: RunEvent): void
}

let run: LiveRun | undefined
let sink: Sink
let playing = false
let speed = 1
let slowAtEvents = false
let slowUntil = 0
let untilEvent = false
let until: StopCondition | undefined
let last = 0
let pace = 1
let tapeAt = 0
let sentSamples = 0
let sentEvents = 0
let timer: ReturnType<typeof setTimeout> | undefined

function tick(): void {
  const now = performance.now()
  timer = setTimeout(tick, FRAME)
  if (!run) return
  if (playing) goOn(now)
  last = now
}
function goOn(now: number): void {
  const live = run!
  const elapsed = Math.min(LONGEST_ELAPSED, (now - last) / 1000)
  const rate = speed / (now < slowUntil ? SLOWER : 1)
  const before = live.shown
  const wanted = rate * elapsed
  const end = performance.now() + BUDGET
  let why = ''
  let happened: RunEvent | undefined
  live.goOn(
    before + wanted,
    () => performance.now() < end,
    (event) => {
      if (event && slowAtEvents) slowUntil = now + SLOW_FOR
      if (event && untilEvent) {
        happened = live.simulation.events.last
        why = happened?.what ?? 'an event'
      } else if (isReached(live)) why = 'the condition is reached'
      return why !== ''
    },
  )
  pace += 0.1 * (Math.min(1, (live.shown - before) / Math.max(wanted, 1e-9)) - pace)
  if (live.stopped) {
    why = live.stopped.message
    happened = undefined
  }
  if (why) pause(why, happened)
  report(now, why !== '')
}
function isReached(live: LiveRun): boolean {
  if (!until) return false
  const { recorder } = live.simulation
  const index = recorder.signals.findIndex((s) => s.id === until!.signal)
  if (index < 0) return false
  live.simulation.observeAt(live.simulation.time)
  const value = recorder.value(index)
  return until.above ? value > until.value : value < until.value
}
function pause(why: string, event?: RunEvent): void {
  playing = untilEvent = false
  until = undefined
  sink.paused(why, event)
}

function report(now: number, atOnce = false): void {
  const live = run!
  const { recorder } = live.simulation
  const values = live.frame(new Float64Array(recorder.signals.length))
  sink.frame(transfer({ t: live.shown, values, pace, playing }, [values.buffer]))
  if (!atOnce && now - tapeAt < TAPE) return
  tapeAt = now
  const { store } = recorder
  // a store that was thinned meanwhile is told by its times
  const from = firstAfter(store.times, store.count, sentSamples)
  const times = store.times.slice(from, store.count)
  const columns = store.columns.map((c) => c.slice(from, store.count))
  if (times.length) sentSamples = times[times.length - 1]
  const { events, actions } = live.simulation
  live.simulation.observeAt(live.simulation.time)
  const message: TapeReport = {
    t: live.shown,
    times,
    columns,
    signals: [...recorder.signals],
    extremes: recorder.extremes(),
    conditions: live.simulation.conditionsSoFar(),
    events: events.list(sentEvents),
    actions: [...actions],
    ...(live.stopped ? { stopped: live.stopped } : {}),
  }
  sentEvents = events.count
  sink.tape(transfer(message, [times.buffer, ...columns.map((c) => c.buffer)]))
}
function firstAfter(times: Float64Array, count: number, t: number): number {
  let i = count
  while (i > 0 && times[i - 1] > t) i--
  return i
}

const live = {
  /** Compiles a sheet and stands at its start. @returns what it has found there, or the findings that keep it from it */
  open(
    sheet: Sheet,
    scheduleId: string | undefined,
    held: boolean,
    frame: Sink['frame'],
    tape: Sink['tape'],
    paused: Sink['paused'],
  ): { result?: RunResult; findings: Finding[] } {
    const { compiled, findings } = compileMachineLive(sheet, scheduleId, held)
    if (!compiled) return { findings }
    run = new LiveRun(compiled, { held, longestStep: LEAD })
    sink = { frame, tape, paused }
    playing = false
    speed = 1
    last = performance.now()
    sentSamples = -1
    sentEvents = 0
    timer ??= setTimeout(tick, FRAME)
    return { findings, result: live.result() }
  },
  play(on: boolean): void {
    if (on && run?.stopped) return sink.paused(run.stopped.message)
    playing = on
    untilEvent = false
    until = undefined
    last = performance.now()
    if (!on && run) report(last, true)
  },
  /** @param times how many seconds in a second of the clock */
  setSpeed(times: number): void {
    speed = times
    run?.do({ kind: 'longestStep', value: Math.min(0.05, Math.max(0.001, LEAD * times)) })
  },
  setSlowAtEvents(on: boolean): void {
    slowAtEvents = on
    slowUntil = 0
  },
  /** Goes on until something happens. */
  goToEvent(): void {
    live.play(true)
    untilEvent = true
  },
  goUntil(condition: StopCondition): void {
    live.play(true)
    until = condition
  },
  /** @returns why it could not be done; empty where it was */
  do(action: ActionNow): string {
    if (!run) return 'Nothing is running.'
    try {
      run.do(action)
      if (!playing) report(performance.now(), true)
      return ''
    } catch (error) {
      return (error as Error).message
    }
  },
  /** Goes to an instant of a run with these actions. @returns what that run has found */
  goTo(actions: readonly Action[], t: number): RunResult {
    playing = false
    run!.goTo(actions, t)
    const result = live.result()
    sentSamples = result.times.at(-1) ?? -1
    sentEvents = run!.simulation.events.count
    const values = run!.frame(new Float64Array(run!.simulation.recorder.signals.length))
    sink.frame({ t: run!.shown, values, pace: 1, playing: false })
    return result
  },
  result(): LiveResult {
    const result = run!.result()
    return transfer(result, [result.times.buffer, ...result.columns.map((c) => c.buffer)] as ArrayBuffer[])
  },
}
export type LiveWorker = typeof live
expose(live)
