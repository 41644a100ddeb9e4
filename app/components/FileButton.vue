<script setup lang="ts">
/** A button that asks for a file. */
defineProps<{ label: string; accept: string; testid: string }>()
const emit = defineEmits<{ file: [file: File] }>()
function choose(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  // the same file may be chosen again
  input.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <label class="icon-button cursor-pointer focus-within:outline-2 focus-within:outline-accent" :title="label">
    <slot />
    <input
      type="file"
      class="sr-only"
      :accept="accept"
      :aria-label="label"
      :data-testid="testid"
      @change="choose"
    />
  </label>
</template>
