<script setup lang="ts">
/** A switch of the console: it stays where it is put. */
import type { Operable } from '@oar-bench/core/simulate/operable'

defineProps<{ operable: Operable; value: number | undefined }>()
const live = useLiveRun()
</script>

<template>
  <div class="flex gap-1" role="group" :aria-label="`${operable.name}, ${operable.spec.label}`">
    <button
      v-for="p in operable.spec.positions"
      :key="p.value"
      class="button !px-2"
      :class="{ '!border-accent bg-accent-paper text-accent': value === p.value }"
      :aria-pressed="value === p.value"
      :data-testid="`switch-${operable.key}-${p.value}`"
      @click="live.set(operable.component, operable.spec.name, p.value)"
    >
      {{ p.label }}
    </button>
  </div>
</template>
