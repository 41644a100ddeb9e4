<script setup lang="ts">
/** The cycle over time: strokes with their loads, flow and power. Corners are dragged, or moved by the arrow keys. */
import { alongAxis, cycleAxis, secondsPerWidth } from '@oar-bench/core/size/brief/edit'
import { familyOf, movementOf } from '@oar-bench/core/size/brief/brief'
import type { PlacedStep } from '@oar-bench/core/size/brief/cycle'
import type { Quantity } from '@oar-bench/core/units/quantities'
import { useElementSize } from '@vueuse/core'
import { dragCorner, nudgeCorner, startCornerDrag, type CornerDrag } from '../gestures/cycleCorner'

const emit = defineEmits<{ motion: [id: string] }>()
const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const { show } = useUnits()

const LEFT = 96
const RIGHT = 118
const STROKE_ROW = 46
const DEMAND_ROW = 64
const GAP = 10
const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)
const width = computed(() => Math.max(420, measured.value || 900))
const inner = computed(() => width.value - LEFT - RIGHT)

const cycle = computed(() => sizes.sizing.cycle)
const axis = computed(() => cycleAxis(sheetDocument.brief, cycle.value.duration))
const xAt = (time: number) => LEFT + alongAxis(axis.value, time) * inner.value
const points = (list: readonly (readonly [number, number])[]) =>
  list.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')

const rows = computed(() =>
  cycle.value.tracks.map((track, i) => {
    const { travel = 0 } = movementOf(track.motion)
    const top = 8 + i * (STROKE_ROW + GAP)
    const bottom = top + STROKE_ROW
    const yAt = (place: number) => bottom - (travel > 0 ? place / travel : 0) * STROKE_ROW
    const most = Math.max(...track.loads.map(([, load]) => Math.abs(load)), 0)
    const family = familyOf(track.motion)
    return {
      motion: track.motion,
      family,
      travel,
      top,
      bottom,
      yAt,
      most,
      line: points(track.positions.map(([t, place]) => [xAt(t), yAt(place)])),
      load:
        most > 0
          ? cycle.value.steps
              .filter((s) => s.motion?.id === track.motion.id && s.end > s.start)
              .map((s) =>
                points(
                  track.loads
                    .filter(([t]) => t >= s.start - 1e-9 && t <= s.end + 1e-9)
                    .map(([t, load]) => [xAt(t), bottom - (Math.abs(load) / most) * STROKE_ROW * 0.9]),
                ),
              )
          : [],
    }
  }),
)
const demandTop = computed(() => 8 + rows.value.length * (STROKE_ROW + GAP))
const demands = computed(() =>
  (
    [
      ['Flow', 'flow', 'flow'],
      ['Power', 'power', 'power'],
    ] as const
  ).map(([label, of, quantity], i) => {
    const { peak, mean, rms } = cycle.value[of]
    const top = demandTop.value + i * (DEMAND_ROW + GAP)
    const bottom = top + DEMAND_ROW
    const yAt = (value: number) => bottom - (peak > 0 ? value / peak : 0) * DEMAND_ROW
    const area = cycle.value.samples.map((s) => [xAt(s.time), yAt(s[of])] as const)
    return {
      label,
      quantity: quantity as Quantity,
      top,
      bottom,
      area: peak > 0 ? points([[LEFT, bottom], ...area, [LEFT + inner.value, bottom]]) : '',
      levels: [
        { label: 'peak', value: peak, y: yAt(peak) },
        { label: 'r.m.s.', value: rms, y: yAt(rms) },
        { label: 'mean', value: mean, y: yAt(mean) },
      ],
    }
  }),
)
const height = computed(() => demandTop.value + 2 * (DEMAND_ROW + GAP) + 18)
const breaks = computed(() => axis.value.filter((p) => p.shortened))
const handles = computed(() =>
  cycle.value.steps.flatMap((placed) => {
    const row = rows.value.find((r) => r.motion.id === placed.motion?.id)
    if (!row || placed.end <= placed.start) return []
    return [{ placed, row, x: xAt(placed.end), y: row.yAt(placed.step.way === 'out' ? row.travel : 0) }]
  }),
)

/** The corner that is dragged. */
const drag = shallowRef<CornerDrag>()
function down(event: PointerEvent, placed: PlacedStep) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  emit('motion', placed.motion!.id)
  // a little before the corner, where the scale is that of the movement
  const perPixel = secondsPerWidth(axis.value, placed.end - 1e-6) / inner.value
  drag.value = startCornerDrag(placed, event.clientX, event.clientY, perPixel)
}
function move(event: PointerEvent) {
  if (!drag.value) return
  const to = { x: event.clientX, y: event.clientY }
  sheetDocument.previewBrief(dragCorner(sheetDocument.brief, drag.value, to, STROKE_ROW))
}
function release() {
  if (!drag.value) return
  drag.value = undefined
  sheetDocument.commitBrief()
}
function key(event: KeyboardEvent, placed: PlacedStep) {
  const moved = nudgeCorner(sheetDocument.brief, placed, event.key, event.shiftKey)
  if (!moved) return
  event.preventDefault()
  sheetDocument.setBrief(moved)
}
const loadQuantity = (family: string): Quantity => (family === 'rotary' ? 'torque' : 'force')
const travelQuantity = (family: string): Quantity => (family === 'rotary' ? 'angle' : 'length')
</script>

<template>
  <figure ref="box" class="select-none" data-testid="cycle-diagram">
    <svg :width="width" :height="height" class="block" role="group" aria-label="Cycle diagram">
      <g v-for="row in rows" :key="row.motion.id">
        <text :x="0" :y="row.top + 14" class="fill-ink font-lettering text-[14px]">
          {{ row.motion.name }}
        </text>
        <text v-if="row.family !== 'flow'" :x="0" :y="row.top + 30" class="fill-soft text-[12px]">
          {{ show(row.travel, travelQuantity(row.family), 3) }}
        </text>
        <line :x1="LEFT" :x2="LEFT + inner" :y1="row.bottom" :y2="row.bottom" class="stroke-rule" />
        <polyline
          v-for="(load, i) in row.load"
          :key="i"
          :points="load"
          class="fill-none stroke-caution"
          stroke-width="1.3"
          stroke-dasharray="4 3"
        />
        <polyline :points="row.line" class="fill-none stroke-ink" stroke-width="1.8" />
        <text
          v-if="row.most > 0 && row.family !== 'flow'"
          :x="LEFT + inner + 8"
          :y="row.top + 12"
          class="fill-caution text-[12px]"
        >
          {{ show(row.most, loadQuantity(row.family), 3) }}
        </text>
      </g>
      <g v-for="d in demands" :key="d.label">
        <text :x="0" :y="d.top + 14" class="fill-ink font-lettering text-[14px]">{{ d.label }}</text>
        <line :x1="LEFT" :x2="LEFT + inner" :y1="d.bottom" :y2="d.bottom" class="stroke-rule" />
        <template v-if="d.area">
          <polygon :points="d.area" class="fill-accent-paper stroke-accent" stroke-width="1.2" />
          <template v-for="(level, i) in d.levels" :key="level.label">
            <line
              :x1="LEFT"
              :x2="LEFT + inner"
              :y1="level.y"
              :y2="level.y"
              class="stroke-soft"
              :stroke-dasharray="['none', '6 3', '2 3'][i]"
              stroke-width="0.8"
            />
            <text :x="LEFT + inner + 8" :y="d.top + 10 + i * 16" class="fill-soft text-[12px]">
              {{ level.label }} {{ show(level.value, d.quantity, 3) }}
            </text>
          </template>
        </template>
        <text v-else :x="LEFT + 8" :y="d.top + 34" class="fill-soft text-[13px]">
          known when the motions are sized
        </text>
      </g>
      <g v-for="p in breaks" :key="p.from" class="fill-soft text-[11px]">
        <rect
          :x="xAt(p.from)"
          y="0"
          :width="xAt(p.to) - xAt(p.from)"
          :height="height - 18"
          class="fill-canvas/60"
        />
        <text :x="(xAt(p.from) + xAt(p.to)) / 2" :y="height - 5" text-anchor="middle">
          ≈ {{ show(p.to - p.from, 'time', 3) }} ≈
        </text>
      </g>
      <text :x="LEFT" :y="height - 5" class="fill-soft text-[11px]">0 s</text>
      <text :x="LEFT + inner" :y="height - 5" text-anchor="end" class="fill-soft text-[11px]">
        {{ breaks.at(-1)?.to === cycle.duration ? '' : show(cycle.duration, 'time', 3) }}
      </text>
      <circle
        v-for="h in handles"
        :key="h.placed.step.id"
        :cx="h.x"
        :cy="h.y"
        r="5"
        class="cursor-move fill-paper stroke-accent touch-none hover:fill-accent focus-visible:fill-accent"
        stroke-width="1.8"
        tabindex="0"
        role="slider"
        :aria-label="`End of ${h.row.motion.name}, ${h.placed.step.way}: time by left and right, travel by up and down`"
        :aria-valuenow="Number((h.placed.end - h.placed.start).toPrecision(3))"
        :aria-valuetext="show(h.placed.end - h.placed.start, 'time', 3)"
        :data-testid="`corner-${h.placed.step.id}`"
        @pointerdown="down($event, h.placed)"
        @pointermove="move"
        @pointerup="release"
        @pointercancel="release"
        @keydown="key($event, h.placed)"
      />
    </svg>
    <figcaption class="mt-1 flex flex-wrap gap-x-4 text-xs text-soft">
      <span><span class="mr-1 inline-block w-5 border-t-2 border-ink align-middle" />where it stands</span>
      <span
        ><span class="mr-1 inline-block w-5 border-t-2 border-dashed border-caution align-middle" />load it
        meets, of its greatest</span
      >
      <span>Drag a corner, or move it by the arrow keys. Long pauses are drawn shortened.</span>
    </figcaption>
  </figure>
</template>
