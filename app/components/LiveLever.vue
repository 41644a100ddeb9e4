<script setup lang="ts">
/** A lever of the console: positions that are held, or a stick that falls back to its middle. */
import { Pin } from 'lucide-vue-next'
import type { Operable } from '@oar-bench/core/simulate/operable'

const props = defineProps<{ operable: Operable; value: number | undefined }>()
const { value: asked, kept, press, letGo, release, holding } = useHold(() => props.operable)
const positions = computed(() =>
  props.operable.spec.positions?.filter((p) => p.value !== props.operable.rest),
)
const percent = computed(() => Math.round(100 * (props.value ?? 0)))
const push = (event: Event) => press(Number((event.target as HTMLInputElement).value), kept.value)
const keep = (event: Event) =>
  (event.target as HTMLInputElement).checked ? press(asked.value, true) : release()
</script>

<template>
  <div class="flex items-center gap-1.5">
    <template v-if="positions">
      <button
        v-for="p in positions"
        :key="p.value"
        class="button touch-none !px-2 select-none"
        :class="{ '!border-accent bg-accent-paper text-accent': value === p.value }"
        :aria-pressed="value === p.value"
        :aria-label="`${operable.name}, ${operable.spec.label}: hold ${p.label}`"
        :title="`Hold for ${p.label}; with Shift it stays`"
        :data-testid="`hold-${operable.key}-${p.value}`"
        v-bind="holding(p.value)"
      >
        {{ p.label }}
      </button>
      <span v-if="kept" class="text-xs text-accent"><Pin :size="13" class="inline" /> kept</span>
    </template>
    <template v-else>
      <input
        type="range"
        class="lever min-w-0 flex-1"
        :min="operable.spec.min"
        :max="operable.spec.max"
        :step="operable.step"
        :value="asked"
        :aria-label="`${operable.name}, ${operable.spec.label}`"
        :title="'Released, it returns to the middle'"
        :data-testid="`lever-${operable.key}`"
        @input="push"
        @pointerup="letGo"
        @pointercancel="letGo"
        @keyup="letGo"
        @blur="letGo"
      />
      <output class="w-12 text-right tabular-nums">{{ percent }} %</output>
      <label class="flex items-center gap-1 text-xs text-soft" title="It stays where it is put">
        <input type="checkbox" :checked="kept" @change="keep" />keep
      </label>
    </template>
  </div>
</template>

<style scoped>
.lever {
  accent-color: var(--accent);
}
</style>
