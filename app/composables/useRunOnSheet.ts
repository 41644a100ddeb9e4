/** Shows the run on the sheet at the time that is looked at. */
import { computed, onMounted, watch, type Ref } from 'vue'
import { asRead } from '@oar-bench/core/units/quantities'
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
  const shown = computed(() => (active() && !runs.outdated ? runs.shown : undefined))

  let painter: PlaybackPainter | undefined
  function repaint(): void {
    if (!svg.value || !oil.value || !arrows.value) return
    painter?.clear()
    const run = shown.value
    painter =
      run &&
      playbackPainter(
        { svg: svg.value, oil: oil.value, arrows: arrows.value },
        { sheet: sheetDocument.sheet, components: components.value, pipes: pipes.value },
        run.result,
        {
          colours: rampColours(dark.value),
          full: runs.pressureRange,
          show: (si, signal) => {
            const { quantity } = run.result.signals[signal]
            return show(asRead(si, quantity), quantity, 3)
          },
        },
      )
    painter?.paint(runs.time)
  }
  onMounted(repaint)
  watch([shown, () => sheetDocument.sheet, dark, () => runs.pressureRange, system], repaint, {
    flush: 'post',
  })
  watch(
    () => runs.time,
    (t) => painter?.paint(t),
  )
  return shown
}
