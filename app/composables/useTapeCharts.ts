/** The charts of the tape: which are shown, with which signals, and their series. */
import { computed, reactive, ref, type Ref } from 'vue'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { shownUnit, type UnitSystem } from '@oar-bench/core/units/quantities'
import type { ShownRun } from '../stores/simulationRuns'
import {
  chartQuantities,
  firstSignals,
  MOST_TRACES,
  thinned,
  traceColours,
  type ChartQuantity,
} from '../utils/traces'

export interface ChartSeries {
  name: string
  data: [number, number][]
  colour: string
  dashed: boolean
}

/**
 * @param shown the run of the charts @param overlay a run drawn over it, dashed
 * @param system in which values are written @param dark whether the paper is dark
 */
export function useTapeCharts(
  shown: Readonly<Ref<ShownRun | undefined>>,
  overlay: Readonly<Ref<ShownRun | undefined>>,
  system: Readonly<Ref<UnitSystem>>,
  dark: Readonly<Ref<boolean>>,
) {
  const wanted = ref<ChartQuantity[]>(['length', 'rotationalSpeed', 'pressure'])
  const chosen = reactive<Partial<Record<ChartQuantity, string[]>>>({})
  const result = computed(() => shown.value?.result)
  /** Charts that the shown run has something for. */
  const available = computed(() => {
    const of = result.value
    return of ? chartQuantities.filter((quantity) => firstSignals(of, quantity).length > 0) : []
  })
  const visible = computed(() => {
    const list = available.value.filter((quantity) => wanted.value.includes(quantity))
    return list.length ? list : available.value.slice(0, 1)
  })
  /** Ids of the signals in a chart: those that were chosen, else those that move most. */
  function signalsOf(quantity: ChartQuantity, of: RunResult): string[] {
    const present = new Set(of.signals.map((s) => s.id))
    const own = chosen[quantity]?.filter((id) => present.has(id))
    return own?.length ? own : firstSignals(of, quantity)
  }
  function toggleChart(quantity: ChartQuantity): void {
    const list = visible.value
    const next = list.includes(quantity) ? list.filter((c) => c !== quantity) : [...list, quantity]
    if (next.length) wanted.value = next
  }
  function toggleSignal(quantity: ChartQuantity, id: string): void {
    const now = signalsOf(quantity, result.value!)
    const next = now.includes(id) ? now.filter((n) => n !== id) : [...now, id].slice(-MOST_TRACES)
    if (next.length) chosen[quantity] = next
  }
  function labelOf(of: RunResult, index: number): string {
    const signal = of.signals[index]
    if (signal.node !== undefined) return of.lines[signal.node]
    const id = signal.component ?? signal.pipe
    const component = shown.value?.sheet.components.find((c) => c.id === id)
    return `${component?.designation ?? id ?? ''} ${signal.label}`
  }

  const panels = computed(() => {
    const of = result.value
    if (!of) return []
    const colours = traceColours(dark.value)
    const over = overlay.value
    return visible.value.map((quantity) => {
      const unit = shownUnit(quantity, system.value)
      const traces = signalsOf(quantity, of).map((id, k) => {
        const index = of.signals.findIndex((s) => s.id === id)
        return { id, index, label: labelOf(of, index), colour: colours[k % colours.length] }
      })
      const series: ChartSeries[] = traces.map(({ label, index, colour }) => ({
        name: label,
        data: thinned(of, index, unit),
        colour,
        dashed: false,
      }))
      for (const { id, label, colour } of over ? traces : []) {
        const index = over!.result.signals.findIndex((s) => s.id === id)
        if (index < 0) continue
        const data = thinned(over!.result, index, unit)
        series.push({ name: `${label}, ${over!.name}`, data, colour, dashed: true })
      }
      return { quantity, unit: unit.symbol, traces, series }
    })
  })
  return { available, shown: visible, panels, signalsOf, toggleChart, toggleSignal, labelOf }
}
export type TapeCharts = ReturnType<typeof useTapeCharts>
