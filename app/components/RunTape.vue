<script setup lang="ts">
/** The strip below the sheet: commands, conditions and charts over time, and the instant looked at. */
import { useElementSize, useRafFn } from '@vueuse/core'
import { Activity, Pause, Play, Save, Square, StepBack, Zap } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { commandableOf } from '@oar-bench/core/catalogue/kind'
import { asRead, shownUnit } from '@oar-bench/core/units/quantities'
import { valuesAt } from '@oar-bench/core/simulate/playback'
import { BALANCE_WARNING } from '@oar-bench/core/simulate/result'
import { valueAt, type Condition, type RunResult } from '@oar-bench/core/simulate/result'
import type { ChartSeries } from './TapeChart.client.vue'

const emit = defineEmits<{ reveal: [id: string] }>()
const sheetDocument = useSheetDocument()
const selection = useSelection()
const checks = useSheetChecks()
const editor = useEditorUi()
const runs = useSimulationRuns()
const { show, number, unit, system } = useUnits()
const { dark } = useTheme()

const result = computed(() => runs.shown?.result)
const designation = (id: string | undefined) =>
  runs.shown?.sheet.components.find((c) => c.id === id)?.designation ?? id ?? ''

// ---- charts -------------------------------------------------------------------------------
const wanted = ref<ChartQuantity[]>(['length', 'rotationalSpeed', 'pressure'])
/** Charts that the shown run has something for. */
const available = computed(() =>
  result.value ? chartQuantities.filter((q) => firstSignals(result.value!, q).length > 0) : [],
)
const charts = computed(() => {
  const shown = available.value.filter((q) => wanted.value.includes(q))
  return shown.length ? shown : available.value.slice(0, 1)
})
const chosen = reactive<Partial<Record<ChartQuantity, string[]>>>({})
const idsOf = (q: ChartQuantity, r: RunResult) => {
  const there = new Set(r.signals.map((s) => s.id))
  const own = chosen[q]?.filter((id) => there.has(id))
  return own?.length ? own : firstSignals(r, q)
}
function toggleChart(q: ChartQuantity) {
  const next = charts.value.includes(q) ? charts.value.filter((c) => c !== q) : [...charts.value, q]
  if (next.length) wanted.value = next
}
function toggleSignal(q: ChartQuantity, id: string) {
  const now = idsOf(q, result.value!)
  const next = now.includes(id) ? now.filter((n) => n !== id) : [...now, id].slice(-mostTraces)
  if (next.length) chosen[q] = next
}
const shortLabel = (r: RunResult, index: number) => {
  const s = r.signals[index]
  if (s.node !== undefined) return r.lines[s.node]
  return `${designation(s.component ?? s.pipe)} ${s.label}`
}
const panels = computed(() => {
  const r = result.value
  if (!r) return []
  const colours = traceColours(dark.value)
  const over = runs.overlay?.result
  return charts.value.map((quantity) => {
    const u = shownUnit(quantity, system.value)
    const traces = idsOf(quantity, r).map((id, k) => {
      const index = r.signals.findIndex((s) => s.id === id)
      return { id, index, label: shortLabel(r, index), colour: colours[k % colours.length] }
    })
    const series: ChartSeries[] = traces.map((t) => ({
      name: t.label,
      data: thinned(r, t.index, u),
      colour: t.colour,
      dashed: false,
    }))
    if (over)
      for (const t of traces) {
        const index = over.signals.findIndex((s) => s.id === t.id)
        if (index >= 0)
          series.push({
            name: `${t.label}, ${runs.overlay!.name}`,
            data: thinned(over, index, u),
            colour: t.colour,
            dashed: true,
          })
      }
    return { quantity, unit: u.symbol, traces, series }
  })
})
const duration = computed(
  () => Math.max(result.value?.duration ?? 0, runs.overlay?.result.duration ?? 0) || 1,
)

const body = useTemplateRef<HTMLDivElement>('body')
const { height: bodyHeight } = useElementSize(body)
const plot = reactive({ left: 56, width: 0 })
const fixedRows = computed(() => 20 + lanes.value.length * 18 + 22)
const chartHeight = computed(() =>
  Math.max(64, Math.floor((bodyHeight.value - fixedRows.value - 4) / Math.max(1, charts.value.length))),
)
const COLUMN = 176
const at = (t: number) => `${COLUMN + plot.left + (t / duration.value) * plot.width}px`
const wide = (from: number, to: number) => `${(Math.max(0, to - from) / duration.value) * plot.width}px`

/** Values at the cursor. */
const frame = computed(() => {
  const r = result.value
  return r ? valuesAt(r, runs.time, new Float64Array(r.columns.length)) : undefined
})

// ---- commands and conditions --------------------------------------------------------------
const lanes = computed(() => {
  const r = result.value
  if (!r) return []
  return r.signals.flatMap((s, index) => {
    const e = r.extremes[index]
    if (s.role !== 'input' || e.max === e.min) return []
    const component = runs.shown!.sheet.components.find((c) => c.id === s.component)
    const spec =
      component &&
      commandableOf(findKind(component.kind) ?? {}).find((i) => `${component.id}.${i.name}` === s.id)
    const column = r.columns[index]
    const parts: { from: number; to: number; value: number }[] = []
    for (let k = 0; k < column.length; k++) {
      const last = parts[parts.length - 1]
      if (last && last.value === column[k]) last.to = r.times[k]
      else {
        if (last) last.to = r.times[k]
        parts.push({ from: r.times[k], to: r.times[k], value: column[k] })
      }
    }
    // more parts than a hand could command: a ramp, drawn as a line
    const ramped = parts.length > 60
    const profile = ramped
      ? thinned(r, index, shownUnit(s.quantity, system.value), 240)
          .map(([t]) => t)
          .map((t) => `${t},${15 - (14 * (valueAt(r, index, t) - e.min)) / (e.max - e.min)}`)
          .join(' ')
      : ''
    const blocks = ramped ? [] : parts
    return [
      {
        id: s.id,
        label: `${designation(s.component)} ${s.label}`,
        profile,
        ends: `${show(e.min, s.quantity, 3)} to ${show(e.max, s.quantity, 3)}`,
        blocks: blocks.map((b) => ({
          ...b,
          idle: spec?.positions ? b.value === 0 : false,
          words:
            spec?.positions?.find((p) => Math.abs(p.value - b.value) < 1e-6)?.label ??
            show(b.value, s.quantity, 3),
        })),
      },
    ]
  })
})
const conditionWords = (c: Condition) => {
  const who = c.node !== undefined ? '' : `${designation(c.component ?? c.pipe)} `
  const worst = c.worst ? `, ${c.worst.label} ${show(c.worst.value, c.worst.quantity, 3)}` : ''
  const span = c.end > c.start ? `${c.start.toFixed(2)} to ${c.end.toFixed(2)} s` : `${c.start.toFixed(2)} s`
  return `${span}: ${who}${c.label}${worst}`
}
function goTo(c: Condition) {
  runs.time = c.start
  const id = c.component ?? c.pipe
  if (id) {
    selection.select([id])
    emit('reveal', id)
  }
}

// ---- the instant --------------------------------------------------------------------------
const playing = ref(false)
const pace = ref(1)
const { pause, resume } = useRafFn(
  ({ delta }) => {
    if (!result.value) return
    const next = runs.time + (pace.value * delta) / 1000
    if (next >= result.value.duration) {
      runs.time = result.value.duration
      playing.value = false
    } else runs.time = next
  },
  { immediate: false },
)
watch(playing, (on) => (on ? resume() : pause()))
watch(
  () => runs.shown,
  () => (playing.value = false),
)
function play() {
  if (!playing.value && result.value && runs.time >= result.value.duration) runs.time = 0
  playing.value = !playing.value
}
function scrub(event: PointerEvent) {
  if (!result.value || !(event.buttons & 1)) return
  const box = body.value!.getBoundingClientRect()
  const x = event.clientX - box.left - COLUMN - plot.left
  runs.time = Math.min(result.value.duration, Math.max(0, (x / plot.width) * duration.value))
}
function grab(event: PointerEvent) {
  if ((event.target as Element).closest('button, input')) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  scrub(event)
}

// ---- height -------------------------------------------------------------------------------
function resize(event: PointerEvent) {
  const start = event.clientY
  const from = editor.tapeHeight
  const element = event.currentTarget as Element
  element.setPointerCapture(event.pointerId)
  const drag = (e: Event) => {
    editor.tapeHeight = Math.min(640, Math.max(150, from + start - (e as PointerEvent).clientY))
  }
  element.addEventListener('pointermove', drag)
  element.addEventListener('pointerup', () => element.removeEventListener('pointermove', drag), {
    once: true,
  })
}

// ---- keeping ------------------------------------------------------------------------------
const nameToKeep = ref('')
async function keep(close: () => void) {
  await runs.keep(
    nameToKeep.value.trim() ||
      `Run of ${new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`,
  )
  nameToKeep.value = ''
  close()
}
const kJ = (v: number) => show(v, 'energy', 4)
</script>

<template>
  <section
    class="flex flex-col border-t border-rule bg-pane"
    :style="{ height: `${editor.tapeHeight}px` }"
    aria-label="Tape"
    data-testid="tape"
  >
    <div
      class="h-1.5 shrink-0 cursor-row-resize hover:bg-accent-paper"
      role="separator"
      aria-orientation="horizontal"
      aria-label="Height of the tape"
      :aria-valuenow="editor.tapeHeight"
      aria-valuemin="150"
      aria-valuemax="640"
      tabindex="0"
      @pointerdown="resize"
      @keydown.up.prevent="editor.tapeHeight = Math.min(640, editor.tapeHeight + 24)"
      @keydown.down.prevent="editor.tapeHeight = Math.max(150, editor.tapeHeight - 24)"
    />
    <div class="flex shrink-0 flex-wrap items-center gap-2 px-3 pb-1">
      <button
        v-if="!runs.solving"
        class="button-main"
        data-testid="run"
        :disabled="checks.errors.length > 0"
        @click="runs.start()"
      >
        <Zap :size="16" aria-hidden="true" />Run
      </button>
      <button v-else class="button-main" data-testid="stop" @click="runs.stop()">
        <Square :size="15" aria-hidden="true" />Stop, {{ Math.round(runs.progress * 100) }} %
      </button>
      <select
        v-if="sheetDocument.sheet.schedules.length > 1"
        v-model="sheetDocument.scheduleId"
        class="field !w-44"
        aria-label="Schedule"
      >
        <option v-for="s in sheetDocument.sheet.schedules" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select>
      <FindingsList @reveal="emit('reveal', $event)" />
      <template v-if="result">
        <span class="mx-1 h-5 border-l border-rule" />
        <ToolButton label="Back to the start" @click="runs.time = 0">
          <StepBack :size="17" />
        </ToolButton>
        <ToolButton :hint="playing ? 'Hold' : 'Play'" :label="playing ? 'Hold' : 'Play'" @click="play">
          <Pause v-if="playing" :size="17" /><Play v-else :size="17" />
        </ToolButton>
        <select v-model.number="pace" class="field !w-auto" aria-label="Pace">
          <option :value="0.05">1 : 20 slow</option>
          <option :value="0.25">1 : 4 slow</option>
          <option :value="1">real time</option>
          <option :value="4">4 × fast</option>
        </select>
        <output class="min-w-18 text-right font-semibold" data-testid="time"
          >{{ runs.time.toFixed(2) }} s</output
        >
        <span class="mx-1 h-5 border-l border-rule" />
        <div class="flex" role="group" aria-label="Charts">
          <button
            v-for="q in chartQuantities"
            :key="q"
            class="border border-rule px-2 py-0.5 first:rounded-l last:rounded-r not-first:border-l-0"
            :class="charts.includes(q) ? 'bg-accent-paper text-accent' : 'bg-paper text-soft'"
            :aria-pressed="charts.includes(q)"
            :disabled="!available.includes(q)"
            @click="toggleChart(q)"
          >
            {{ chartWords[q] }}
          </button>
        </div>
        <PopUp panel-class="w-80 p-2">
          <template #button><Activity :size="16" aria-hidden="true" />Signals</template>
          <template #default>
            <fieldset v-for="q in charts" :key="q" class="mb-2">
              <legend class="heading">{{ chartWords[q] }}, up to {{ mostTraces }}</legend>
              <label
                v-for="{ signal, index } in chartSignals(result, q)"
                :key="signal.id"
                class="flex items-center gap-2 px-1 py-0.5"
              >
                <input
                  type="checkbox"
                  class="accent-(--accent)"
                  :checked="idsOf(q, result).includes(signal.id)"
                  @change="toggleSignal(q, signal.id)"
                />
                {{ shortLabel(result, index) }}
              </label>
            </fieldset>
          </template>
        </PopUp>
        <PopUp v-if="!runs.shown?.id" testid="keep" panel-class="w-72 p-3">
          <template #button><Save :size="16" aria-hidden="true" />Keep</template>
          <template #default="{ close }">
            <form class="space-y-2" @submit.prevent="keep(close)">
              <label class="block">
                <span class="mb-0.5 block text-[13px] text-soft">Name of the run</span>
                <input
                  v-model="nameToKeep"
                  class="field"
                  maxlength="80"
                  placeholder="for example relief at 180 bar"
                />
              </label>
              <p class="text-xs text-soft">Kept with the exact sheet it came from.</p>
              <button class="button-main" :disabled="runs.keeping">Keep this run</button>
            </form>
          </template>
        </PopUp>
        <PopUp panel-class="w-80 p-3 text-[13px]">
          <template #button>Balance</template>
          <template #default>
            <h3 class="heading">Energy</h3>
            <dl class="grid grid-cols-[1fr_auto] gap-x-3">
              <dt>put in at shafts</dt>
              <dd class="text-right">{{ kJ(result.energy.input) }}</dd>
              <dt>useful work</dt>
              <dd class="text-right">{{ kJ(result.energy.useful) }}</dd>
              <dt>heat</dt>
              <dd class="text-right">{{ kJ(result.energy.heat) }}</dd>
              <template v-for="h in result.energy.heatBy.slice(0, 6)" :key="h.id">
                <dt class="pl-3 text-soft">in {{ designation(h.id) }}</dt>
                <dd class="text-right text-soft">{{ kJ(h.heat) }}</dd>
              </template>
              <dt>stored</dt>
              <dd class="text-right">{{ kJ(result.energy.stored) }}</dd>
              <dt>error</dt>
              <dd class="text-right" :class="result.energy.error > BALANCE_WARNING ? 'text-error' : ''">
                {{ number(100 * result.energy.error, 'ratio', 2) }} %
              </dd>
            </dl>
            <h3 class="heading mt-2">Oil</h3>
            <dl class="grid grid-cols-[1fr_auto] gap-x-3">
              <dt>from the tanks</dt>
              <dd class="text-right">{{ show(result.oil.supplied, 'volume', 4) }}</dd>
              <dt>in chambers and compressed</dt>
              <dd class="text-right">{{ show(result.oil.stored, 'volume', 4) }}</dd>
              <dt>error</dt>
              <dd class="text-right" :class="result.oil.error > BALANCE_WARNING ? 'text-error' : ''">
                {{ number(100 * result.oil.error, 'ratio', 2) }} %
              </dd>
            </dl>
            <p v-for="warning in result.warnings" :key="warning" class="mt-2 text-caution">{{ warning }}</p>
            <p class="mt-2 text-soft">
              {{ result.statistics.steps }} steps, {{ result.statistics.rejected }} rejected,
              {{ result.statistics.events }} events. Results support a qualified person's judgement; they do
              not replace it.
            </p>
          </template>
        </PopUp>
      </template>
      <KeptRuns v-if="runs.kept.length" />
      <span v-if="runs.shown?.id && !runs.outdated" class="truncate text-soft">{{ runs.shown.name }}</span>
    </div>
    <p v-if="runs.outdated && result" class="shrink-0 px-3 pb-1 text-caution" role="status">
      The sheet has changed since this run, so the sheet does not show it.
      <button
        class="underline hover:text-accent"
        title="Undo takes it back"
        @click="sheetDocument.apply(runs.shown!.sheet)"
      >
        Bring back its sheet
      </button>
    </p>
    <p v-if="runs.problem" class="shrink-0 px-3 pb-1 text-error" role="alert">{{ runs.problem }}</p>

    <div
      ref="body"
      class="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto"
      @pointerdown="grab"
      @pointermove="scrub"
    >
      <p v-if="!result" class="px-3 py-4 text-soft">
        <template v-if="checks.errors.length">
          The sheet cannot be run yet: {{ checks.errors[0].message }}
        </template>
        <template v-else>
          Press Run. The sheet as it is drawn is turned into equations and solved; what happens then lies here
          as a tape that can be scrubbed.
        </template>
      </p>
      <template v-else>
        <div class="flex h-5 items-center">
          <span class="shrink-0 pl-3 text-[13px] text-soft" :style="{ width: `${COLUMN}px` }">Instant</span>
          <input
            v-model.number="runs.time"
            type="range"
            class="instant absolute"
            :style="{
              left: `calc(${at(0)} - 7px)`,
              width: `${(result.duration / duration) * plot.width + 14}px`,
            }"
            min="0"
            :max="result.duration"
            step="0.01"
            aria-label="Instant"
            data-testid="instant"
          />
        </div>
        <div v-for="lane in lanes" :key="lane.id" class="relative h-4.5">
          <span class="absolute left-0 truncate pl-3 text-[13px]" :style="{ width: `${COLUMN - 4}px` }">{{
            lane.label
          }}</span>
          <svg
            v-if="lane.profile"
            class="absolute top-px h-4"
            :style="{ left: at(0), width: wide(0, result.duration) }"
            :viewBox="`0 0 ${result.duration} 16`"
            preserveAspectRatio="none"
            role="img"
            :aria-label="`${lane.label}, ${lane.ends}`"
          >
            <title>{{ lane.ends }}</title>
            <polyline
              :points="lane.profile"
              fill="none"
              stroke="var(--accent)"
              stroke-width="1.5"
              vector-effect="non-scaling-stroke"
            />
          </svg>
          <span
            v-for="b in lane.blocks"
            :key="b.from"
            class="absolute top-px h-4 overflow-hidden border-l border-ink/40 px-1 font-lettering text-xs leading-4 whitespace-nowrap"
            :class="b.idle ? 'text-soft' : 'bg-accent-paper text-accent'"
            :style="{ left: at(b.from), width: wide(b.from, b.to) }"
            :title="`${b.words}, ${b.from.toFixed(2)} to ${b.to.toFixed(2)} s`"
            >{{ b.words }}</span
          >
        </div>
        <div class="relative h-5.5" data-testid="conditions">
          <span class="absolute left-0 pl-3 text-[13px]">Conditions</span>
          <button
            v-for="(c, i) in result.conditions"
            :key="i"
            class="condition absolute"
            :class="[c.severity, c.end > c.start ? 'span' : 'mark']"
            :style="{
              left: at(c.start),
              width: c.end > c.start ? `max(3px, ${wide(c.start, c.end)})` : undefined,
            }"
            :title="conditionWords(c)"
            :aria-label="conditionWords(c)"
            @click="goTo(c)"
          />
        </div>
        <div v-for="(p, i) in panels" :key="p.quantity" class="flex">
          <ul
            class="shrink-0 overflow-hidden pl-3 text-xs leading-[15px]"
            :style="{ width: `${COLUMN}px`, height: `${chartHeight}px` }"
          >
            <li class="text-soft">{{ chartWords[p.quantity] }}, {{ unit(p.quantity) }}</li>
            <li v-for="t in p.traces" :key="t.id" class="flex gap-1.5">
              <span class="mt-1.5 h-0.5 w-3 shrink-0" :style="{ background: t.colour }" />
              <span class="truncate" :title="t.label">{{ t.label }}</span>
              <span class="ml-auto pr-1 font-semibold" :style="{ color: t.colour }">{{
                frame ? number(asRead(frame[t.index], p.quantity), p.quantity, 3) : ''
              }}</span>
            </li>
          </ul>
          <div class="min-w-0 flex-1" :style="{ height: `${chartHeight}px` }">
            <TapeChart
              :series="p.series"
              :duration="duration"
              :height="chartHeight"
              :last="i === panels.length - 1"
              :dark="dark"
              @plot="(left, width) => Object.assign(plot, { left, width })"
            />
          </div>
        </div>
        <div
          class="pointer-events-none absolute top-0 w-px bg-accent"
          :style="{ left: at(runs.time), height: `${fixedRows + chartHeight * charts.length}px` }"
        />
      </template>
    </div>
  </section>
</template>

<style>
.instant {
  height: 16px;
  accent-color: var(--accent);
}
.condition {
  top: 4px;
  height: 16px;
}
.condition.span {
  border-radius: 2px;
  opacity: 0.75;
}
.condition.span.info {
  background: color-mix(in srgb, var(--soft) 55%, transparent);
  height: 8px;
  top: 14px;
}
.condition.span.warning {
  background: var(--caution);
  height: 8px;
  top: 3px;
  background-image: repeating-linear-gradient(135deg, transparent 0 3px, var(--pane) 3px 4.5px);
}
.condition.span.danger {
  background: var(--error);
  height: 8px;
  top: 3px;
}
.condition.mark {
  width: 12px;
  margin-left: -6px;
  background: var(--ink);
  clip-path: polygon(50% 100%, 15% 40%, 15% 0, 85% 0, 85% 40%);
  z-index: 1;
}
.condition:hover,
.condition:focus-visible {
  opacity: 1;
  filter: brightness(1.2);
}
</style>
