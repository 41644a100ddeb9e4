<script setup lang="ts">
/** The curves of a card, where people look rather than read. */
import { curvesOf, pointsOf } from '@oar-bench/core/size/candidates'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode }>()
const { dark } = useTheme()
const ownSeries = useOwnSeries()
const { system, unit, number } = useUnits()
const charts = computed(() =>
  props.node.card.charts.map((chart, i) => {
    const x = props.node.card.variables[chart.x]
    const curves = curvesOf(props.node, i, ownSeries.inForce)
    const { quantity } = props.node.card.variables[chart.lines[0].variable]
    return {
      title: chart.title,
      xLabel: `${x.label}${unit(x.quantity) && `, ${unit(x.quantity)}`}`,
      yLabel: unit(quantity),
      points: pointsOf(props.node, i).map(({ label, x: px, y }) => ({
        label,
        x: Number(number(px, x.quantity)),
        y: Number(number(y, quantity)),
      })),
      now: Number(number(props.node.values[chart.x], x.quantity)),
      series: curves.map((c) => ({
        name: c.label,
        limit: c.limit,
        data: c.points.map(
          ([a, b]) => [Number(number(a, x.quantity)), Number(number(b, c.quantity))] as [number, number],
        ),
      })),
      key: `${system.value} ${i}`,
    }
  }),
)
</script>

<template>
  <figure v-for="chart in charts" :key="chart.key" class="mt-4">
    <figcaption class="heading">{{ chart.title }}</figcaption>
    <LineChart
      v-if="chart.series.length"
      :series="chart.series"
      :x-label="chart.xLabel"
      :y-label="chart.yLabel"
      :now="chart.now"
      :points="chart.points"
      :dark="dark"
    />
    <p v-else class="text-[13px] text-soft">Drawn when the values of this card are known.</p>
  </figure>
</template>
