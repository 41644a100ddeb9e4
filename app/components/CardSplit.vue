<script setup lang="ts">
/** A whole and what it divides into, as bars with their values and shares. */
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode }>()
const { show } = useUnits()
const parts = computed(() => {
  const { card, values } = props.node
  const { whole, parts } = card.split!
  const total = values[whole]
  if (!(total > 0)) return []
  return parts.map((name) => ({
    name,
    label: card.variables[name].label,
    value: show(values[name], card.variables[name].quantity, 3),
    share: Math.max(0, values[name] / total),
  }))
})
const percent = (share: number) => `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`
</script>

<template>
  <figure class="mt-4" data-testid="split">
    <figcaption class="heading mb-1">{{ node.card.split!.title }}</figcaption>
    <dl
      v-if="parts.length"
      class="grid grid-cols-[minmax(0,18rem)_1fr_auto_auto] items-center gap-x-3 gap-y-1"
    >
      <template v-for="(part, i) in parts" :key="part.name">
        <dt class="text-[13px] leading-tight">{{ part.label }}</dt>
        <dd aria-hidden="true" class="h-4 bg-pane">
          <div
            class="h-full"
            :class="i === 0 ? 'bg-accent' : 'bg-caution'"
            :style="{ width: `${100 * part.share}%` }"
          />
        </dd>
        <dd class="text-right tabular-nums">{{ part.value }}</dd>
        <dd class="w-12 text-right tabular-nums text-soft">{{ percent(part.share) }}</dd>
      </template>
    </dl>
    <p v-else class="text-[13px] text-soft">Drawn when the values of this card are known.</p>
  </figure>
</template>
