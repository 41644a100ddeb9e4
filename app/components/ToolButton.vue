<script setup lang="ts">
/** A button with an icon only; its label is for screen readers, its hint is the tooltip. */
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
