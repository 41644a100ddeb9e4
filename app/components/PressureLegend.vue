<script setup lang="ts">
/** What the colours of the oil mean. */
const desk = useDesk()
const { number, unit } = useUnits()
const { dark } = useTheme()
const gradient = computed(() => `linear-gradient(to right, ${rampColours(dark.value).join(', ')})`)
const ticks = [0, 0.25, 0.5, 0.75, 1]
</script>

<template>
  <figure
    class="pointer-events-none absolute right-3 bottom-3 w-56 rounded bg-paper/85 px-2 py-1 text-xs text-soft"
    aria-label="Pressure colours"
  >
    <div class="h-2.5 border border-rule" :style="{ background: gradient }" />
    <div class="flex justify-between">
      <span v-for="t in ticks" :key="t">{{ number(t * desk.fullPressure, 'pressure', 3) }}</span>
    </div>
    <figcaption>{{ unit('pressure') }}; dashed where the oil cavitates; arrows show the flow</figcaption>
  </figure>
</template>
