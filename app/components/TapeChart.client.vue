<script setup lang="ts">
/** One chart of the tape: signals of one quantity against time. */
import VueApexCharts from 'vue3-apexcharts'
import type { ApexOptions } from 'apexcharts'
import type { ChartSeries } from '../composables/useTapeCharts'
import { formatNumber } from '@oar-bench/core/units/text'

const props = defineProps<{
  series: ChartSeries[]
  duration: number
  height: number
  last: boolean
  dark: boolean
  /** It grows all the time: the chart library draws the axes, and the curves are drawn over them, which takes a hundredth of the time. */
  growing?: boolean
}>()
const emit = defineEmits<{ plot: [left: number, width: number] }>()

interface Context {
  w: { globals: { translateX: number; translateY: number; gridWidth: number; gridHeight: number } }
}
const plot = reactive({ left: 0, top: 0, width: 0, height: 0 })
function measured({ w: { globals } }: Context) {
  Object.assign(plot, {
    left: globals.translateX,
    top: globals.translateY,
    width: globals.gridWidth,
    height: globals.gridHeight,
  })
  emit('plot', plot.left, plot.width)
}
/** A round scale that holds all values, from zero where they start near it. */
const scale = computed(() => {
  let [low, high] = [Infinity, -Infinity]
  for (const s of props.series)
    for (const [, v] of s.data) {
      if (v < low) low = v
      if (v > high) high = v
    }
  if (!(high >= low)) return { min: 0, max: 1, ticks: 1 }
  const span = Math.max(high - low, 1e-9, 1e-6 * Math.abs(high))
  if (low > -0.03 * span && low < 0.5 * high) low = 0
  if (high < 0.03 * span && high > 0.5 * low) high = 0
  const step = roundUp(
    (0.97 * (high - low || span)) / (props.height > 120 ? 4 : 2),
    [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10],
  )
  const min = Math.floor(low / step + 0.05) * step
  const max = Math.max(Math.ceil(high / step - 0.05) * step, min + step)
  return { min, max, ticks: Math.round((max - min) / step) }
})
/** As many ticks of time as make round steps. */
const timeTicks = computed(() => {
  const steps = [0.01, 0.02, 0.05, 0.1, 0.2, 0.25, 0.5, 1, 2, 5, 10, 20, 30, 60, 120, 300, 600]
  const whole = steps.filter((s) => Math.abs(props.duration / s - Math.round(props.duration / s)) < 1e-6)
  const step = whole.find((s) => props.duration / s <= 15)
  return step ? Math.round(props.duration / step) : 10
})

/** Of what the axes are made; a text, so that equal axes are not drawn again. */
const axes = computed(() =>
  JSON.stringify([scale.value, props.duration, timeTicks.value, props.height, props.last, props.dark]),
)
const lines = computed(() => (props.growing ? [] : props.series))
function optionsNow(): ApexOptions {
  const { soft, grid, theme, chart } = chartBase(props.dark)
  return {
    chart: { ...chart, events: { mounted: measured, updated: measured } },
    theme,
    stroke: {
      width: lines.value.map((s) => (s.dashed ? 1.3 : 1.8)),
      dashArray: lines.value.map((s) => (s.dashed ? 5 : 0)),
      curve: 'straight',
    },
    colors: lines.value.map((s) => s.colour),
    markers: { size: 0, hover: { size: 0 } },
    legend: { show: false },
    tooltip: { enabled: false },
    grid: {
      borderColor: grid,
      padding: { left: 0, right: 12, top: -22, bottom: props.last ? -6 : -10 },
      xaxis: { lines: { show: true } },
    },
    xaxis: {
      type: 'numeric',
      min: 0,
      max: props.duration,
      tickAmount: timeTicks.value,
      axisBorder: { show: false },
      axisTicks: { show: false },
      crosshairs: { show: false },
      labels: {
        show: props.last,
        offsetY: -4,
        style: { colors: soft, fontSize: '11px' },
        formatter: (v) => `${formatNumber(Number(v), 3)} s`,
      },
      tooltip: { enabled: false },
    },
    yaxis: {
      min: scale.value.min,
      max: scale.value.max,
      tickAmount: scale.value.ticks,
      labels: {
        minWidth: 46,
        maxWidth: 46,
        style: { colors: soft, fontSize: '11px' },
        formatter: (v) => formatNumber(v, 3),
      },
    },
  }
}
const options = shallowRef(optionsNow())
watch(
  [axes, () => lines.value.map((l) => `${l.colour} ${l.dashed}`).join()],
  () => (options.value = optionsNow()),
)
/** A chart that grows has no curves for the library; the same object, so that it draws nothing again. */
const NOTHING = [{ name: '', data: [[0, null] as unknown as [number, number]] }]
const series = computed(() =>
  props.growing ? NOTHING : lines.value.map((s) => ({ name: s.name, data: s.data })),
)
/** Curves over the axes of a chart that grows, in shares of the plot. */
const paths = computed(() => {
  if (!props.growing) return []
  const { min, max } = scale.value
  return props.series.map((s) => ({
    colour: s.colour,
    dashed: s.dashed,
    points: s.data.map(([t, v]) => `${t / props.duration},${1 - (v - min) / (max - min)}`).join(' '),
  }))
})
</script>

<template>
  <div class="relative">
    <VueApexCharts type="line" width="100%" :height="height" :options="options" :series="series" />
    <svg
      v-if="growing && plot.width"
      class="pointer-events-none absolute overflow-visible"
      :style="{ left: `${plot.left}px`, top: `${plot.top}px` }"
      :width="plot.width"
      :height="plot.height"
      viewBox="0 0 1 1"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <polyline
        v-for="(p, i) in paths"
        :key="i"
        :points="p.points"
        fill="none"
        :stroke="p.colour"
        stroke-width="1.6"
        :stroke-dasharray="p.dashed ? '5 4' : undefined"
        vector-effect="non-scaling-stroke"
      />
    </svg>
  </div>
</template>
