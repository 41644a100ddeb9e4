/** The answer to what was asked about a run: what sets the pressure of the selected line, now, and where its oil goes. */
import { watchDebounced } from '@vueuse/core'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { computed, markRaw, ref, shallowRef, watch } from 'vue'
import { findKind } from '@oar-bench/core/catalogue'
import type { PressureAnswer } from '@oar-bench/core/explain/answer'
import type { NamedFigure } from '@oar-bench/core/explain/figures'
import type { PartAnswer } from '@oar-bench/core/explain/part'
import type { Moments } from '@oar-bench/core/explain/moment'
import type { Mover } from '@oar-bench/core/explain/movers'
import { portKey } from '@oar-bench/core/sheet/netlist'
import { pipeFlows, type PipeFlow } from '@oar-bench/core/simulate/playback'
import { sampleAt, type RunResult } from '@oar-bench/core/simulate/result'
import { addPen } from '@oar-bench/core/sheet/pens'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { useUnits } from '../composables/useUnits'
import type { RunState } from '../workers/knobs.worker'
import { useEditorUi } from './editorUi'
import { useLiveRun } from './liveRun'
import { useSelection } from './selection'
import { useSheetDocument } from './sheetDocument'
import { useSimulationRuns } from './simulationRuns'

/** ms that the pointer or the tape must rest. */
const RESTS = 40

/** A line that can be asked about: at a port, or the one that is selected. */
export interface AskedLine {
  readonly label: string
  readonly line: number
}

export const useAnswers = defineStore('answers', () => {
  const runs = useSimulationRuns()
  const live = useLiveRun()
  const selection = useSelection()
  const sheetDocument = useSheetDocument()
  const editor = useEditorUi()
  const { show } = useUnits()

  /** A line that is followed beside what is selected: that of a sentence. */
  const followed = shallowRef<AskedLine>()
  const open = computed(
    () => (editor.isPaneOpen('answers') || !!followed.value) && !!runs.shown && !runs.outdated,
  )
  const answer = shallowRef<PressureAnswer>()
  /** What the selected part does. */
  const part = shallowRef<PartAnswer>()
  /** Share of the oil in each pipe of the path. */
  const shares = shallowRef<ReadonlyMap<string, number>>(new Map())
  const problem = ref('')
  /** What else can be asked about there. */
  const figures = shallowRef<readonly NamedFigure[]>([])
  /** Port of the selected part that is asked about. */
  const port = ref<string>()

  /** Lines of what is selected. */
  const lines = computed<AskedLine[]>(() => {
    const result = runs.shown?.result
    if (!result) return []
    const [component] = selection.components
    const [pipe] = selection.pipes
    if (component)
      return (findKind(component.kind)?.ports ?? []).flatMap(({ name, domain }) => {
        const line = result.lineOfPort[portKey(component.id, name)]
        return domain === 'oil' && line !== undefined ? [{ label: name, line }] : []
      })
    const line = pipe && result.lineOfPipe[pipe.id]
    return line !== undefined && result.signals[line]?.role === 'pressure'
      ? [{ label: result.lines[line], line }]
      : []
  })
  const asked = computed(
    () => followed.value ?? lines.value.find((l) => l.label === port.value) ?? lines.value[0],
  )

  /** The network of the run that is shown; made once for each. */
  let made:
    | {
        sheet: Sheet
        signals: RunResult['signals']
        moments: Moments
        flows: PipeFlow[]
        movers: readonly Mover[]
      }
    | undefined
  async function momentsOf(sheet: Sheet, result: RunResult) {
    if (made?.sheet === sheet && made.signals === result.signals) return made
    const { Moments } = await import('@oar-bench/core/explain/moment')
    const { moversOf } = await import('@oar-bench/core/explain/movers')
    const source = {
      signals: result.signals,
      schedule: result.schedule,
      live: result.live,
      // a live run goes on being worked
      get actions() {
        return runs.shown?.result.actions ?? result.actions
      },
    }
    made = {
      sheet,
      signals: result.signals,
      moments: markRaw(new Moments(sheet, source)),
      flows: pipeFlows(sheet, result),
      movers: moversOf(sheet, result),
    }
    return made
  }

  function clear(): void {
    answer.value = part.value = undefined
    figures.value = []
    // the sheet is drawn again where this is another one
    if (shares.value.size) shares.value = new Map()
  }

  /** The state that the answer is about, to be worked on elsewhere. */
  function state(): RunState | undefined {
    const shown = runs.shown
    if (!shown) return undefined
    const { result, sheet } = shown
    const { read, t } = valuesNow(result)
    const { signals, schedule, live: lived, actions } = result
    return {
      sheet,
      run: { signals, schedule, live: lived, actions },
      values: Float64Array.from(signals, (_, i) => read(i)),
      time: t,
    }
  }
  /** Values of the frame of a live run that goes on, else of the sample that is looked at. */
  function valuesNow(result: RunResult) {
    const { frame } = live
    const now = live.open && frame && (live.playing || runs.time >= frame.t - 1e-9) ? frame : undefined
    const { index } = sampleAt(result.times, runs.time)
    const read = (signal: number) => (now ? now.values[signal] : result.columns[signal][index])
    return { read, t: now ? now.t : result.times[index] }
  }

  /** Keeps the path that is drawn as the stroke of a pen. */
  function keepPath(name: string): void {
    if (shares.value.size) sheetDocument.apply(addPen(sheetDocument.sheet, name, shares.value))
  }

  let turn = 0
  async function update(): Promise<void> {
    const own = ++turn
    const shown = runs.shown
    const line = asked.value?.line
    // a part on a shaft or a rod has no oil, and can be asked all the same
    const [component] = followed.value ? [] : selection.components
    if (!open.value || !shown || (line === undefined && !component)) {
      clear()
      return
    }
    try {
      const { moments, flows, movers } = await momentsOf(shown.sheet, shown.result)
      const { answerPressure } = await import('@oar-bench/core/explain/answer')
      const { figuresAt } = await import('@oar-bench/core/explain/figures')
      const { answerPart } = await import('@oar-bench/core/explain/part')
      const { pipeShares } = await import('@oar-bench/core/explain/path-on-sheet')
      if (own !== turn) return
      const { result } = shown
      const { read, t } = valuesNow(result)
      moments.show(read, t)
      const found = line === undefined ? undefined : markRaw(answerPressure(moments, result, line))
      answer.value = found
      part.value = component && answerPart(moments, component.id, show)
      figures.value = line === undefined && !part.value ? [] : figuresAt(moments, movers, line, component?.id)
      shares.value = found ? pipeShares(found, result.lineOfPipe, flows, read) : new Map()
      problem.value = ''
    } catch (error) {
      if (own !== turn) return
      clear()
      problem.value = (error as Error).message
    }
  }
  watch(
    () => selection.onlyId,
    () => (port.value = followed.value = undefined),
  )
  watch(
    () => runs.shown?.result.signals,
    () => (followed.value = undefined),
  )
  /** Draws the path of a line until something else is selected; none: no more. */
  function follow(line: number | undefined): void {
    const name = line === undefined ? undefined : runs.shown?.result.lines[line]
    followed.value = name === undefined ? undefined : { label: name, line: line! }
  }
  watchDebounced([() => runs.time, () => live.frame], update, { debounce: RESTS, maxWait: 4 * RESTS })
  // the result of a live run is another with each frame: its frames are looked at above
  const shownRun = computed(() => (live.open ? live.base : runs.shown))
  watch([open, () => asked.value?.line, () => selection.onlyId, shownRun], update)

  return { open, answer, part, figures, shares, problem, lines, asked, port, follow, keepPath, update, state }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useAnswers, import.meta.hot))
