<script setup lang="ts">
/** The commands of one input over time. */
import { Plus, Trash2, X } from 'lucide-vue-next'
import type { InputSpec } from '@oar-bench/core/catalogue/kind'
import type { Track } from '@oar-bench/core/sheet/schema'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{
  track: Track
  label: string
  /** The input; none where the component does not have it any more. */
  spec?: InputSpec
}>()
/** A track without points is removed. */
const emit = defineEmits<{ change: [track: Track | undefined] }>()
type Point = Track['points'][number]

const timeOf = (point: Point) => {
  const parsed = parseQuantity(point.at, 'time')
  return parsed.ok ? parsed.si : Infinity
}
const setPoints = (points: Point[]) => emit('change', points.length ? { ...props.track, points } : undefined)
function changePoint(k: number, next: Partial<Point>) {
  const points = props.track.points.map((p, i) => (i === k ? { ...p, ...next } : p))
  setPoints(points.sort((a, b) => timeOf(a) - timeOf(b)))
}
function addPoint() {
  const last = props.track.points[props.track.points.length - 1]
  const time = timeOf(last)
  setPoints([...props.track.points, { ...last, at: `${Number.isFinite(time) ? time + 1 : 1} s` }])
}
const removePoint = (k: number) => setPoints(props.track.points.filter((_, i) => i !== k))
/** The named position that a value is; none where it is another value. */
const positionOf = (value: string) => {
  const parsed = parseQuantity(value, props.spec!.quantity)
  return props.spec!.positions?.find((p) => parsed.ok && Math.abs(p.value - parsed.si) < 1e-9)?.value
}
</script>

<template>
  <section class="border-t border-rule py-2">
    <div class="mb-1 flex items-center">
      <h3 class="heading">
        {{ label }}
      </h3>
      <ToolButton class="ml-auto" label="Add a point" @click="addPoint()">
        <Plus :size="16" />
      </ToolButton>
      <ToolButton label="Remove the command" @click="emit('change', undefined)">
        <Trash2 :size="15" />
      </ToolButton>
    </div>
    <div v-for="(point, k) in track.points" :key="k" class="mb-1 flex items-start gap-1">
      <QuantityField
        class="w-20"
        hide-label
        :model-value="point.at"
        quantity="time"
        label="At"
        @update:model-value="changePoint(k, { at: $event })"
      />
      <select
        class="field !w-20"
        :value="point.shape"
        aria-label="Shape"
        @change="changePoint(k, { shape: ($event.target as HTMLSelectElement).value as Point['shape'] })"
      >
        <option value="step">step to</option>
        <option value="ramp">ramp to</option>
      </select>
      <template v-if="spec">
        <select
          v-if="spec.positions && positionOf(point.value) !== undefined"
          class="field !w-auto min-w-0 flex-1"
          :value="positionOf(point.value)"
          aria-label="Position"
          @change="changePoint(k, { value: ($event.target as HTMLSelectElement).value })"
        >
          <option v-for="p in spec.positions" :key="p.value" :value="p.value">
            {{ p.label }}
          </option>
        </select>
        <QuantityField
          v-else
          class="min-w-0 flex-1"
          hide-label
          :model-value="point.value"
          :quantity="spec.quantity"
          label="Value"
          @update:model-value="changePoint(k, { value: $event })"
        />
      </template>
      <ToolButton label="Delete this point" @click="removePoint(k)">
        <X :size="15" />
      </ToolButton>
    </div>
  </section>
</template>
