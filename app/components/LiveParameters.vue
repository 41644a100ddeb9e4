<script setup lang="ts">
/** Values of the selected part that are changed while the machine runs; what would need another circuit is refused. */
import { findKind } from '@oar-bench/core/catalogue'
import type { Parameters, QuantityParameter } from '@oar-bench/core/catalogue/kind'

const props = defineProps<{ component: string }>()
const live = useLiveRun()
const part = computed(() => live.sheet?.components.find((c) => c.id === props.component))
const parameters = computed(() => {
  const kind = part.value && findKind(part.value.kind)
  const inputs = new Set((kind?.inputs ?? []).map((i) => i.rest))
  const own: Parameters = kind?.parameters ?? {}
  return Object.entries(own).flatMap(([name, p]) =>
    // what is worked as an input stands above
    p.type === 'quantity' && !inputs.has(name) ? [[name, p] as readonly [string, QuantityParameter]] : [],
  )
})
const chosen = ref('')
watch(
  () => props.component,
  () => (chosen.value = ''),
)
const definition = computed(() => parameters.value.find(([name]) => name === chosen.value)?.[1])
/** As it was changed last, else as it stands on the sheet. */
const present = computed(() => {
  const done = live.actions.findLast(
    (a) => a.kind === 'parameter' && a.component === props.component && a.target === chosen.value,
  )
  const written = done?.kind === 'parameter' ? done.value : part.value?.parameters[chosen.value]
  return typeof written === 'string' ? written : (definition.value?.default ?? '')
})
const change = (value: string) =>
  live.act({ kind: 'parameter', component: props.component, target: chosen.value, value })
</script>

<template>
  <div v-if="parameters.length" class="mt-2 flex items-start gap-1.5" data-testid="live-parameters">
    <select v-model="chosen" class="field min-w-0 flex-1" aria-label="Value of the part that is changed">
      <option value="">Change a value …</option>
      <option v-for="[name, p] in parameters" :key="name" :value="name">{{ p.label }}</option>
    </select>
    <QuantityField
      v-if="definition"
      :key="chosen"
      class="w-28"
      hide-label
      :label="definition.label"
      :quantity="definition.quantity"
      :model-value="present"
      @update:model-value="change"
    />
  </div>
</template>
