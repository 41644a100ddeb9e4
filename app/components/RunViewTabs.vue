<script setup lang="ts">
/** What is shown of a run below the sheet. */
const view = defineModel<RunView>({ required: true })
</script>

<template>
  <div class="flex gap-1 border-b border-rule" role="tablist" aria-label="View of the run">
    <button
      v-for="(label, name) in runViews"
      :key="name"
      role="tab"
      class="-mb-px border-b-2 px-2 py-0.5 text-[13px] hover:text-accent"
      :class="view === name ? 'border-accent text-accent' : 'border-transparent text-soft'"
      :aria-selected="view === name"
      :data-testid="`view-${name}`"
      @click="view = name"
    >
      {{ label }}
    </button>
  </div>
</template>
