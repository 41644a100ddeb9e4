<script setup lang="ts">
/** A few curves over one value, limits dashed, and where the machine stands. */
import VueApexCharts from 'vue3-apexcharts'
import type { ApexOptions } from 'apexcharts'
import { formatNumber } from '@oar-bench/core/units/text'

const props = defineProps<{
  series: readonly { name: string; limit: boolean; data: [number, number][] }[]
  xLabel: string
  yLabel: string
  /** Where the machine stands on the horizontal axis. */
  now: number
  dark: boolean
  /** Named points at which it works. */
  points?: readonly { label: string; x: number; y: number }[]
}>()
const options = computed<ApexOptions>(() => {
  const { soft, grid, theme, chart } = chartBase(props.dark)
  const palette = props.dark
    ? ['#6ac6cd', '#f0b35c', '#86cf9c', '#ff9d93', '#c3b5f2']
    : ['#0e5f6c', '#8a5200', '#2c6a3f', '#a8201a', '#5b4a9c']
  const labels = {
    style: { colors: soft, fontSize: '12px' },
    formatter: (v: string | number) => formatNumber(Number(v), 3),
  }
  const title = (text: string) => ({ text, style: { color: soft, fontSize: '12px', fontWeight: 400 } })
  return {
    chart,
    theme,
    stroke: {
      width: props.series.map((s) => (s.limit ? 1.3 : 2)),
      dashArray: props.series.map((s) => (s.limit ? 6 : 0)),
      curve: 'straight',
    },
    colors: props.series.map((s, i) => palette[i % palette.length]),
    markers: { size: 0 },
    legend: {
      show: true,
      position: 'top',
      horizontalAlign: 'left',
      labels: { colors: soft },
      fontSize: '12px',
    },
    tooltip: { enabled: true, x: { formatter: (v: number) => formatNumber(v, 4) } },
    grid: { borderColor: grid, padding: { left: 4, right: 12 } },
    annotations: {
      xaxis: [
        {
          x: props.now,
          borderColor: palette[0],
          strokeDashArray: 2,
          label: { text: 'now', style: { color: '#fff', background: palette[0] }, orientation: 'horizontal' },
        },
      ],
      points: (props.points ?? []).map(({ label, x, y }) => ({
        x,
        y,
        marker: { size: 4, fillColor: palette[1], strokeColor: palette[1] },
        label: {
          text: label,
          ...(x > 0.7 * farthest.value
            ? { offsetX: -8, textAnchor: 'end' }
            : { offsetX: 8, textAnchor: 'start' }),
          offsetY: 0,
          borderWidth: 0,
          style: { color: palette[1], background: 'transparent', fontSize: '12px' },
        },
      })),
    },
    xaxis: { type: 'numeric', labels, title: title(props.xLabel), tickAmount: 8, axisTicks: { show: false } },
    yaxis: {
      min: lowest.value,
      labels,
      title: title(props.yLabel),
      tickAmount: 4,
      forceNiceScale: true,
    },
  }
})
/** With points the scale begins at zero, so that those below the curves are seen. */
const lowest = computed(() => {
  const values = props.series.flatMap((s) => s.data.map(([, y]) => y))
  return props.points?.length && Math.min(...values, ...props.points.map((p) => p.y)) >= 0 ? 0 : undefined
})
/** Where the range ends; the label of a point near it stands on its left. */
const farthest = computed(() => Math.max(...props.series.flatMap((s) => s.data.map(([x]) => x))))
const shown = computed(() => props.series.map(({ name, data }) => ({ name, data })))
</script>

<template>
  <VueApexCharts type="line" height="230" :options="options" :series="shown" />
</template>
