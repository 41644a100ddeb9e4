<script setup lang="ts">
/** The control of a machine: its devices, paths, sequences and proofs. */
import type { ControlView } from '../stores/controlUi'
import { Minus, Plus, PanelLeft, PanelRight } from 'lucide-vue-next'
import { addRung, addSequence, setControl } from '@oar-bench/core/control/edit'
import { useEventListener } from '@vueuse/core'

const sheetDocument = useSheetDocument()
const ui = useControlUi()
const selection = useSelection()
const views: Record<ControlView, string> = { paths: 'Paths', steps: 'Steps', proofs: 'Proofs' }
const control = computed(() => sheetDocument.sheet.control)
const isEmpty = computed(() => !control.value.rungs.length)
const devicesOpen = useSetting('control-devices', true)
const propertiesOpen = useSetting('control-properties', true)
const zoom = useSetting('control-zoom', 100)
const editor = useEditorUi()
const pathEditor = useTemplateRef<{ focus(): void }>('pathEditor')
const ZOOMS = [50, 60, 70, 80, 90, 100, 125, 150, 200]
const zoomBy = (by: 1 | -1) => {
  const at = ZOOMS.findIndex((z) => z >= zoom.value)
  zoom.value = ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, at + by))]
}

function addPath() {
  ui.view = 'paths'
  const added = addRung(sheetDocument.sheet, ui.rung)
  sheetDocument.apply(added.sheet)
  ui.selectRung(added.id)
  void nextTick(() => pathEditor.value?.focus())
}
function addSteps() {
  sheetDocument.apply(addSequence(sheetDocument.sheet).sheet)
  ui.view = 'steps'
}
const set = (change: Parameters<typeof setControl>[1]) =>
  sheetDocument.apply(setControl(sheetDocument.sheet, change))
const layouts = { paths: 'Upright current paths', rails: 'Rungs between rails' } as const
const symbols = { iec60617: 'Signs of IEC 60617', brackets: 'Bracket signs' } as const

useEventListener('keydown', (event) => {
  const typing = /^(INPUT|TEXTAREA|SELECT)$/.test((event.target as HTMLElement).tagName)
  if (typing || event.defaultPrevented) return
  const ctrl = event.ctrlKey || event.metaKey
  const key = event.key.toLowerCase()
  if (ctrl && key === 'z') {
    if (event.shiftKey) sheetDocument.redo()
    else sheetDocument.undo()
  } else if (ctrl && key === 'y') sheetDocument.redo()
  else if (!ctrl && key === 'n') addPath()
  else return
  event.preventDefault()
})
const selected = computed(() => selection.devices[0] ?? selection.components[0])
</script>

<template>
  <div class="flex min-h-0 flex-1" data-testid="control-step">
    <ControlDevices v-if="devicesOpen" />
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex flex-wrap items-center gap-2 border-b border-rule bg-pane px-2 py-1">
        <ToolButton label="Devices" :pressed="devicesOpen" @click="devicesOpen = !devicesOpen">
          <PanelLeft :size="18" />
        </ToolButton>
        <div class="flex" role="tablist" aria-label="Views of the control">
          <button
            v-for="(label, name) in views"
            :key="name"
            role="tab"
            :aria-selected="ui.view === name"
            class="border-b-2 px-2.5 py-1"
            :class="ui.view === name ? 'border-accent text-accent' : 'border-transparent hover:text-accent'"
            :data-testid="`control-view-${name}`"
            @click="ui.view = name"
          >
            {{ label }}
          </button>
        </div>
        <button class="button" title="Add a path (N)" data-testid="add-path" @click="addPath">
          <Plus :size="15" aria-hidden="true" />Path
        </button>
        <template v-if="ui.view === 'paths' && !isEmpty">
          <ChoiceField
            class="w-40 max-lg:w-28"
            hide-label
            label="Drawing habit"
            :model-value="control.layout"
            :choices="layouts"
            @update:model-value="set({ layout: $event })"
          />
          <ChoiceField
            class="w-40 max-lg:w-28"
            hide-label
            label="Signs"
            :model-value="control.symbols"
            :choices="symbols"
            @update:model-value="set({ symbols: $event })"
          />
          <label class="flex items-center gap-1 text-[13px]" title="Contacts of one relay in one colour">
            <input
              type="checkbox"
              :checked="control.colours"
              @change="set({ colours: ($event.target as HTMLInputElement).checked })"
            />Colours
          </label>
        </template>
        <span class="ml-auto flex">
          <FileMenu />
          <ToolButton label="Properties" :pressed="propertiesOpen" @click="propertiesOpen = !propertiesOpen">
            <PanelRight :size="18" />
          </ToolButton>
        </span>
      </div>
      <p v-if="editor.message" class="bg-paper px-3 py-1.5 text-error" role="alert">
        {{ editor.message }}
        <button class="ml-2 underline" @click="editor.showMessage('')">Close</button>
      </p>
      <template v-if="ui.view === 'paths'">
        <div
          v-if="isEmpty"
          class="flex flex-1 items-center justify-center overflow-auto bg-canvas p-6"
          data-testid="control-empty"
        >
          <div class="max-w-md rounded border border-rule bg-paper p-5">
            <h2 class="font-lettering text-xl">No control yet</h2>
            <p class="mt-1">
              Place what operators press at the left: an emergency stop, a start and a stop, and a relay that
              remembers. Switches and solenoids of the sheet are there already.
            </p>
            <p class="mt-2 text-soft">
              Then add a path and type its contacts, for example
              <b class="font-lettering">/S1 · (S2 + K1)</b> for a start that holds itself until the stop:
              <b>·</b> in series, <b>+</b> parallel, <b>/</b>
              normally closed. A stop is wired normally closed, so that a broken wire stops too.
            </p>
            <p class="mt-3 flex gap-2">
              <button class="button-main" @click="addPath">Add a path</button>
              <button class="button" @click="addSteps">Add a step sequence</button>
            </p>
          </div>
        </div>
        <div v-else class="relative min-h-0 flex-1">
          <div class="h-full overflow-auto bg-paper p-3" @click="ui.selectRung(undefined)">
            <div :style="{ zoom: zoom / 100 }" @click.stop><ControlDrawing /></div>
          </div>
          <span
            class="absolute right-4 bottom-4 flex items-center rounded border border-rule bg-paper/90"
            aria-label="Size of the drawing"
            role="group"
          >
            <ToolButton label="Smaller" @click="zoomBy(-1)"><Minus :size="16" /></ToolButton>
            <span class="w-11 text-center text-[13px]">{{ zoom }} %</span>
            <ToolButton label="Larger" @click="zoomBy(1)"><Plus :size="16" /></ToolButton>
          </span>
        </div>
        <ControlPathEditor
          v-if="ui.rung"
          ref="pathEditor"
          :key="ui.rung"
          :rung-id="ui.rung"
          @next="addPath"
        />
        <div v-else class="border-t border-rule bg-pane px-2 py-1"><FindingsList /></div>
      </template>
      <ControlSequences v-else-if="ui.view === 'steps'" />
      <ControlProofs v-else />
    </div>
    <aside
      v-if="propertiesOpen"
      class="h-full w-64 shrink-0 overflow-auto border-l border-rule bg-pane p-3"
      aria-label="Properties"
      data-testid="control-properties"
    >
      <ControlDeviceProperties v-if="selection.devices[0]" :device="selection.devices[0]" />
      <ComponentProperties v-else-if="selection.components[0]" :component="selection.components[0]" />
      <p v-if="!selected" class="text-soft">
        Choose a contact, a coil or a device to see what it is and where it is used.
      </p>
      <ControlUses v-else-if="selection.devices[0]" :owner="selection.devices[0].id" />
    </aside>
  </div>
</template>
