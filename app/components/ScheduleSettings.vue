<script setup lang="ts">
/** Name, duration, accuracy and start of a schedule. */
import type { Schedule } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ schedule: Schedule }>()
const emit = defineEmits<{ change: [change: Partial<Schedule>] }>()
const change = (next: Partial<Schedule>) => emit('change', next)
function setName(event: Event) {
  const name = typedText(event, props.schedule.name)
  if (name !== undefined) change({ name })
}
/** Relative tolerances that are offered, and the one that is set. */
const tolerances = (own: number) => [...new Set([1e-4, 1e-5, 1e-6, 1e-7, own])].sort((a, b) => b - a)
</script>

<template>
  <div>
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Name</span>
      <input class="field" :value="schedule.name" maxlength="100" @change="setName" />
    </label>
    <div class="mb-2 grid grid-cols-2 gap-2">
      <QuantityField
        :model-value="schedule.duration"
        quantity="time"
        label="Duration"
        @update:model-value="change({ duration: $event })"
      />
      <QuantityField
        :model-value="schedule.every"
        quantity="time"
        label="Sample interval"
        @update:model-value="change({ every: $event })"
      />
    </div>
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Relative tolerance</span>
      <select
        class="field"
        :value="schedule.tolerance"
        @change="change({ tolerance: Number(($event.target as HTMLSelectElement).value) })"
      >
        <option v-for="t in tolerances(schedule.tolerance)" :key="t" :value="t">
          {{ t }}
        </option>
      </select>
    </label>
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Start of the run</span>
      <select
        class="field"
        :value="schedule.start"
        @change="change({ start: ($event.target as HTMLSelectElement).value as Schedule['start'] })"
      >
        <option value="initialValues">initial values of the sheet</option>
        <option value="steadyState">steady state with its first commands</option>
      </select>
    </label>
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">At burst pressure (four times the rating)</span>
      <select
        class="field"
        :value="schedule.onBurst"
        @change="change({ onBurst: ($event.target as HTMLSelectElement).value as Schedule['onBurst'] })"
      >
        <option value="report">report it</option>
        <option value="stop">stop the run there</option>
        <option value="open">let the line open</option>
      </select>
    </label>
    <label v-if="schedule.note || schedule.actions.length" class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Note</span>
      <input
        class="field"
        :value="schedule.note"
        maxlength="400"
        @change="change({ note: ($event.target as HTMLInputElement).value.trim() })"
      />
    </label>
  </div>
</template>
