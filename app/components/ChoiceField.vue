<script setup lang="ts" generic="T extends string">
/** One of several named values. */
defineProps<{
  label: string
  modelValue: T
  choices: Readonly<Record<T, string>>
  hideLabel?: boolean
  note?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const id = useId()
</script>

<template>
  <div>
    <label :for="id" :class="hideLabel ? 'sr-only' : 'mb-0.5 block text-[13px] text-soft'">{{ label }}</label>
    <select
      :id="id"
      class="field"
      :value="modelValue"
      @change="emit('update:modelValue', ($event.target as HTMLSelectElement).value as T)"
    >
      <option v-for="(words, name) in choices" :key="name" :value="name">{{ words }}</option>
    </select>
    <p v-if="note" class="mt-0.5 text-xs text-soft">{{ note }}</p>
  </div>
</template>
