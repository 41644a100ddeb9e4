<script setup lang="ts">
/** The sheet with its panes: palette and properties while drawing, charts while running. */
import { useEventListener } from '@vueuse/core'
import {
  Cable,
  Highlighter,
  Keyboard,
  Maximize,
  MousePointer2,
  PanelLeft,
  PanelRight,
  Search,
  Tag,
} from 'lucide-vue-next'
import { readSheet } from '@oar-bench/core/sheet/read'
import powerUnit from '../assets/examples/power-unit.json'

const props = defineProps<{ running: boolean; shown: boolean }>()
const sheetDocument = useSheetDocument()
const editor = useEditorUi()
const runs = useSimulationRuns()
const live = useLiveRun()
const canvas = useTemplateRef<{ fit(): void; reveal(id: string): void; placeByKeyboard(): void }>('canvas')
const palette = useTemplateRef<{ focus(): void }>('palette')

const { press } = useCommands()
// keys and controllers work a live run with its console closed as well
useLiveKeys()
/** Keys of a run: questions and walkthrough. A key that a live run is worked by has been taken before. */
const runKeys: Readonly<Record<string, () => void>> = {
  y: () => editor.togglePane('answers'),
  w: () => editor.togglePane('walkthrough'),
}
useEventListener('keydown', (event) => {
  if (!props.shown || !props.running || event.defaultPrevented || !runs.shown) return
  if (event.ctrlKey || event.metaKey || event.altKey || editor.dialog) return
  // the slider of the tape takes no letters
  if ((event.target as HTMLElement).matches('input:not([type=range], [type=checkbox]), textarea, select'))
    return
  const action = runKeys[event.key.toLowerCase()]
  if (!action) return
  action()
  event.preventDefault()
})
useEventListener('keydown', (event) => {
  if (!props.shown || props.running || event.defaultPrevented) return
  const typing = /^(INPUT|TEXTAREA|SELECT)$/.test((event.target as HTMLElement).tagName)
  if (event.key === '/' && !typing) {
    editor.setPane('palette', true)
    void nextTick(() => palette.value?.focus())
  } else {
    // elsewhere only what has no meaning of its own there
    const everywhere = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k'
    if (!(everywhere || (event.key === '?' && !typing)) || !press(event)) return
  }
  event.preventDefault()
})
watch(
  () => [props.shown, props.running],
  () => {
    // a run that is not shown is paused
    if (live.playing && !(props.shown && props.running)) void live.play(false)
    editor.placing = undefined
    editor.tool = 'select'
  },
)
function startPlacing() {
  canvas.value?.placeByKeyboard()
  ;(document.querySelector('[data-testid="sheet"]') as HTMLElement).focus()
}

function drawExample() {
  const read = readSheet(powerUnit)
  if (!read.ok) return
  sheetDocument.apply({ ...read.sheet, title: sheetDocument.sheet.title })
  void nextTick(() => canvas.value?.fit())
}
const hasControl = computed(() => {
  const { rungs, sequences } = sheetDocument.sheet.control
  return rungs.length + sequences.length > 0
})
/** Drawing and running keep their own choice of the pane. */
const properties = computed(() => (props.running ? 'runProperties' : 'properties'))
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex min-h-0 flex-1">
      <PalettePane v-if="editor.isPaneOpen('palette') && !running" ref="palette" @placing="startPlacing" />
      <div class="relative min-w-0 flex-1">
        <SheetCanvas ref="canvas" :running="running">
          <div class="absolute top-2 left-2 flex rounded border border-rule bg-paper/90">
            <template v-if="!running">
              <ToolButton
                hint="Components ( / )"
                label="Components"
                :pressed="editor.isPaneOpen('palette')"
                @click="editor.togglePane('palette')"
              >
                <PanelLeft :size="18" />
              </ToolButton>
              <ToolButton
                label="Select and move"
                :pressed="editor.tool === 'select'"
                @click="editor.tool = 'select'"
              >
                <MousePointer2 :size="18" />
              </ToolButton>
              <ToolButton
                hint="Connect (C)"
                label="Connect"
                :pressed="editor.tool === 'connect'"
                data-testid="tool-connect"
                @click="editor.tool = 'connect'"
              >
                <Cable :size="18" />
              </ToolButton>
              <select
                v-if="editor.tool === 'connect'"
                v-model="editor.lineType"
                class="field !w-auto !border-0"
                aria-label="Line type"
              >
                <option v-for="(label, name) in oilLineTypes" :key="name" :value="name">{{ label }}</option>
              </select>
            </template>
            <ToolButton
              hint="Colour lines by what they are for"
              label="Colour lines by what they are for"
              :pressed="editor.lineRoles"
              data-testid="show-roles"
              @click="editor.lineRoles = !editor.lineRoles"
            >
              <Highlighter :size="18" />
            </ToolButton>
            <ToolButton hint="Fit to window (F)" label="Fit to window" @click="canvas?.fit()">
              <Maximize :size="18" />
            </ToolButton>
            <template v-if="!running">
              <ToolButton
                hint="Settings and sizes beside the symbols"
                label="Settings beside the symbols"
                :pressed="editor.settings"
                @click="editor.settings = !editor.settings"
              >
                <Tag :size="18" />
              </ToolButton>
              <ToolButton
                hint="Find a component or a command (Ctrl K)"
                label="Find"
                data-testid="find"
                @click="editor.dialog = 'search'"
              >
                <Search :size="18" />
              </ToolButton>
              <ToolButton
                hint="Keyboard shortcuts (?)"
                label="Keyboard shortcuts"
                @click="editor.dialog = 'keys'"
              >
                <Keyboard :size="18" />
              </ToolButton>
              <FileMenu @read="nextTick(() => canvas?.fit())" />
            </template>
          </div>
          <div class="absolute top-2 right-2 flex rounded border border-rule bg-paper/90">
            <PaneButton v-if="running && live.open" pane="console" data-testid="open-console"
              >Console</PaneButton
            >
            <PaneButton
              v-if="running && runs.shown"
              pane="answers"
              hint="What sets a pressure, and where the oil goes (Y)"
              data-testid="ask"
              >Why?</PaneButton
            >
            <PaneButton
              v-if="running && runs.shown"
              pane="walkthrough"
              hint="What happens in the run, state by state (W)"
              data-testid="show-walkthrough"
              >Walkthrough</PaneButton
            >
            <PaneButton v-if="running && hasControl" pane="paths" data-testid="show-paths">Paths</PaneButton>
            <PaneButton v-if="running" pane="schedule" data-testid="edit-schedule">Schedule</PaneButton>
            <ToolButton
              label="Properties"
              :pressed="editor.isPaneOpen(properties)"
              @click="editor.togglePane(properties)"
            >
              <PanelRight :size="18" />
            </ToolButton>
          </div>
          <p
            v-if="editor.message"
            class="absolute top-12 left-2 max-w-md rounded border border-error bg-paper px-3 py-1.5 text-error"
            role="alert"
          >
            {{ editor.message }}
            <button class="ml-2 underline" @click="editor.showMessage('')">Close</button>
          </p>
          <p
            v-if="editor.placing"
            class="absolute bottom-3 left-1/2 -translate-x-1/2 rounded bg-ink px-3 py-1 text-paper"
            role="status"
          >
            Click or press Enter to place; R rotates, M mirrors, Esc cancels.
          </p>
          <div
            v-if="!sheetDocument.sheet.components.length && !editor.placing"
            class="pointer-events-none absolute inset-0 flex items-center justify-center"
          >
            <div class="max-w-md rounded border border-rule bg-paper p-5">
              <h2 class="font-lettering text-xl">An empty sheet</h2>
              <p class="mt-1">
                Start at the tank, as the oil does: a reservoir, a pump above it, a motor beside it. Put a
                relief valve on the pump line before anything can shut it off. Then the valve and its
                actuator, and the way back.
              </p>
              <p class="mt-2 text-soft">
                Press / and type a word, for example “pump”. Drag from port to port to draw a pipe; end on
                another pipe to connect to it.
              </p>
              <button class="button-main pointer-events-auto mt-3" @click="drawExample">
                Insert a power unit to start from
              </button>
            </div>
          </div>
          <PenLegend class="absolute top-13 left-2" />
          <PressureLegend v-if="running && runs.shown && !runs.outdated" />
          <SheetOperators v-if="running && live.open && !editor.isPaneOpen('console')" />
          <div v-if="!running" class="absolute bottom-2 left-2">
            <FindingsList drawing @reveal="canvas?.reveal($event)" />
          </div>
        </SheetCanvas>
      </div>
      <ControlPane v-if="running && hasControl && editor.isPaneOpen('paths')" />
      <SchedulePane
        v-if="running && editor.isPaneOpen('schedule')"
        @close="editor.setPane('schedule', false)"
      />
      <AnswerPane
        v-if="running && editor.isPaneOpen('answers')"
        @close="editor.setPane('answers', false)"
        @reveal="canvas?.reveal($event)"
      />
      <RunWalkthrough
        v-if="running && editor.isPaneOpen('walkthrough')"
        @close="editor.setPane('walkthrough', false)"
        @reveal="canvas?.reveal($event)"
      />
      <LiveConsole
        v-if="running && live.open && editor.isPaneOpen('console')"
        @close="editor.setPane('console', false)"
        @reveal="canvas?.reveal($event)"
      />
      <InspectorPane v-else-if="editor.isPaneOpen(properties)" />
    </div>
    <CommandSearch v-if="!running" />
    <KeySheet />
    <ContentsDialog />
    <RevisionsDialog v-if="!running" />
    <PrintDialog />
    <RunTape v-if="running" @reveal="canvas?.reveal($event)" />
  </div>
</template>
