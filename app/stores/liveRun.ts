/** The run that is worked by hand: its worker, what it shows now, and its branches. */
import { proxy } from 'comlink'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef } from 'vue'
import { nameOf, type Schedule, type Sheet } from '@oar-bench/core/sheet/schema'
import type { Action } from '@oar-bench/core/simulate/actions'
import { devicesOf } from '@oar-bench/core/control/run'
import { eventText } from '@oar-bench/core/simulate/event-text'
import { heldSchedule, type ActionNow } from '@oar-bench/core/simulate/live-run'
import { SampleStore } from '@oar-bench/core/simulate/observers/sample-store'
import { operableMachine, type OperableMachine } from '@oar-bench/core/simulate/operable'
import { signalMap } from '@oar-bench/core/simulate/playback'
import { scheduleOf } from '@oar-bench/core/simulate/recorded-actions'
import type { RunEvent, RunResult } from '@oar-bench/core/simulate/result'
import { useUnits } from '../composables/useUnits'
import { workerClient, type WorkerClient } from '../utils/workerClient'
import type { Frame, LiveWorker, StopCondition, TapeReport } from '../workers/live.worker'
import { useSheetDocument } from './sheetDocument'
import { useSimulationRuns } from './simulationRuns'

/** A way that was tried: what was done, and how far it went. */
export interface Branch {
  readonly id: number
  readonly name: string
  /** Instant at which it left the one before it, s; none of the first. */
  readonly from?: number
  readonly actions: readonly Action[]
  readonly duration: number
  /** What it found; of the older ones only what was done is kept, and they are run again when they are opened. */
  readonly result?: RunResult
}
/** Values of all samples that the tape keeps. */
const ROOM = 8e6
/** Branches whose results are kept, to be compared with another. */
const MOST_RESULTS = 8
/** Looking at an instant before the end by more than this, s, is looking back. */
const LOOKING_BACK = 0.03
const NOTHING: OperableMachine = { operables: [], faults: [], electric: [] }

export const useLiveRun = defineStore('liveRun', () => {
  const sheetDocument = useSheetDocument()
  const runs = useSimulationRuns()
  const units = useUnits()
  let client: WorkerClient<LiveWorker> | undefined
  let store = new SampleStore()
  /** The sheet as it was when the run began; the run goes on with it. */
  const sheet = shallowRef<Sheet>()
  /** Signals and lines of the run, without samples: what the sheet is painted by. */
  const base = shallowRef<RunResult>()
  /** Values of all signals now; the array is new with each frame. */
  const frame = shallowRef<Frame>()
  const open = computed(() => base.value !== undefined)
  const starting = ref(false)
  const playing = ref(false)
  const held = ref(true)
  const speed = ref(1)
  const slowAtEvents = ref(false)
  /** Why it stands, or why something could not be done. */
  const message = ref('')
  const events = shallowRef<readonly RunEvent[]>([])
  const actions = shallowRef<readonly Action[]>([])
  const branches = shallowRef<readonly Branch[]>([])
  /** Number of the branch that is worked on, and where it began. */
  const branch = ref({ id: 1, name: 'Branch 1', from: undefined as number | undefined })
  /** Levers that stay where they were put, by "component.input". */
  const kept = shallowRef<ReadonlySet<string>>(new Set())
  /** Settings whose lock nut is loose. */
  const loose = shallowRef<ReadonlySet<string>>(new Set())
  let branchCount = 1
  /** Values that were asked for by hand, by "component.input": what a frame shows is a little older. */
  const asked = shallowRef<Readonly<Record<string, number>>>({})
  const machine = computed(() =>
    sheet.value ? operableMachine(sheet.value, devicesOf(sheet.value)) : NOTHING,
  )

  /** An event in words, in the units in use. */
  const sentenceOf = (event: RunEvent) => {
    const own = [...(sheet.value?.components ?? []), ...(sheet.value?.control.devices ?? [])]
    const part = own.find(({ id }) => id === event.component)
    return [part && nameOf(part), eventText(event, units.show)].filter(Boolean).join(' ')
  }

  /** @param scheduled whether the schedule goes on commanding; else its commands of 0 s are held */
  async function start(scheduled = false): Promise<boolean> {
    close()
    const own = sheetDocument.sheet
    held.value = !scheduled
    starting.value = true
    runs.problem = ''
    client = workerClient<LiveWorker>(
      new Worker(new URL('../workers/live.worker.ts', import.meta.url), { type: 'module' }),
      'The live run could not be started.',
    )
    const current = client
    try {
      const opened = current.remote.open(
        own,
        sheetDocument.scheduleId,
        held.value,
        proxy(takeFrame),
        proxy(takeReport),
        proxy((why: string, event?: RunEvent) => {
          playing.value = false
          message.value = event ? sentenceOf(event) : why
        }),
      )
      const { result } = await Promise.race([opened, current.failed])
      if (client !== current) return false
      if (!result) {
        runs.problem = 'The sheet cannot be run yet: see the findings.'
        close()
        return false
      }
      sheet.value = own
      speed.value = 1
      slowAtEvents.value = false
      branchCount = 1
      branch.value = { id: 1, name: 'Branch 1', from: undefined }
      branches.value = []
      kept.value = loose.value = new Set()
      takeResult(result)
      await play(true)
      current.failed.catch((error: Error) => {
        if (client === current) {
          runs.problem = `The live run failed: ${error.message}`
          close()
        }
      })
      return true
    } catch (error) {
      if (client === current) {
        runs.problem = `The live run failed: ${(error as Error).message}`
        close()
      }
      return false
    } finally {
      starting.value = false
    }
  }
  function takeFrame(next: Frame): void {
    frame.value = markRaw(next)
    playing.value = next.playing
    runs.time = next.t
  }
  function takeReport({ times, columns, signals, extremes, conditions, t, ...rest }: TapeReport): void {
    if (!base.value) return
    while (store.columns.length < columns.length) store.addColumn()
    store.appendAll(times, columns)
    if (signals.length !== base.value.signals.length) base.value = { ...base.value, signals }
    events.value = [...events.value, ...rest.events]
    actions.value = rest.actions
    show({
      ...base.value,
      signals,
      extremes,
      conditions,
      duration: t,
      events: events.value,
      actions: actions.value,
    })
  }
  /** A run as the worker has it, in the place of what is shown. */
  function takeResult(result: RunResult): void {
    store = new SampleStore(ROOM)
    store.load(result.times, result.columns)
    events.value = result.events
    actions.value = result.actions
    base.value = result
    asked.value = Object.fromEntries(
      result.actions.flatMap((a) => (a.kind === 'set' ? [[`${a.component}.${a.target}`, a.value]] : [])),
    )
    show(result)
    runs.time = result.duration
  }
  /** Shows what the tape has. */
  function show(result: RunResult): void {
    runs.shown = {
      result: {
        ...result,
        times: store.times.subarray(0, store.count),
        columns: store.columns.map((c) => c.subarray(0, store.count)),
      },
      sheet: sheet.value ?? sheetDocument.sheet,
      name: branch.value.name,
    }
  }

  async function play(on: boolean): Promise<void> {
    message.value = ''
    playing.value = on
    await client?.remote.play(on)
  }
  async function setSpeed(times: number): Promise<void> {
    speed.value = times
    await client?.remote.setSpeed(times)
  }
  async function setSlowAtEvents(on: boolean): Promise<void> {
    slowAtEvents.value = on
    await client?.remote.setSlowAtEvents(on)
  }
  async function goToEvent(): Promise<void> {
    message.value = ''
    await client?.remote.goToEvent()
  }
  async function goUntil(condition: StopCondition): Promise<void> {
    message.value = ''
    await client?.remote.goUntil({ ...condition })
  }
  /** @returns whether it was done; why not stands in `message` */
  async function act(action: ActionNow): Promise<boolean> {
    if (!client) return false
    if ('component' in action && !isOnSheet(action.component)) {
      message.value =
        'That part is no longer on the sheet; the run goes on with the sheet that it began with.'
    }
    const end = runs.shown?.result.duration ?? 0
    // done while looking back, it is done there
    if (!playing.value && runs.time < end - LOOKING_BACK) {
      const at = runs.time
      await goOnFrom(at)
    }
    const key = 'component' in action ? `${action.component}.${action.target}` : ''
    const before = asked.value[key]
    if (action.kind === 'set') asked.value = { ...asked.value, [key]: action.value }
    const problem = await client.remote.do({ ...action })
    if (problem) {
      message.value = problem
      asked.value = { ...asked.value, [key]: before }
    }
    return !problem
  }
  const isOnSheet = (id: string) =>
    sheetDocument.sheet.components.some((c) => c.id === id) ||
    sheetDocument.sheet.pipes.some((p) => p.id === id) ||
    devicesOf(sheetDocument.sheet).some((d) => d.id === id)
  const set = (component: string, target: string, value: number) =>
    act({ kind: 'set', component, target, value })
  /** Takes the electric supply away, or gives it back. */
  async function cutPower(off: boolean): Promise<void> {
    for (const key of machine.value.electric) {
      const [component, fault] = key.split('.')
      await set(component, fault, off ? 1 : 0)
    }
  }
  /** A set with an entry, or without it. */
  function having(set: ReadonlySet<string>, key: string, is: boolean): ReadonlySet<string> {
    if (set.has(key) === is) return set
    const next = new Set(set)
    if (is) next.add(key)
    else next.delete(key)
    return next
  }
  const keepAt = (key: string, stays: boolean) => (kept.value = having(kept.value, key, stays))
  const loosen = (key: string, is: boolean) => (loose.value = having(loose.value, key, is))
  /** Value of an input as it was asked for last, SI; as the run shows it where nobody has. */
  const orderOf = (key: string): number | undefined => asked.value[key] ?? valueOf(key)
  /** Value of a signal now, SI. */
  function valueOf(signal: string): number | undefined {
    const index = base.value && signalMap(base.value).get(signal)
    return index === undefined ? undefined : frame.value?.values[index]
  }

  /** Keeps the present branch beside the others, and goes on from an instant of it. */
  async function goOnFrom(t: number): Promise<void> {
    if (!client) return
    await keepBranch()
    await goTo(actions.value, t, undefined, t)
  }
  /** Goes on where another branch ended. */
  async function openBranch(chosen: Branch): Promise<void> {
    await keepBranch()
    branches.value = branches.value.filter((b) => b.id !== chosen.id)
    await goTo(chosen.actions, chosen.duration, chosen)
  }
  /** Runs a list of actions that was edited, to where the present branch stands. */
  async function rerun(edited: readonly Action[]): Promise<void> {
    const sorted = [...edited].sort((a, b) => a.at - b.at)
    const { duration } = await keepBranch()
    const changed = sorted.findIndex((a, i) => JSON.stringify(a) !== JSON.stringify(actions.value[i]))
    await goTo(sorted, duration, undefined, sorted[Math.max(0, changed)]?.at ?? 0)
  }
  async function keepBranch(): Promise<Branch> {
    const result = await client!.remote.result()
    const { actions: done, duration } = result
    const present: Branch = { ...branch.value, actions: done, duration, result }
    const before = branches.value.map((b, i, all) =>
      i <= all.length - MOST_RESULTS ? { ...b, result: undefined } : b,
    )
    branches.value = [...before, present]
    return present
  }
  async function goTo(
    list: readonly Action[],
    t: number,
    known?: Pick<Branch, 'id' | 'name' | 'from'>,
    from?: number,
  ): Promise<void> {
    const own = client!
    playing.value = false
    message.value = ''
    const result = await own.remote.goTo(list, t)
    if (own !== client) return
    if (!known) branchCount++
    branch.value = known
      ? { id: known.id, name: known.name, from: known.from }
      : { id: branchCount, name: `Branch ${branchCount}`, from }
    takeResult(result)
    runs.time = Math.min(t, result.duration)
  }
  function renameBranch(id: number, name: string): void {
    if (branch.value.id === id) branch.value = { ...branch.value, name }
    branches.value = branches.value.map((b) => (b.id === id ? { ...b, name } : b))
  }
  /** Lays a branch over the one that is worked on. */
  const compare = (other: Branch | undefined) =>
    (runs.overlay = other?.result && { result: other.result, sheet: sheet.value!, name: other.name })

  /** Keeps the run under a name, as it stands. */
  async function keep(name: string): Promise<void> {
    if (!client) return
    const result = await client.remote.result()
    runs.shown = { result, sheet: sheet.value!, name }
    await runs.saveRun(name)
  }
  /** Writes what was done as a schedule of the sheet. */
  async function writeSchedule(name: string, note = ''): Promise<void> {
    if (!client) return
    // the integrator may be ahead of what is shown, and what was done last with it
    const { actions: done, duration, live } = await client.remote.result()
    const own = sheetDocument.sheet
    const present = own.schedules.find((s) => s.id === sheetDocument.scheduleId) ?? own.schedules[0]
    const taken = new Set(own.schedules.map((s) => s.id))
    let n = 1
    while (taken.has(`live${n}`)) n++
    const schedule: Schedule = scheduleOf(
      own,
      held.value ? heldSchedule(present) : present,
      { actions: done, duration, longestStep: live.longestStep },
      { id: `live${n}`, name, note },
      devicesOf(own),
    )
    sheetDocument.apply({ ...own, schedules: [...own.schedules, schedule] })
  }
  /** Opens a kept run where it ended, to work it further. @returns whether it is open */
  async function reopen(kept: RunResult): Promise<boolean> {
    sheetDocument.scheduleId = kept.schedule
    if (!(await start(!(kept.live?.held ?? true)))) return false
    await play(false)
    await goTo(kept.actions, kept.duration, branch.value)
    return true
  }
  /** Ends it; what it has found stays on the tape. */
  function close(): void {
    client?.worker.terminate()
    client = undefined
    base.value = frame.value = sheet.value = undefined
    playing.value = false
    message.value = ''
    branches.value = []
  }

  return {
    sheet,
    base,
    frame,
    open,
    starting,
    playing,
    held,
    speed,
    slowAtEvents,
    message,
    events,
    actions,
    branch,
    branches,
    machine,
    start,
    play,
    setSpeed,
    setSlowAtEvents,
    goToEvent,
    goUntil,
    act,
    set,
    cutPower,
    valueOf,
    orderOf,
    kept,
    keepAt,
    loose,
    loosen,
    goOnFrom,
    openBranch,
    rerun,
    renameBranch,
    compare,
    keep,
    writeSchedule,
    reopen,
    close,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useLiveRun, import.meta.hot))
