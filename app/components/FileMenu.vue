<script setup lang="ts">
/** The sheet as a file: written in every format, read from its own. */
import { Download, History, Printer, Upload } from 'lucide-vue-next'

import { exportFormats, hasControl } from '@oar-bench/core/formats/registry'
import { csvStyleLabels, useCsvStyleName } from '../composables/useCsvStyle'

const editor = useEditorUi()
const runs = useSimulationRuns()
const csvStyle = useCsvStyleName()
const sheetDocument = useSheetDocument()
const groups = computed(() =>
  ['Drawing', 'Lists', 'Run', 'Control']
    .map((group) => ({
      group,
      formats: exportFormats.filter(
        (format) => format.group === group && (!format.needsControl || hasControl(sheetDocument.sheet)),
      ),
    }))
    .filter(({ formats }) => formats.length),
)
const emit = defineEmits<{ read: [] }>()
const { exportSheet, importSheet } = useFiles()
const file = useTemplateRef<HTMLInputElement>('file')
async function take(event: Event) {
  const input = event.target as HTMLInputElement
  const chosen = input.files?.[0]
  input.value = ''
  if (chosen && (await importSheet(chosen))) emit('read')
}
</script>

<template>
  <PopUp
    placement="bottom-start"
    testid="files"
    panel-class="w-[26rem] p-1"
    button-class="icon-button"
    title="Files"
  >
    <template #button><Download :size="18" /><span class="sr-only">Files</span></template>
    <template #default="{ close }">
      <div class="grid grid-cols-2 gap-x-2">
        <section
          v-for="{ group, formats } in groups"
          :key="group"
          :class="group === 'Drawing' && 'row-span-2'"
        >
          <h3 class="heading px-3 pt-1">{{ group }}</h3>
          <button
            v-for="format in formats"
            :key="format.name"
            class="block w-full rounded px-3 py-1 text-left hover:bg-accent-paper hover:text-accent disabled:opacity-50"
            :data-testid="`export-${format.name}`"
            :disabled="format.needsRun && (!runs.shown || runs.outdated)"
            @click="(exportSheet(format), close())"
          >
            {{ format.label }}
            <span v-if="format.note" class="block text-xs text-soft">{{ format.note }}</span>
          </button>
        </section>
      </div>
      <label class="flex items-center gap-2 px-3 pt-1 text-[13px] text-soft">
        CSV with
        <select v-model="csvStyle" class="field !w-auto" data-testid="csv-style">
          <option v-for="(words, name) in csvStyleLabels" :key="name" :value="name">{{ words }}</option>
        </select>
      </label>
      <hr class="my-1 border-rule" />
      <button
        class="flex w-full items-center gap-2 rounded px-3 py-1.5 text-left hover:bg-accent-paper hover:text-accent"
        data-testid="open-print"
        @click="((editor.dialog = 'print'), close())"
      >
        <Printer :size="16" aria-hidden="true" /> Print preview
      </button>
      <button
        class="flex w-full items-center gap-2 rounded px-3 py-1.5 text-left hover:bg-accent-paper hover:text-accent"
        data-testid="open-revisions"
        @click="((editor.dialog = 'revisions'), close())"
      >
        <History :size="16" aria-hidden="true" /> Revisions: save, compare, restore
      </button>
      <button
        class="flex w-full items-center gap-2 rounded px-3 py-1.5 text-left hover:bg-accent-paper hover:text-accent"
        @click="(file?.click(), close())"
      >
        <Upload :size="16" aria-hidden="true" /> Import a sheet file or SVG in place of this, or XML of a
        control
      </button>
    </template>
  </PopUp>
  <input
    ref="file"
    type="file"
    accept=".json,.svg,.xml,application/json,image/svg+xml,application/xml"
    class="hidden"
    data-testid="import"
    @change="take"
  />
</template>
