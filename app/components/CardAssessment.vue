<script setup lang="ts">
/** Types of a component against what is asked of it, with the reasons. */
import { Check, X } from 'lucide-vue-next'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode }>()
const types = computed(() => {
  const { values, card } = props.node
  const complete = Object.keys(card.variables).every((name) => values[name] !== undefined)
  return complete ? card.assess!(values) : []
})
</script>

<template>
  <section v-if="types.length" class="mt-4" data-testid="assessment">
    <h2 class="heading mb-1 border-b border-rule pb-1">Choice of type</h2>
    <ul>
      <li v-for="t in types" :key="t.name" class="flex gap-2 py-0.5">
        <Check v-if="t.fits" :size="16" class="mt-0.5 shrink-0 text-good" aria-label="fits" />
        <X v-else :size="16" class="mt-0.5 shrink-0 text-soft" aria-label="does not fit" />
        <span :class="{ 'text-soft': !t.fits }">
          <b class="font-semibold">{{ t.name }}</b>
          <template v-if="t.fits">: {{ t.for.join(', ') }}</template>
          <template v-else>: {{ t.against.join('; ') }}</template>
        </span>
      </li>
    </ul>
    <p class="text-xs text-soft">By usual limits of catalogues, as a first choice; the data sheet decides.</p>
  </section>
</template>
