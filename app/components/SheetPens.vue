<script setup lang="ts">
/** Strokes of pens on the sheet, with their numbers. */
import { BADGE, penStrokes } from '@oar-bench/core/sheet/pens'

const sheetDocument = useSheetDocument()
const pens = computed(() => penStrokes(sheetDocument.sheet))
const path = (points: readonly (readonly [number, number])[]) =>
  `M${points.map((p) => p.join(' ')).join('L')}`
</script>

<template>
  <g v-if="pens.length" class="pens" pointer-events="none" data-testid="pens">
    <g v-for="p in pens" :key="p.pen.id" :data-pen="p.number">
      <path
        v-for="l in p.lines"
        :key="l.pipe"
        :d="path(l.points)"
        :stroke="p.ink"
        :stroke-width="l.width"
        fill="none"
        stroke-linejoin="round"
        stroke-linecap="round"
        stroke-opacity="0.6"
      />
      <template v-if="p.badge">
        <circle
          :cx="p.badge[0]"
          :cy="p.badge[1]"
          :r="BADGE"
          :stroke="p.ink"
          class="fill-paper"
          stroke-width="0.15"
        />
        <text :x="p.badge[0]" :y="p.badge[1] + 0.42" text-anchor="middle" font-size="1.2" class="fill-ink">
          {{ p.number }}
        </text>
      </template>
    </g>
  </g>
</template>
