<script setup lang="ts">
/** The sheet as a file: written in every format, read from its own. */
import { Download, History, Printer, Upload } from 'lucide-vue-next'

const editor = useEditorUi()
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
    panel-class="w-72 p-1"
    button-class="icon-button"
    title="Files"
  >
    <template #button><Download :size="18" /><span class="sr-only">Files</span></template>
    <template #default="{ close }">
      <button
        v-for="(format, name) in exportFormats"
        :key="name"
        class="flex w-full items-baseline justify-between gap-3 rounded px-3 py-1.5 text-left hover:bg-accent-paper hover:text-accent"
        :data-testid="`export-${name}`"
        @click="(exportSheet(name), close())"
      >
        {{ format.label }} <span class="text-[13px] text-soft">{{ format.note }}</span>
      </button>
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
        <Upload :size="16" aria-hidden="true" /> Import a sheet file or SVG in place of this
      </button>
    </template>
  </PopUp>
  <input
    ref="file"
    type="file"
    accept=".json,.svg,application/json,image/svg+xml"
    class="hidden"
    data-testid="import"
    @change="take"
  />
</template>
