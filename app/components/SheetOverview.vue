<script setup lang="ts">
/** The whole sheet in small, with what of it is to be seen; a press looks there. */
import type { Rect, XY } from '@oar-bench/core/sheet/geometry'
import type { DrawnComponent } from '~/composables/useDrawnSheet'

const props = defineProps<{
  content: () => Rect
  components: readonly DrawnComponent[]
  visible: Rect
}>()
const emit = defineEmits<{ centre: [at: XY] }>()
const svg = useTemplateRef<SVGSVGElement>('svg')
/** Around the drawing, a little room left. */
const box = computed(() => {
  const { x, y, w, h } = props.content()
  return { x: x - 2, y: y - 2, w: w + 4, h: h + 4 }
})
function centre(event: PointerEvent) {
  if (!(event.buttons & 1)) return
  const matrix = svg.value?.getScreenCTM()
  if (!matrix) return
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  emit('centre', [x, y])
}
</script>

<template>
  <svg
    ref="svg"
    class="absolute right-3 bottom-3 h-36 w-52 cursor-crosshair touch-none rounded border border-rule bg-pane"
    :viewBox="`${box.x} ${box.y} ${box.w} ${box.h}`"
    role="img"
    aria-label="Overview of the sheet"
    data-testid="overview"
    @pointerdown.stop="centre"
    @pointermove="centre"
  >
    <rect
      v-for="d in components"
      :key="d.component.id"
      v-bind="d.frame ?? d.rect"
      :width="(d.frame ?? d.rect).w"
      :height="(d.frame ?? d.rect).h"
      :class="d.frame ? 'overview-frame' : 'overview-part'"
    />
    <rect
      :x="visible.x"
      :y="visible.y"
      :width="visible.w"
      :height="visible.h"
      class="overview-visible"
      vector-effect="non-scaling-stroke"
    />
  </svg>
</template>

<style scoped>
.overview-part {
  fill: var(--soft);
}
.overview-frame {
  fill: none;
  stroke: var(--soft);
  stroke-width: 0.4;
}
.overview-visible {
  fill: var(--accent);
  fill-opacity: 0.12;
  stroke: var(--accent);
  stroke-width: 1.5px;
}
</style>
