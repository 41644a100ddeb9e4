<script setup lang="ts">
/** A value with its unit: shown in the unit system in force, typed in any unit of its quantity. */
import { findUnit, shownUnit, type Quantity } from '@oar-bench/core/units/quantities'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{
  /** As kept: "160 bar". */
  modelValue: string
  quantity: Quantity
  label: string
  note?: string
  /** What is wrong with the kept value. */
  problem?: string
  hideLabel?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string] }>()
const { system, show } = useUnits()
const id = useId()

const shown = computed(() => {
  const parsed = parseQuantity(props.modelValue, props.quantity)
  return parsed.ok ? show(parsed.si, props.quantity, 5) : props.modelValue
})
const text = ref(shown.value)
const typed = ref('')
watch(shown, (value) => {
  text.value = value
  typed.value = ''
})
const message = computed(() => typed.value || props.problem)

function commit() {
  if (text.value.trim() === shown.value) {
    text.value = shown.value
    typed.value = ''
    return
  }
  const assumed = shownUnit(props.quantity, system.value)
  const parsed = parseQuantity(text.value, props.quantity, findUnit(props.quantity, assumed.symbol))
  if (!parsed.ok) {
    typed.value = parsed.message
    return
  }
  typed.value = ''
  emit('update:modelValue', parsed.text)
  void nextTick(() => (text.value = shown.value))
}
/** Takes back what was typed; what has nothing to take back lets Escape go on to what is around it. */
function giveUp(event: KeyboardEvent) {
  if (text.value !== shown.value || typed.value) event.stopPropagation()
  text.value = shown.value
  typed.value = ''
}
</script>

<template>
  <div>
    <label :for="id" :class="hideLabel ? 'sr-only' : 'mb-0.5 block text-[13px] text-soft'">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="field"
      type="text"
      inputmode="text"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="!!message"
      :aria-describedby="message || note ? `${id}-more` : undefined"
      @change="commit"
      @keydown.enter="commit"
      @keydown.esc="giveUp"
    />
    <p v-if="message" :id="`${id}-more`" class="mt-0.5 text-[13px] text-error" role="alert">{{ message }}</p>
    <p v-else-if="note" :id="`${id}-more`" class="mt-0.5 text-xs text-soft">{{ note }}</p>
  </div>
</template>
