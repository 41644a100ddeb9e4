<script setup lang="ts">
/** A sentence in which neither a designation nor a value with its unit is broken at the end of a line. */
const props = defineProps<{ text: string }>()
const NO_BREAK = '\u00A0'
/** Words with a hyphen between digits are designations. */
const pieces = computed(() =>
  props.text
    .replace(/(\d) (?=[A-Za-z°µ%])(?!at |to |and |for |of |are |is )/g, `$1${NO_BREAK}`)
    .split(/(\s+)/)
    // words, and what lies between them, by turns: those that are no designations become one piece
    .reduce<string[]>(
      (all, part) => {
        if (/\d-/.test(part)) all.push(part, '')
        else all[all.length - 1] += part
        return all
      },
      [''],
    ),
)
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><span v-if="i % 2" class="whitespace-nowrap">{{ piece }}</span
    ><template v-else>{{ piece }}</template></template
  >
</template>
