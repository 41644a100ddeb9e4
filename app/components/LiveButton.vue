<script setup lang="ts">
/** A push button of the console: pressed as long as it is held, or kept with Shift. */
import type { Operable } from '@oar-bench/core/simulate/operable'

const props = defineProps<{ operable: Operable; value: number | undefined }>()
const { holding, kept } = useHold(() => props.operable)
</script>

<template>
  <button
    class="button w-full justify-center select-none"
    :class="{ '!border-accent bg-accent-paper text-accent': (value ?? 0) > 0.5 }"
    style="touch-action: none"
    :aria-pressed="(value ?? 0) > 0.5"
    :title="kept ? 'Kept pressed: press to release' : 'Press and hold; with Shift it stays'"
    :data-testid="`button-${operable.key}`"
    v-bind="holding(1)"
  >
    {{ operable.name }}{{ kept ? ', kept' : '' }}
  </button>
</template>
