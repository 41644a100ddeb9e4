<script setup lang="ts">
/** Finds a component of the sheet, a line, a device or a step of the control, or a command, by a few letters; choosing goes there or does it. */
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
  DialogTitle,
} from '@headlessui/vue'
import { keyTexts, labelOf } from '../commands/command'
import { findKind } from '@oar-bench/core/catalogue'
import { findDeviceType } from '@oar-bench/core/control/devices'
import { nameOf } from '@oar-bench/core/sheet/schema'

const selection = useSelection()
const sheetDocument = useSheetDocument()
const editor = useEditorUi()
const open = useDialog('search')
const { enabled } = useCommands()
const controlUi = useControlUi()
const goToControl = useGoToControl()
const word = ref('')

interface Entry {
  readonly key: string
  readonly label: string
  readonly note: string
  readonly run: () => void
}
const go = (id: string) => () => {
  selection.select([id])
  editor.view?.reveal(id)
}
const controlEntries = computed<Entry[]>(() => {
  const { devices, rungs, sequences } = sheetDocument.sheet.control
  return [
    ...devices.map((d) => ({
      key: `device ${d.id}`,
      label: [nameOf(d), d.label].filter(Boolean).join(' '),
      note: findDeviceType(d.type)?.label ?? d.type,
      run: () => void goToControl('paths', () => selection.select([d.id])),
    })),
    ...rungs.map((r, i) => ({
      key: `path ${r.id}`,
      label: [`Path ${i + 1}`, r.comment].filter(Boolean).join(': '),
      note: 'control',
      run: () => void goToControl('paths', () => controlUi.selectRung(r.id)),
    })),
    ...sequences.flatMap((s) =>
      s.steps.map((step) => ({
        key: `step ${s.id}.${step.id}`,
        label: [step.id, step.name].filter(Boolean).join(' '),
        note: 'step of the control',
        run: () => void goToControl('steps', () => selection.select([s.id])),
      })),
    ),
  ]
})
const entries = computed<Entry[]>(() => [
  ...sheetDocument.sheet.components.map((c) => ({
    key: c.id,
    label: nameOf(c),
    note: findKind(c.kind)?.label ?? c.kind,
    run: go(c.id),
  })),
  ...sheetDocument.sheet.pipes
    .filter((p) => p.name)
    .map((p) => ({ key: `pipe ${p.id}`, label: p.name!, note: 'line', run: go(p.id) })),
  ...controlEntries.value,
  ...enabled.value
    .filter((c) => c.name !== 'search')
    .map((c) => ({
      key: `command ${c.name}`,
      label: labelOf(c),
      note: keyTexts(c)[0] ?? c.group,
      run: c.run,
    })),
])
const found = computed(() => {
  const words = word.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return entries.value
    .filter((e) => words.every((w) => `${e.label} ${e.note}`.toLowerCase().includes(w)))
    .slice(0, 60)
})
function choose(entry: Entry | null) {
  if (!entry) return
  open.value = false
  entry.run()
}
watch(open, () => (word.value = ''))
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/25" aria-hidden="true" />
    <div class="fixed inset-x-0 top-24 flex justify-center px-4">
      <DialogPanel class="w-full max-w-lg rounded border border-rule bg-paper shadow-xl" data-testid="search">
        <DialogTitle class="sr-only">Find a component, a line, a control device or a command</DialogTitle>
        <Combobox :model-value="null" @update:model-value="choose">
          <ComboboxInput
            class="field !rounded-b-none !border-0 !border-b !border-rule !px-4 !py-2.5"
            placeholder="Designation, kind, line, control device or command"
            aria-label="Designation, kind, line, control device or command"
            data-testid="search-word"
            @keydown.esc.stop="open = false"
            @change="word = $event.target.value"
          />
          <ComboboxOptions static class="max-h-80 overflow-auto py-1">
            <ComboboxOption v-for="e in found" :key="e.key" v-slot="{ active }" :value="e" as="template">
              <li
                class="flex cursor-pointer items-baseline justify-between gap-4 px-4 py-1.5"
                :class="active ? 'bg-accent-paper text-accent' : ''"
              >
                <span class="font-lettering">{{ e.label }}</span>
                <span class="text-[13px] text-soft">{{ e.note }}</span>
              </li>
            </ComboboxOption>
            <li v-if="!found.length" class="px-4 py-2 text-soft">No match on this sheet.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>
