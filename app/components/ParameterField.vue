<script setup lang="ts">
/** Edits one parameter, whatever its type. */
import { Switch, SwitchGroup, SwitchLabel } from '@headlessui/vue'
import type { Parameter } from '@oar-bench/core/catalogue/kind'
import type { RawValue } from '@oar-bench/core/sheet/resolve'

const props = defineProps<{
  parameter: Parameter
  modelValue: RawValue | undefined
  problem?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: RawValue | undefined] }>()
const id = useId()
const value = computed(
  () => props.modelValue ?? (props.parameter.type === 'table' ? undefined : props.parameter.default),
)
function setText(event: Event) {
  const text = typedText(event, String(value.value), { lines: true })
  if (text !== undefined) emit('update:modelValue', text || undefined)
}
</script>

<template>
  <QuantityField
    v-if="parameter.type === 'quantity'"
    :model-value="String(value)"
    :quantity="parameter.quantity"
    :label="parameter.label"
    :note="parameter.note"
    :problem="problem"
    @update:model-value="emit('update:modelValue', $event)"
  />
  <div v-else-if="parameter.type === 'choice'">
    <label :for="id" class="mb-0.5 block text-[13px] text-soft">{{ parameter.label }}</label>
    <select
      :id="id"
      class="field"
      :value="value"
      :aria-invalid="!!problem"
      @change="emit('update:modelValue', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="(words, name) in parameter.choices" :key="name" :value="name">{{ words }}</option>
    </select>
    <p v-if="problem" class="mt-0.5 text-[13px] text-error" role="alert">{{ problem }}</p>
    <p v-else-if="parameter.note" class="mt-0.5 text-xs text-soft">{{ parameter.note }}</p>
  </div>
  <div v-else-if="parameter.type === 'text'">
    <label :for="id" class="mb-0.5 block text-[13px] text-soft">{{ parameter.label }}</label>
    <textarea :id="id" class="field" rows="3" maxlength="500" :value="String(value)" @change="setText" />
    <p v-if="problem" class="mt-0.5 text-[13px] text-error" role="alert">{{ problem }}</p>
    <p v-else-if="parameter.note" class="mt-0.5 text-xs text-soft">{{ parameter.note }}</p>
  </div>
  <TableField
    v-else-if="parameter.type === 'table'"
    :parameter="parameter"
    :model-value="Array.isArray(value) ? value : undefined"
    :problem="problem"
    @update:model-value="emit('update:modelValue', $event)"
  />
  <SwitchGroup v-else as="div" class="flex items-center justify-between py-0.5">
    <SwitchLabel class="text-[13px] text-soft">{{ parameter.label }}</SwitchLabel>
    <Switch
      :model-value="value === true"
      class="relative h-5 w-9 rounded-full border border-rule"
      :class="value === true ? 'bg-accent' : 'bg-canvas'"
      @update:model-value="emit('update:modelValue', $event)"
    >
      <span
        class="absolute top-0.5 size-3.5 rounded-full transition-all"
        :class="value === true ? 'left-[18px] bg-on-accent' : 'left-0.5 bg-soft'"
      />
    </Switch>
  </SwitchGroup>
</template>
