<script setup lang="ts">
/** One chart of the tape: signals of one quantity against time. */
import VueApexCharts from 'vue3-apexcharts'
import type { ApexOptions } from 'apexcharts'
import { formatNumber } from '@oar-bench/core/units/text'

export interface ChartSeries {
  name: string
  data: [number, number][]
  colour: string
  dashed: boolean
}
const props = defineProps<{
  series: ChartSeries[]
  duration: number
  height: number
  last: boolean
  dark: boolean
}>()
const emit = defineEmits<{ plot: [left: number, width: number] }>()

interface Context {
  w: { globals: { translateX: number; gridWidth: number } }
}
const measured = (context: Context) => emit('plot', context.w.globals.translateX, context.w.globals.gridWidth)
const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()

const options = computed<ApexOptions>(() => {
  const soft = props.dark ? '#a3b0b5' : '#56636b'
  return {
    chart: {
      type: 'line',
      animations: { enabled: false },
      toolbar: { show: false },
      zoom: { enabled: false },
      selection: { enabled: false },
      background: 'transparent',
      fontFamily: css('--font-sans') || 'inherit',
      parentHeightOffset: 0,
      events: { mounted: measured, updated: measured },
    },
    theme: { mode: props.dark ? 'dark' : 'light' },
    stroke: {
      width: props.series.map((s) => (s.dashed ? 1.3 : 1.8)),
      dashArray: props.series.map((s) => (s.dashed ? 5 : 0)),
      curve: 'straight',
    },
    colors: props.series.map((s) => s.colour),
    markers: { size: 0, hover: { size: 0 } },
    legend: { show: false },
    tooltip: { enabled: false },
    grid: {
      borderColor: props.dark ? '#37454c' : '#dcd8cc',
      padding: { left: 0, right: 12, top: -22, bottom: props.last ? -8 : -14 },
      xaxis: { lines: { show: true } },
    },
    xaxis: {
      type: 'numeric',
      min: 0,
      max: props.duration,
      tickAmount: 14,
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
      tickAmount: props.height > 110 ? 4 : 2,
      forceNiceScale: true,
      labels: {
        minWidth: 46,
        maxWidth: 46,
        style: { colors: soft, fontSize: '11px' },
        formatter: (v) => formatNumber(v, 3),
      },
    },
  }
})
const series = computed(() => props.series.map((s) => ({ name: s.name, data: s.data })))
</script>

<template>
  <VueApexCharts type="line" width="100%" :height="height" :options="options" :series="series" />
</template>
