<script setup lang="ts">
/** A step sequence as a drawing, with its active steps in a run. */
import { drawSequence } from '@oar-bench/core/control/sequence-drawing'
import type { Sequence } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ sequence: Sequence; running?: boolean }>()
const sheetDocument = useSheetDocument()
const { value } = useControlState()
const drawing = computed(() => drawSequence(sheetDocument.sheet, props.sequence))
/** Pixels to a module. */
const SCALE = 10
const isActive = (step: string) => props.running && (value(`${props.sequence.id}.${step}`) ?? 0) > 0.5
</script>

<template>
  <svg
    class="sequence-drawing shrink-0"
    :viewBox="`${drawing.bounds.x} ${drawing.bounds.y} ${drawing.bounds.w} ${drawing.bounds.h}`"
    :width="drawing.bounds.w * SCALE"
    :height="drawing.bounds.h * SCALE"
    role="img"
    :aria-label="`Drawing of ${sequence.name || sequence.id}`"
    :data-testid="`sequence-${sequence.id}`"
  >
    <SymbolShapes :drawing="{ shapes: drawing.links, ports: {}, box: drawing.bounds }" />
    <g
      v-for="step in drawing.steps"
      :key="step.id"
      :class="{ active: isActive(step.id) }"
      :data-testid="`step-${step.id}`"
      :data-active="isActive(step.id)"
    >
      <SymbolShapes :drawing="{ shapes: step.shapes, ports: {}, box: step.box }" />
      <text v-for="(l, i) in step.lines" :key="i" :x="l.at[0]" :y="l.at[1]" font-size="1.4">
        {{ l.text }}
      </text>
    </g>
    <g v-for="t in drawing.transitions" :key="t.id">
      <SymbolShapes :drawing="{ shapes: t.shapes, ports: {}, box: t.box }" />
      <text :x="t.textAt[0]" :y="t.textAt[1]" font-size="1.4">{{ t.text }}</text>
    </g>
  </svg>
</template>

<style>
.sequence-drawing {
  font-family: var(--font-lettering);
}
.sequence-drawing text {
  fill: var(--ink);
}
.sequence-drawing .active .symbol {
  stroke: var(--accent);
  stroke-width: 0.36;
}
.sequence-drawing .active text {
  fill: var(--accent);
  font-weight: 500;
}
</style>
