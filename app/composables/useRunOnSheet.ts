/** Shows the run on the sheet at the time that is looked at. */
import { computed, onMounted, watch, type Ref } from 'vue'
import { valuesAt } from '@oar-bench/core/simulate/playback'
import { asRead } from '@oar-bench/core/units/quantities'
import { useLiveRun } from '../stores/liveRun'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSimulationRuns } from '../stores/simulationRuns'
import { rampColours } from '../utils/ramp'
import type { DrawnComponent, DrawnPipe } from './useDrawnSheet'
import { playbackPainter, type PlaybackPainter } from '../utils/playbackPainter'
import { useTheme } from './useTheme'
import { useUnits } from './useUnits'

interface RunOnSheet {
  /** The sheet on the page, and two groups on it that belong to the run. */
  readonly places: Readonly<Record<'svg' | 'oil' | 'arrows', Readonly<Ref<SVGElement | null>>>>
  readonly components: Readonly<Ref<readonly DrawnComponent[]>>
  readonly pipes: Readonly<Ref<readonly DrawnPipe[]>>
  readonly active: () => boolean
}

/** @returns the run that is shown on the sheet; none while it is out of date */
export function useRunOnSheet({ places: { svg, oil, arrows }, components, pipes, active }: RunOnSheet) {
  const sheetDocument = useSheetDocument()
  const runs = useSimulationRuns()
  const { show, system } = useUnits()
  const { dark } = useTheme()
  const live = useLiveRun()
  const shown = computed(() => (active() && !runs.outdated ? runs.shown : undefined))
  const isShown = computed(() => !!shown.value)
  /** What the sheet is painted by. A live run grows all the time, and its signals stay: painted by what it began with. */
  const painted = computed(() => (live.open ? (isShown.value ? live.base : undefined) : shown.value?.result))

  let painter: PlaybackPainter | undefined
  function repaint(): void {
    if (!svg.value || !oil.value || !arrows.value) return
    painter?.clear()
    const result = painted.value
    painter =
      result &&
      playbackPainter(
        { svg: svg.value, oil: oil.value, arrows: arrows.value },
        { sheet: sheetDocument.sheet, components: components.value, pipes: pipes.value },
        result,
        {
          colours: rampColours(dark.value),
          full: runs.pressureRange,
          show: (si, signal) => {
            const { quantity } = result.signals[signal]
            return show(asRead(si, quantity), quantity, 3)
          },
          value: (si, quantity, digits) => show(asRead(si, quantity), quantity, digits),
        },
      )
    paintNow()
  }
  /** The frame of a live run that goes on; else the instant that is looked at. */
  function paintNow(): void {
    const result = shown.value?.result
    if (!painter || !result) return
    const { frame } = live
    if (live.open && frame && (live.playing || runs.time >= result.duration - 1e-9 || runs.time >= frame.t))
      painter.paintValues(frame.values)
    else painter.paintValues(valuesAt(result, runs.time, new Float64Array(result.columns.length)))
  }
  onMounted(repaint)
  watch([painted, () => sheetDocument.sheet, dark, () => runs.pressureRange, system], repaint, {
    flush: 'post',
  })
  watch([() => runs.time, () => live.frame], paintNow, { flush: 'sync' })
  return shown
}
