<script setup lang="ts">
/** The shapes of a symbol in modules. Text stays upright however the symbol is turned. */
import type { Shape, SymbolDrawing } from '@oar-bench/core/catalogue/symbol'

const props = withDefaults(defineProps<{ drawing: SymbolDrawing; rotation?: number; mirrored?: boolean }>(), {
  rotation: 0,
  mirrored: false,
})
const transform = computed(() => `rotate(${90 * props.rotation})${props.mirrored ? ' scale(-1 1)' : ''}`)
const upright = (at: readonly [number, number]) =>
  `translate(${at[0]} ${at[1]})${props.mirrored ? ' scale(-1 1)' : ''} rotate(${-90 * props.rotation})`
const points = (shape: { points: readonly (readonly [number, number])[] }) =>
  shape.points.map((p) => p.join()).join(' ')
function arc(shape: Extract<Shape, { shape: 'arc' }>): string {
  const at = (degrees: number) => {
    const a = (degrees * Math.PI) / 180
    return `${shape.at[0] + shape.r * Math.cos(a)} ${shape.at[1] + shape.r * Math.sin(a)}`
  }
  const large = Math.abs(shape.to - shape.from) > 180 ? 1 : 0
  return `M${at(shape.from)}A${shape.r} ${shape.r} 0 ${large} ${shape.to > shape.from ? 1 : 0} ${at(shape.to)}`
}
const classes = (shape: { dash?: string; fill?: string }) => [
  shape.dash && `dash-${shape.dash}`,
  shape.fill && `fill-shape-${shape.fill}`,
]
</script>

<template>
  <g :transform="transform" class="symbol">
    <template v-for="(s, i) in drawing.shapes" :key="i">
      <polyline v-if="s.shape === 'line'" :points="points(s)" :data-part="s.part" :class="classes(s)" />
      <polygon
        v-else-if="s.shape === 'polygon'"
        :points="points(s)"
        :data-part="s.part"
        :class="classes(s)"
      />
      <circle
        v-else-if="s.shape === 'circle'"
        :cx="s.at[0]"
        :cy="s.at[1]"
        :r="s.r"
        :data-part="s.part"
        :class="classes(s)"
      />
      <path v-else-if="s.shape === 'arc'" :d="arc(s)" :data-part="s.part" :class="classes(s)" />
      <rect
        v-else-if="s.shape === 'oil'"
        :x="s.at[0]"
        :y="s.at[1]"
        :width="s.size[0]"
        :height="s.size[1]"
        class="oil"
        :data-oil-port="s.port"
      />
      <text
        v-else-if="s.shape === 'text'"
        :transform="upright(s.at)"
        :font-size="s.size"
        :data-part="s.part"
        class="symbol-text"
      >
        {{ s.text }}
      </text>
    </template>
  </g>
</template>

<style>
.symbol {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.12;
  stroke-linejoin: round;
  stroke-linecap: butt;
}
.symbol .fill-shape-ink {
  fill: var(--ink);
}
.symbol .fill-shape-paper {
  fill: var(--paper);
}
.symbol .dash-pilot {
  stroke-dasharray: 0.5 0.3;
}
.symbol .dash-chain {
  stroke-dasharray: 1.4 0.3 0.2 0.3;
}
.symbol .oil {
  stroke: none;
  fill: transparent;
}
.symbol-text {
  fill: var(--ink);
  stroke: none;
  text-anchor: middle;
  dominant-baseline: central;
  font-family: var(--font-lettering);
}
</style>
