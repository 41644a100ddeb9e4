<script setup lang="ts">
/** The inside of a part at the instant: chambers in the colours of their pressures, what moves where it stands. */
import type { DrawnSection } from '@oar-bench/core/catalogue/section'

const props = defineProps<{ drawn: DrawnSection }>()
const runs = useSimulationRuns()
const { dark } = useTheme()
const colours = computed(() => rampColours(dark.value))
const colourOf = (pressure: number) => {
  const share = Math.min(1, Math.max(0, pressure / runs.pressureRange))
  return colours.value[Math.round(share * (colours.value.length - 1))]
}
const text = (points: readonly (readonly [number, number])[]) => points.map((p) => p.join(',')).join(' ')
const label = computed(() => `Inside: ${props.drawn.labels.map((l) => l.text).join(', ')}`)
</script>

<template>
  <figure class="mt-3" data-testid="inside">
    <figcaption class="heading">Inside</figcaption>
    <svg :viewBox="`0 0 ${drawn.width} ${drawn.height}`" class="block w-full" role="img" :aria-label="label">
      <defs>
        <pattern id="hatch" width="2" height="2" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2" height="2" class="fill-pane" />
          <line x1="0" y1="0" x2="0" y2="2" class="stroke-soft" stroke-width="0.3" />
        </pattern>
      </defs>
      <polygon
        v-for="(s, i) in drawn.body"
        :key="`body ${i}`"
        :points="text(s.points)"
        fill="url(#hatch)"
        class="stroke-ink"
        stroke-width="0.3"
      />
      <polygon
        v-for="(o, i) in drawn.oil"
        :key="`oil ${i}`"
        :points="text(o.points)"
        :fill="colourOf(o.pressure)"
        data-oil
      />
      <template v-for="(s, i) in drawn.parts" :key="`part ${i}`">
        <polyline
          v-if="s.fill === 'line'"
          :points="text(s.points)"
          fill="none"
          class="stroke-ink"
          stroke-width="0.4"
        />
        <polygon
          v-else
          :points="text(s.points)"
          :fill="s.fill === 'metal' ? 'url(#hatch)' : undefined"
          class="fill-paper stroke-ink"
          :class="s.fill === 'metal' ? '!fill-[url(#hatch)]' : ''"
          stroke-width="0.35"
          stroke-linejoin="round"
          data-part
        />
      </template>
      <polyline
        v-for="(s, i) in drawn.springs"
        :key="`spring ${i}`"
        :points="text(s)"
        fill="none"
        class="stroke-ink"
        stroke-width="0.35"
      />
      <text
        v-for="(l, i) in drawn.labels"
        :key="`label ${i}`"
        :x="l.at[0]"
        :y="l.at[1]"
        :text-anchor="l.anchor"
        font-size="2.9"
        class="fill-ink font-lettering"
      >
        {{ l.text }}
      </text>
    </svg>
    <p v-if="drawn.note" class="text-[12px] text-soft">{{ drawn.note }}</p>
  </figure>
</template>
