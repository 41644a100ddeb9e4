<script setup lang="ts">
/** Lamps and horns of the control, as they are now. */
import { indicatorsOf } from '@oar-bench/core/control/indicators'

defineProps<{ valueOf: (signal: string) => number | undefined }>()
const live = useLiveRun()
const indicators = computed(() => (live.sheet ? indicatorsOf(live.sheet) : []))
</script>

<template>
  <ul v-if="indicators.length" class="mt-1 flex flex-wrap gap-2" aria-label="Lamps" data-testid="lamps">
    <li
      v-for="lamp in indicators"
      :key="lamp.id"
      class="flex items-center gap-1.5 text-[13px]"
      :data-testid="`lamp-${lamp.id}`"
      :data-on="(valueOf(lamp.signal) ?? 0) > 0.5"
    >
      <span
        class="lamp"
        :class="[lamp.colour, { lit: (valueOf(lamp.signal) ?? 0) > 0.5 }]"
        aria-hidden="true"
      />
      <span :class="{ 'font-semibold': (valueOf(lamp.signal) ?? 0) > 0.5 }">{{ lamp.name }}</span>
      <span class="sr-only">{{ (valueOf(lamp.signal) ?? 0) > 0.5 ? 'on' : 'off' }}</span>
    </li>
  </ul>
</template>

<style scoped>
.lamp {
  width: 0.8rem;
  height: 0.8rem;
  border: 1.5px solid var(--ink);
  border-radius: 50%;
  background: transparent;
}
.lamp.lit {
  background: #fff8d8;
  box-shadow: 0 0 0 2px var(--rule);
}
.lamp.lit.green {
  background: #2f9e4f;
}
.lamp.lit.yellow {
  background: #f0b400;
}
.lamp.lit.red {
  background: #d02a20;
}
.lamp.lit.blue {
  background: #2a66d0;
}
</style>
