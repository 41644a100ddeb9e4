<script setup lang="ts">
/** All pressures of the machine on one ruler: what moves, works, switches and limits, and what each part may see. */
import type { RulerMark } from '@oar-bench/core/size/card'
import { rulerOf, spread } from '@oar-bench/core/size/ruler'

const emit = defineEmits<{ card: [id: string] }>()
const sizes = useMachineSizes()
const { show } = useUnits()
const words: Record<RulerMark, string> = {
  moving: 'moves without work',
  working: 'works',
  setting: 'switches or opens',
  limit: 'limits',
  rating: 'may not see more',
}
const colours: Record<RulerMark, string> = {
  moving: 'fill-good stroke-good',
  working: 'fill-ink stroke-ink',
  setting: 'fill-accent stroke-accent',
  limit: 'fill-caution stroke-caution',
  rating: 'fill-error stroke-error',
}
const HEIGHT = 620
const [TOP, BOTTOM] = [16, HEIGHT - 20]
const GAP = 19
const entries = computed(() => rulerOf(sizes.sizing))
const most = computed(() => {
  const highest = entries.value.at(-1)?.pressure ?? 1e5
  const step = highest > 200e5 ? 50e5 : highest > 50e5 ? 20e5 : 5e5
  return { top: Math.ceil((highest * 1.02) / step) * step, step }
})
const yAt = (pressure: number) => BOTTOM - (pressure / most.value.top) * (BOTTOM - TOP)
const ticks = computed(() =>
  Array.from({ length: Math.round(most.value.top / most.value.step) + 1 }, (_, i) => i * most.value.step),
)
const labels = computed(() =>
  spread(
    entries.value.map((e) => yAt(e.pressure)),
    GAP,
    TOP,
    BOTTOM,
  ),
)
</script>

<template>
  <article class="mx-auto max-w-4xl" data-testid="settings-ruler">
    <h1 class="font-lettering text-2xl font-medium">Pressures on a ruler</h1>
    <p class="mb-2 text-soft">
      Settings must stand between what moves and what limits, and everything below what the parts may see. All
      are gauge pressures.
    </p>
    <p class="mb-2 flex flex-wrap gap-x-4 text-[13px]">
      <span v-for="(text, mark) in words" :key="mark" class="flex items-center gap-1.5">
        <svg width="12" height="12" aria-hidden="true">
          <circle cx="6" cy="6" r="4.5" :class="colours[mark]" />
        </svg>
        {{ text }}
      </span>
    </p>
    <svg
      width="100%"
      :height="HEIGHT"
      :viewBox="`0 0 860 ${HEIGHT}`"
      role="group"
      aria-label="Ruler of pressures"
    >
      <line x1="90" x2="90" :y1="TOP" :y2="BOTTOM" class="stroke-ink" stroke-width="1.5" />
      <g v-for="t in ticks" :key="t">
        <line x1="82" x2="90" :y1="yAt(t)" :y2="yAt(t)" class="stroke-ink" />
        <text x="76" :y="yAt(t) + 4" text-anchor="end" class="fill-soft text-[12px]">
          {{ show(t, 'pressure', 3) }}
        </text>
      </g>
      <g
        v-for="(e, i) in entries"
        :key="`${e.node} ${e.variable}`"
        class="cursor-pointer hover:opacity-75"
        role="button"
        tabindex="0"
        :aria-label="`${e.label}, ${show(e.pressure, 'pressure')}: ${words[e.mark]}`"
        @click="emit('card', e.node)"
        @keydown.enter="emit('card', e.node)"
      >
        <rect x="84" :y="labels[i] - 9" width="760" height="18" fill="none" pointer-events="all" />
        <polyline
          :points="`90,${yAt(e.pressure)} 120,${yAt(e.pressure)} 150,${labels[i]} 162,${labels[i]}`"
          class="fill-none stroke-rule"
        />
        <line
          x1="84"
          x2="112"
          :y1="yAt(e.pressure)"
          :y2="yAt(e.pressure)"
          :class="colours[e.mark]"
          stroke-width="2"
        />
        <circle cx="168" :cy="labels[i]" r="4.5" :class="colours[e.mark]" />
        <text x="180" :y="labels[i] + 4" class="fill-ink text-[13px]">
          <tspan class="font-semibold">{{ show(e.pressure, 'pressure') }}</tspan>
          <tspan dx="10">{{ e.label }}</tspan>
        </text>
      </g>
    </svg>
  </article>
</template>
