<script setup lang="ts">
/** A component on the sheet: its symbol, what is written beside it, and its ports. */
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Rect, XY } from '@oar-bench/core/sheet/geometry'
import { LETTERING_LINE } from '@oar-bench/core/sheet/lettering'
import type { DrawnComponent } from '~/composables/useDrawnSheet'
import { nameOf } from '@oar-bench/core/sheet/schema'

defineProps<{
  drawn: DrawnComponent
  selected?: boolean
  /** The worst that the checks find at it. */
  severity?: Finding['severity']
  finding?: string
  /** Whether pipes can start and end at its ports. */
  ports?: boolean
  settings?: boolean
}>()
/** Corners of a rectangle, for a line round it. */
const around = ({ x, y, w, h }: Rect) =>
  (
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ] as XY[]
  )
    .map((p) => p.join())
    .join(' ')
</script>

<template>
  <g
    :data-item="`component:${drawn.component.id}`"
    :data-component="drawn.component.id"
    :data-kind="drawn.component.kind"
    class="component"
    :class="[severity && `marked-${severity}`, { selected }]"
    role="button"
    tabindex="0"
    :aria-label="drawn.label"
  >
    <title>{{ finding ?? drawn.label }}</title>
    <polygon v-if="drawn.frame" :points="around(drawn.frame)" class="component-reach frame-reach" />
    <rect
      v-else
      :x="drawn.rect.x - 0.5"
      :y="drawn.rect.y - 0.5"
      :width="drawn.rect.w + 1"
      :height="drawn.rect.h + 1"
      rx="0.3"
      class="component-reach"
    />
    <SymbolShapes
      :drawing="drawn.symbol"
      :at="[drawn.component.x, drawn.component.y]"
      :rotation="drawn.component.rotation"
      :mirrored="drawn.component.mirrored"
    />
    <text
      v-if="drawn.caption"
      :x="drawn.caption.x"
      :y="drawn.caption.y"
      :text-anchor="drawn.caption.anchor"
      class="caption"
    >
      <tspan class="designation">{{ drawn.caption.designation }}</tspan>
      <tspan v-if="drawn.symbol.reading" dx="0.8" class="reading" data-reading="" />
      <template v-if="settings">
        <tspan
          v-for="text in drawn.caption.lines"
          :key="text"
          class="value"
          :x="drawn.caption.x"
          :dy="LETTERING_LINE"
        >
          {{ text }}
        </tspan>
      </template>
    </text>
    <template v-if="ports">
      <circle
        v-for="port in drawn.ports"
        :key="port.port"
        :cx="port.at[0]"
        :cy="port.at[1]"
        r="0.8"
        class="port"
        :data-item="`port:${drawn.component.id}:${port.port}`"
      >
        <title>{{ nameOf(drawn.component) }} port {{ port.port }}</title>
      </circle>
    </template>
  </g>
</template>
