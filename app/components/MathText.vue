<script setup lang="ts">
/** A formula or a symbol, with what stands behind an underscore as an index. */
const props = defineProps<{ text: string }>()
const pieces = computed(() =>
  props.text
    .split(/_([\p{L}\p{N}]+)/u)
    .map((piece, i) => ({ piece, index: i % 2 === 1 }))
    .filter(({ piece }) => piece),
)
</script>

<template>
  <span
    ><template v-for="({ piece, index }, i) in pieces" :key="i"
      ><sub v-if="index" class="text-[0.75em]">{{ piece }}</sub
      ><template v-else>{{ piece }}</template></template
    ></span
  >
</template>
