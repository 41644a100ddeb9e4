<script setup lang="ts">
/** The strip below the sheet: commands, conditions and charts of a run over time. */
import { useElementSize } from '@vueuse/core'
import { ChevronDown, ChevronRight, Maximize2, Minimize2 } from 'lucide-vue-next'
import { asRead } from '@oar-bench/core/units/quantities'
import { valuesAt } from '@oar-bench/core/simulate/playback'
import type { Condition } from '@oar-bench/core/simulate/result'

const emit = defineEmits<{ reveal: [id: string] }>()
const sheetDocument = useSheetDocument()
const selection = useSelection()
const checks = useSheetChecks()
const editor = useEditorUi()
const runs = useSimulationRuns()
const live = useLiveRun()
const { show, number, unit, system } = useUnits()
const { dark } = useTheme()
const { shown, overlay } = storeToRefs(runs)

const result = computed(() => runs.shown?.result)
const designation = (id: string | undefined) =>
  runs.shown?.sheet.components.find((c) => c.id === id)?.designation ?? id ?? ''
const charts = useTapeCharts(shown, overlay, system, dark)
const allLanes = computed(() => (runs.shown ? commandLanes(runs.shown.result, runs.shown.sheet, show) : []))
/** Switches, relays and steps of the control are shown by choice: they are many. */
const contactLanes = useSetting('contact-lanes', true)
/** All lanes can be folded, so that the charts have their room. */
const commandsShown = useSetting('command-lanes', true)
const lanes = computed(() =>
  allLanes.value.filter((lane) => commandsShown.value && (contactLanes.value || !lane.place)),
)
const contactCount = computed(() => allLanes.value.filter((lane) => lane.place).length)
/** Values at the time that is shown. */
const values = computed(() => {
  const of = result.value
  return of && valuesAt(of, runs.time, new Float64Array(of.columns.length))
})

// ---- where things lie on the tape -----------------------------------------------------------
/** Width of the labels at the left, pixels. */
const LABEL_WIDTH = 176
const duration = computed(() => {
  const longest = Math.max(result.value?.duration ?? 0, runs.overlay?.result.duration ?? 0) || 1
  if (!live.open) return longest
  // a run that goes on has room ahead, and its axes stand still meanwhile
  const step = longest < 20 ? 5 : longest < 120 ? 20 : 60
  return Math.ceil((longest + 0.5) / step) * step
})
/** End of the slider; that of a run that grows stands still. */
const lastInstant = computed(() => (live.open ? duration.value : (result.value?.duration ?? 0)))
const body = useTemplateRef<HTMLDivElement>('body')
const { height: bodyHeight } = useElementSize(body)
const plot = reactive({ left: 56, width: 0 })
const doneByHand = computed(() => result.value?.actions.filter((a) => a.kind !== 'longestStep') ?? [])
const fixedRows = computed(() => 20 + lanes.value.length * 18 + 34 + (doneByHand.value.length ? 18 : 0))
const chartHeight = computed(() => {
  const room = bodyHeight.value - fixedRows.value - 4
  return Math.max(64, Math.floor(room / Math.max(1, charts.shown.value.length)))
})
const at = (t: number) => `${LABEL_WIDTH + plot.left + (t / duration.value) * plot.width}px`
const wide = (from: number, to: number) => `${(Math.max(0, to - from) / duration.value) * plot.width}px`

// ---- conditions -----------------------------------------------------------------------------
function conditionText(c: Condition): string {
  const who = c.node !== undefined ? '' : `${designation(c.component ?? c.pipe)} `
  const worst = c.worst ? `, ${c.worst.label} ${show(c.worst.value, c.worst.quantity, 3)}` : ''
  const span = c.end > c.start ? `${c.start.toFixed(2)} to ${c.end.toFixed(2)} s` : `${c.start.toFixed(2)} s`
  return `${span}: ${who}${c.label}${worst}`
}
/** Width of a letter of the labels, and room between two of them, pixels. */
const [LETTER, GAP] = [5.4, 10]
/** Names of conditions, from left to right, as many as have room; those that are worth more first. */
const conditionLabels = computed(() => {
  const worth = { danger: 0, warning: 1, info: 2 } as const
  const taken: [number, number][] = []
  const px = (t: number) => (t / duration.value) * plot.width
  return [...(result.value?.conditions ?? [])]
    .sort((a, b) => worth[a.severity] - worth[b.severity] || b.end - b.start - (a.end - a.start))
    .flatMap((c) => {
      const who = c.node === undefined ? designation(c.component ?? c.pipe) : ''
      const text = `${who} ${c.label}`.trim()
      const from = px(c.start)
      const to = from + text.length * LETTER + GAP
      if (to > plot.width || taken.some(([a, b]) => from < b && to > a)) return []
      taken.push([from, to])
      return [{ left: at(c.start), text }]
    })
})
function goTo(c: Condition) {
  runs.time = c.start
  const id = c.component ?? c.pipe
  if (!id) return
  selection.select([id])
  emit('reveal', id)
}

// ---- pointer --------------------------------------------------------------------------------
function scrub(event: PointerEvent) {
  if (!result.value || !(event.buttons & 1)) return
  const box = body.value!.getBoundingClientRect()
  const x = event.clientX - box.left - LABEL_WIDTH - plot.left
  // who looks back wants it to stand
  if (live.playing) void live.play(false)
  runs.time = Math.min(result.value.duration, Math.max(0, (x / plot.width) * duration.value))
}
/** Shows an instant. @param t s */
function lookAt(t: number) {
  if (live.playing) void live.play(false)
  runs.time = Math.min(t, result.value?.duration ?? 0)
}
function startScrubbing(event: PointerEvent) {
  if ((event.target as Element).closest('button, input')) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  scrub(event)
}
/** What the strip shows of the run. */
const view = useSetting<RunView>('run-view', 'charts')
const hasView = computed(() => view.value !== 'charts' && (!!result.value || view.value === 'states'))
/** The charts have the whole window, and the sheet none of it. */
const enlarged = ref(false)
const [SMALLEST, LARGEST, STEP] = [150, 640, 24]
const setHeight = (height: number) => (editor.tapeHeight = Math.min(LARGEST, Math.max(SMALLEST, height)))
function resize(event: PointerEvent) {
  const bottom = editor.tapeHeight + event.clientY
  const element = event.currentTarget as HTMLElement
  element.setPointerCapture(event.pointerId)
  element.onpointermove = (move) => setHeight(bottom - move.clientY)
  element.onpointerup = () => (element.onpointermove = null)
}
</script>

<template>
  <section
    class="flex flex-col border-t border-rule bg-pane"
    :style="{ height: enlarged ? '100%' : `${editor.tapeHeight}px` }"
    aria-label="Run"
    data-testid="tape"
  >
    <div
      class="h-1.5 shrink-0 cursor-row-resize hover:bg-accent-paper"
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the charts"
      :aria-valuenow="editor.tapeHeight"
      :aria-valuemin="SMALLEST"
      :aria-valuemax="LARGEST"
      tabindex="0"
      @pointerdown="resize"
      @keydown.up.prevent="setHeight(editor.tapeHeight + STEP)"
      @keydown.down.prevent="setHeight(editor.tapeHeight - STEP)"
    />
    <div class="flex items-start">
      <RunToolbar
        class="min-w-0 flex-1"
        :charts="charts"
        :with-charts="!hasView"
        :designation="designation"
        @reveal="emit('reveal', $event)"
      />
      <ToolButton
        v-if="result"
        class="mt-2 mr-2"
        :label="enlarged ? 'Show the sheet' : 'Run in the whole window'"
        :pressed="enlarged"
        data-testid="enlarge-tape"
        @click="enlarged = !enlarged"
      >
        <Minimize2 v-if="enlarged" :size="17" /><Maximize2 v-else :size="17" />
      </ToolButton>
    </div>
    <p v-if="runs.outdated && result" class="shrink-0 px-3 pb-1 text-caution" role="status">
      The sheet has changed since this run; the run is not shown on it.
      <button
        class="underline hover:text-accent"
        title="Undo takes it back"
        @click="sheetDocument.apply(runs.shown!.sheet)"
      >
        Restore its sheet
      </button>
    </p>
    <p v-if="live.open && live.message" class="shrink-0 px-3 pb-1" role="status" data-testid="live-message">
      {{ live.message }}
    </p>
    <p v-if="runs.problem" class="shrink-0 px-3 pb-1 text-error" role="alert">{{ runs.problem }}</p>

    <RunViewTabs v-model="view" class="shrink-0 px-3" />
    <div v-if="hasView" class="min-h-0 flex-1" data-testid="run-view">
      <RunStrokes v-if="view === 'strokes'" @reveal="emit('reveal', $event)" />
      <RunStates v-else-if="view === 'states'" @reveal="emit('reveal', $event)" />
      <RunEnergy v-else-if="view === 'energy'" @reveal="emit('reveal', $event)" />
      <RunCompare v-else-if="view === 'compare'" />
    </div>
    <div
      v-else
      ref="body"
      class="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
      @pointerdown="startScrubbing"
      @pointermove="scrub"
    >
      <p v-if="!result" class="px-3 py-4 text-soft">
        <template v-if="checks.errors.length">
          The sheet cannot be run yet: {{ checks.errors[0].message }}
        </template>
        <template v-else>
          Press Run: the circuit is simulated as it is drawn. Commands, conditions and charts over time are
          shown here.
        </template>
      </p>
      <template v-else>
        <div class="flex h-5 items-center">
          <span class="flex shrink-0 pl-3 text-[13px] text-soft" :style="{ width: `${LABEL_WIDTH}px` }"
            ><button
              v-if="allLanes.length"
              class="flex items-center hover:text-accent"
              :aria-expanded="commandsShown"
              :title="commandsShown ? 'Fold the commands' : 'Show the commands'"
              data-testid="fold-lanes"
              @click="commandsShown = !commandsShown"
            >
              <ChevronDown v-if="commandsShown" :size="14" aria-hidden="true" /><ChevronRight
                v-else
                :size="14"
                aria-hidden="true"
              />Time</button
            ><span v-else>Time</span
            ><button
              v-if="contactCount && commandsShown"
              class="ml-auto underline hover:text-accent"
              :aria-pressed="contactLanes"
              data-testid="contact-lanes"
              @click="contactLanes = !contactLanes"
            >
              {{ contactLanes ? 'hide' : 'show' }} {{ contactCount }} contacts
            </button></span
          >
          <input
            :value="runs.time"
            type="range"
            class="time absolute"
            :style="{
              left: `calc(${at(0)} - 7px)`,
              width: `${(lastInstant / duration) * plot.width + 14}px`,
            }"
            min="0"
            :max="lastInstant"
            step="0.01"
            aria-label="Time"
            data-testid="time-slider"
            @input="lookAt(Number(($event.target as HTMLInputElement).value))"
          />
        </div>
        <TapeLanes
          :result="result"
          :lanes="lanes"
          :done="doneByHand"
          :at="at"
          :wide="wide"
          :label-width="LABEL_WIDTH"
          :condition-text="conditionText"
          :condition-labels="conditionLabels"
          @choose="goTo"
          @instant="lookAt"
        />
        <div v-for="(p, i) in charts.panels.value" :key="p.quantity" class="flex">
          <ul
            class="shrink-0 overflow-hidden pl-3 text-xs leading-[15px]"
            :style="{ width: `${LABEL_WIDTH}px`, height: `${chartHeight}px` }"
          >
            <li class="text-soft">{{ chartLabels[p.quantity] }}, {{ unit(p.quantity) }}</li>
            <li v-for="t in p.traces" :key="t.id" class="flex gap-1.5">
              <span class="mt-1.5 h-0.5 w-3 shrink-0" :style="{ background: t.colour }" />
              <span class="truncate" :title="t.label">{{ t.label }}</span>
              <span class="ml-auto pr-1 font-semibold" :style="{ color: t.colour }">{{
                values ? number(asRead(values[t.index], p.quantity), p.quantity, 3) : ''
              }}</span>
            </li>
          </ul>
          <div class="min-w-0 flex-1" :style="{ height: `${chartHeight}px` }">
            <TapeChart
              :series="p.series"
              :duration="duration"
              :height="chartHeight"
              :last="i === charts.panels.value.length - 1"
              :dark="dark"
              :growing="live.open"
              @plot="(left, width) => Object.assign(plot, { left, width })"
            />
          </div>
        </div>
        <div
          class="pointer-events-none absolute top-0 w-px bg-accent"
          :style="{ left: at(runs.time), height: `${fixedRows + chartHeight * charts.shown.value.length}px` }"
        />
      </template>
    </div>
  </section>
</template>

<style scoped>
.time {
  height: 16px;
  accent-color: var(--accent);
}
</style>
