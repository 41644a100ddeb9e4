<script setup lang="ts">
/** A value with its unit: shown in the unit system in force, typed in any unit of its quantity. */
import { ArrowLeftRight } from 'lucide-vue-next'
import { findUnit, shownUnit, type Quantity } from '@oar-bench/core/units/quantities'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{
  /** As kept: "160 bar"; empty where nothing is given. */
  modelValue: string
  quantity: Quantity
  label: string
  note?: string
  /** What is wrong with the kept value. */
  problem?: string
  hideLabel?: boolean
  /** It may be left empty. */
  optional?: boolean
  placeholder?: string
  /** Offers the helper for units. */
  converter?: boolean
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
/** Two ways to read a number that is not clear, in what was typed or is kept. */
const readings = computed(() => {
  const asked = typed.value ? text.value : props.problem ? props.modelValue : ''
  const read = asked ? parseQuantity(asked, props.quantity) : undefined
  return read && !read.ok ? (read.readings ?? []) : []
})
const converting = ref(false)

function commit() {
  const written = text.value.trim()
  if (written === shown.value) {
    text.value = shown.value
    typed.value = ''
    return
  }
  if (!written && props.optional) {
    typed.value = ''
    emit('update:modelValue', '')
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
function take(value: string) {
  converting.value = false
  typed.value = ''
  emit('update:modelValue', value)
}
</script>

<template>
  <div class="group/field">
    <span v-if="!hideLabel || converter" class="mb-0.5 flex items-center text-[13px] text-soft">
      <label :for="id" :class="{ 'sr-only': hideLabel }">{{ label }}</label>
      <button
        v-if="converter"
        type="button"
        class="ml-auto rounded p-0.5 opacity-0 group-focus-within/field:opacity-100 group-hover/field:opacity-100 hover:text-accent focus-visible:opacity-100"
        :title="`Units of ${label}`"
        :aria-label="`Units of ${label}`"
        @click="converting = true"
      >
        <ArrowLeftRight :size="13" />
      </button>
    </span>
    <label v-else :for="id" class="sr-only">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="field"
      type="text"
      inputmode="text"
      autocomplete="off"
      spellcheck="false"
      :placeholder="placeholder"
      :aria-invalid="!!message"
      :aria-describedby="message || note ? `${id}-more` : undefined"
      @change="commit"
      @keydown.enter="commit"
      @keydown.esc="giveUp"
    />
    <p v-if="message" :id="`${id}-more`" class="mt-0.5 text-[13px] text-error" role="alert">{{ message }}</p>
    <p v-if="readings.length" class="mt-0.5 flex gap-1.5">
      <button
        v-for="reading in readings"
        :key="reading"
        type="button"
        class="button !py-0 !text-[13px]"
        @click="take(reading)"
      >
        {{ reading }}
      </button>
    </p>
    <p v-if="note && !message" :id="`${id}-more`" class="mt-0.5 text-xs text-soft">{{ note }}</p>
    <UnitHelper
      v-if="converting"
      :quantity="quantity"
      :label="label"
      :text="text"
      @take="take"
      @close="converting = false"
    />
  </div>
</template>
