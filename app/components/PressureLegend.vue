<script setup lang="ts">
/** What the colours of the oil mean. */
const runs = useSimulationRuns()
const { number, unit } = useUnits()
const { dark } = useTheme()
const gradient = computed(() => `linear-gradient(to top, ${rampColours(dark.value).join(', ')})`)
const ticks = [1, 0.75, 0.5, 0.25, 0]
</script>

<template>
  <figure
    class="pointer-events-none absolute top-14 right-2 flex w-16 flex-col rounded bg-paper/85 px-1 py-1 text-xs text-soft"
    aria-label="Pressure colours"
    title="Dashed where the oil cavitates; arrows show the flow"
  >
    <figcaption class="text-right">{{ unit('pressure') }}</figcaption>
    <div class="flex h-44 gap-1">
      <div class="flex flex-1 flex-col justify-between text-right leading-none">
        <span v-for="t in ticks" :key="t">{{ number(t * runs.pressureRange, 'pressure', 3) }}</span>
      </div>
      <div class="w-3 border border-rule" :style="{ background: gradient }" />
    </div>
    <div class="mt-1.5 text-right leading-none">
      cavitation
      <span class="mt-1 ml-auto block w-8 border-t-4 border-dashed border-caution" />
    </div>
  </figure>
</template>
