<script setup lang="ts">
/** A pipe on the sheet. */
import { DOT_RADIUS } from '@oar-bench/core/catalogue/symbol-elements'
import { locationText, type Finding } from '@oar-bench/core/sheet/finding'
import type { PipeEnd } from '@oar-bench/core/sheet/schema'
import type { DrawnPipe } from '~/composables/useDrawnSheet'

const props = defineProps<{
  drawn: DrawnPipe
  selected?: boolean
  /** The worst that the checks find at it. */
  severity?: Finding['severity']
  finding?: string
}>()
const label = computed(() => {
  const { name, lineType, from, to } = props.drawn.pipe
  const end = (e: PipeEnd) =>
    'junction' in e ? `junction ${e.junction}` : locationText({ component: e.component, port: e.port })
  return `${name ?? 'Pipe'}, ${lineType} line from ${end(from)} to ${end(to)}`
})
</script>

<template>
  <g
    :data-item="`pipe:${drawn.pipe.id}`"
    :data-pipe="drawn.pipe.id"
    class="pipe"
    :class="[`line-${drawn.pipe.lineType}`, severity && `marked-${severity}`, { selected }]"
    role="button"
    tabindex="0"
    :aria-label="label"
  >
    <polyline :points="drawn.path" class="pipe-reach" />
    <path v-if="drawn.pipe.lineType === 'hose'" :d="drawn.d" class="pipe-line" />
    <polyline v-else :points="drawn.path" class="pipe-line" />
    <polyline v-if="drawn.pipe.lineType === 'shaft'" :points="drawn.path" class="shaft-core" />
    <circle
      v-for="dot in drawn.dots"
      :key="dot.join()"
      :cx="dot[0]"
      :cy="dot[1]"
      :r="DOT_RADIUS"
      class="junction-dot"
    />
    <title>{{ finding ?? label }}</title>
  </g>
</template>
