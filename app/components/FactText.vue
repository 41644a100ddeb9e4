<script setup lang="ts">
/** A sentence in which neither a designation nor a value with its unit is broken at the end of a line. */
const props = defineProps<{ text: string }>()
const NO_BREAK = '\u00A0'
/** Words with a hyphen between digits are designations. */
const pieces = computed(() =>
  props.text
    .replace(/(\d) (?=[A-Za-z°µ%])(?!at |to |and |for |of |are |is )/g, `$1${NO_BREAK}`)
    .split(/(\S*\d-\S*)/),
)
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><span v-if="i % 2" class="whitespace-nowrap">{{ piece }}</span
    ><template v-else>{{ piece }}</template></template
  >
</template>
