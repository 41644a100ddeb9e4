<script setup lang="ts">
/** What the colours of the oil mean. */
import { fromSI, shownUnit } from '@oar-bench/core/units/quantities'
import { formatNumber } from '@oar-bench/core/units/text'
import { roundUp } from '../utils/ramp'

/** Ticks beside the scale. */
const MOST_TICKS = 5

const runs = useSimulationRuns()
const { unit, system } = useUnits()
const { dark } = useTheme()
const gradient = computed(() => `linear-gradient(to top, ${rampColours(dark.value).join(', ')})`)
/** Round values in the chosen unit, with their places from the top, %. */
const ticks = computed(() => {
  const shown = shownUnit('pressure', system.value)
  const top = fromSI(runs.pressureRange, shown)
  const step = roundUp(top / MOST_TICKS)
  return Array.from({ length: Math.floor(top / step + 1e-9) + 1 }, (_, i) => ({
    text: formatNumber(i * step),
    from: 100 * (1 - (i * step) / top),
  }))
})
</script>

<template>
  <figure
    class="pointer-events-none absolute top-14 right-2 flex w-16 flex-col rounded bg-paper/85 px-1 py-1 text-xs text-soft"
    aria-label="Pressure colours"
    title="Dashed where the oil cavitates; arrows show the flow"
  >
    <figcaption class="mb-1 text-right">{{ unit('pressure') }}</figcaption>
    <div class="flex h-44 gap-1">
      <div class="relative flex-1 text-right leading-none">
        <span
          v-for="t in ticks"
          :key="t.text"
          class="absolute right-0 -translate-y-1/2"
          :style="{ top: `${t.from}%` }"
          data-testid="pressure-tick"
          >{{ t.text }}</span
        >
      </div>
      <div class="w-3 border border-rule" :style="{ background: gradient }" />
    </div>
    <div class="mt-1.5 text-right leading-none">
      cavitation
      <span class="mt-1 ml-auto block w-8 border-t-4 border-dashed border-caution" />
    </div>
  </figure>
</template>
