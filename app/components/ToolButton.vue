<script setup lang="ts">
/** A button with a sign only: its label is told to those who do not see it, and its hint when the pointer rests on it. */
withDefaults(defineProps<{ label: string; hint?: string; pressed?: boolean }>(), {
  hint: undefined,
  pressed: undefined,
})
</script>

<template>
  <button
    type="button"
    class="icon-button"
    :title="hint ?? label"
    :aria-label="label"
    :aria-pressed="pressed"
  >
    <slot />
  </button>
</template>
