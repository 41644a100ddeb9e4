<script setup lang="ts">
/** The control beside the sheet while a run is shown: paths with current, active steps, buttons to press. */
const sheetDocument = useSheetDocument()
const zoom = useSetting('run-paths-zoom', 70)
const control = computed(() => sheetDocument.sheet.control)
</script>

<template>
  <div
    class="flex w-[46%] shrink-0 flex-col overflow-auto border-l border-rule bg-paper p-2"
    data-testid="control-pane"
    aria-label="Control"
    role="region"
  >
    <label class="flex items-center gap-1 self-end text-[13px] text-soft">
      Size
      <input
        v-model.number="zoom"
        type="range"
        min="40"
        max="150"
        step="10"
        aria-label="Size of the drawing"
      />
    </label>
    <div v-if="control.rungs.length" :style="{ zoom: zoom / 100 }"><ControlDrawing running /></div>
    <div v-if="control.sequences.length" :style="{ zoom: zoom / 100 }"><ControlSequences running /></div>
  </div>
</template>
