<script setup lang="ts">
/** What is said where nothing can be sized yet. */
const emit = defineEmits<{ calculator: [] }>()
const sheetDocument = useSheetDocument()
</script>

<template>
  <div class="max-w-xl" data-testid="sizes-empty">
    <h1 class="mb-2 font-lettering text-2xl font-medium">Sizes</h1>
    <p class="mb-3">
      The brief of this machine is not filled in: it does not say what moves, how far, how fast and against
      what. Nothing is sized from made-up figures.
    </p>
    <p class="flex gap-2">
      <NuxtLink :to="`/machines/${sheetDocument.machine!.id}/brief`" class="button-main"
        >Fill in the brief</NuxtLink
      >
      <button class="button" @click="emit('calculator')">Calculate without a machine</button>
    </p>
  </div>
</template>
