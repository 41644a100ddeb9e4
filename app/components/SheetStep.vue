<script setup lang="ts">
/** The sheet with what stands around it: palette and properties while drawing, the tape while running. */
import { useEventListener } from '@vueuse/core'
import { Cable, Keyboard, Maximize, MousePointer2, PanelLeft, PanelRight, Search, Tag } from 'lucide-vue-next'
import { readSheet } from '@oar-bench/core/sheet/read'
import powerUnit from '../assets/examples/power-unit.json'

const props = defineProps<{ running: boolean; shown: boolean }>()
const drawing = useDrawing()
const desk = useDesk()
const run = useRun()
const canvas = useTemplateRef<{ fit(): void; reveal(id: string): void; placeInMiddle(): void }>('canvas')
const palette = useTemplateRef<{ focus(): void }>('palette')

const { press } = useCommands()
useEventListener('keydown', (event) => {
  if (!props.shown || props.running || event.defaultPrevented) return
  const typing = /^(INPUT|TEXTAREA|SELECT)$/.test((event.target as HTMLElement).tagName)
  if (event.key === '/' && !typing) {
    desk.palette = true
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
    desk.placing = undefined
    desk.tool = 'select'
  },
)
function startPlacing() {
  canvas.value?.placeInMiddle()
  ;(document.querySelector('[data-testid="sheet"]') as HTMLElement).focus()
}

function drawExample() {
  const read = readSheet(powerUnit)
  if (!read.ok) return
  drawing.apply({ ...read.sheet, title: drawing.sheet.title })
  void nextTick(() => canvas.value?.fit())
}
const showSchedule = ref(false)
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="flex min-h-0 flex-1">
      <PalettePane v-if="desk.palette && !running" ref="palette" @placing="startPlacing" />
      <main class="relative min-w-0 flex-1">
        <SheetCanvas ref="canvas" :running="running">
          <div class="absolute top-2 left-2 flex rounded border border-rule bg-paper/90">
            <template v-if="!running">
              <ToolButton
                hint="Components ( / )"
                label="Components"
                :pressed="desk.palette"
                @click="desk.palette = !desk.palette"
              >
                <PanelLeft :size="18" />
              </ToolButton>
              <ToolButton
                label="Select and move"
                :pressed="desk.tool === 'select'"
                @click="desk.tool = 'select'"
              >
                <MousePointer2 :size="18" />
              </ToolButton>
              <ToolButton
                hint="Lay pipes (C)"
                label="Lay pipes"
                :pressed="desk.tool === 'connect'"
                data-testid="tool-connect"
                @click="desk.tool = 'connect'"
              >
                <Cable :size="18" />
              </ToolButton>
              <select
                v-if="desk.tool === 'connect'"
                v-model="desk.lineKind"
                class="field !w-auto !border-0"
                aria-label="Kind of line"
              >
                <option value="working">working line</option>
                <option value="pilot">pilot line</option>
                <option value="drain">drain line</option>
                <option value="hose">flexible hose</option>
              </select>
            </template>
            <ToolButton hint="Fit to window (F)" label="Fit to window" @click="canvas?.fit()">
              <Maximize :size="18" />
            </ToolButton>
            <template v-if="!running">
              <ToolButton
                hint="Settings and sizes beside the symbols"
                label="Settings beside the symbols"
                :pressed="desk.settings"
                @click="desk.settings = !desk.settings"
              >
                <Tag :size="18" />
              </ToolButton>
              <ToolButton
                hint="Find a component or a command (Ctrl K)"
                label="Find"
                data-testid="find"
                @click="desk.searching = true"
              >
                <Search :size="18" />
              </ToolButton>
              <ToolButton hint="All keys (?)" label="All keys" @click="desk.showingKeys = true">
                <Keyboard :size="18" />
              </ToolButton>
              <FileMenu @read="nextTick(() => canvas?.fit())" />
            </template>
          </div>
          <div class="absolute top-2 right-2 flex rounded border border-rule bg-paper/90">
            <button
              v-if="running"
              class="px-2 py-1 hover:text-accent"
              :aria-pressed="showSchedule"
              data-testid="edit-schedule"
              @click="showSchedule = !showSchedule"
            >
              Schedule
            </button>
            <ToolButton
              label="Properties"
              :pressed="running ? desk.runInspector : desk.inspector"
              @click="running ? (desk.runInspector = !desk.runInspector) : (desk.inspector = !desk.inspector)"
            >
              <PanelRight :size="18" />
            </ToolButton>
          </div>
          <p
            v-if="desk.message"
            class="absolute top-12 left-2 max-w-md rounded border border-error bg-paper px-3 py-1.5 text-error"
            role="alert"
          >
            {{ desk.message }}
            <button class="ml-2 underline" @click="desk.say('')">Close</button>
          </p>
          <p
            v-if="desk.placing"
            class="absolute bottom-3 left-1/2 -translate-x-1/2 rounded bg-ink px-3 py-1 text-paper"
            role="status"
          >
            Click or press Enter to place; R turns, M mirrors, Esc gives up.
          </p>
          <div
            v-if="!drawing.sheet.components.length && !desk.placing"
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
                Press / and type a word, for example “pump”. Drag from port to port to lay a pipe; let go on
                another pipe to join it.
              </p>
              <button class="button-main pointer-events-auto mt-3" @click="drawExample">
                Draw a power unit to start from
              </button>
            </div>
          </div>
          <PressureLegend v-if="running && run.shown && !run.outdated" />
          <div v-if="!running" class="absolute bottom-2 left-2">
            <FindingsList @reveal="canvas?.reveal($event)" />
          </div>
        </SheetCanvas>
      </main>
      <SchedulePane v-if="running && showSchedule" @close="showSchedule = false" />
      <InspectorPane v-if="running ? desk.runInspector : desk.inspector" />
    </div>
    <CommandSearch v-if="!running" />
    <KeySheet />
    <ContentsDialog />
    <RevisionsDialog v-if="!running" />
    <PrintDialog />
    <RunTape v-if="running" @reveal="canvas?.reveal($event)" />
  </div>
</template>
