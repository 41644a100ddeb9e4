<script setup lang="ts">
/** Stroke–step diagram: where each actuator stands over time, as intended and as simulated, with signals and what differs. */
import { useElementSize } from '@vueuse/core'
import { strokeLayout } from '@oar-bench/core/formats/stroke-layout'
import { instantText, withoutNoise } from '@oar-bench/core/explain/words'

const emit = defineEmits<{ reveal: [id: string] }>()
const runs = useSimulationRuns()
const sheetDocument = useSheetDocument()
const { goTo, look } = useRunPlaces((id) => emit('reveal', id))
const { show } = useUnits()
const { exportFormat } = useFormatExport()
const questions = useRunQuestions()
const {
  answer: diagram,
  busy,
  problem,
} = useRunAnswer(
  (run) => questions.strokes(run),
  () => sheetDocument.brief,
)
const read = withoutNoise(show)
const drawing = useTemplateRef<SVGSVGElement>('drawing')
const box = useTemplateRef<HTMLElement>('box')
const { width: measured } = useElementSize(box)

const [LEFT, RIGHT, ROW, GAP, TOP, BOTTOM] = [128, 16, 52, 16, 26, 24]
const width = computed(() => Math.max(480, measured.value - 8 || 900))
const height = computed(() => TOP + (diagram.value?.rows.length ?? 0) * (ROW + GAP) + BOTTOM)
const xAt = (t: number) => LEFT + (t / (diagram.value?.duration || 1)) * (width.value - LEFT - RIGHT)
const timeAt = (x: number) =>
  Math.max(0, ((x - LEFT) / (width.value - LEFT - RIGHT)) * (diagram.value?.duration ?? 0))
const layout = computed(
  () =>
    diagram.value &&
    strokeLayout(diagram.value, {
      left: LEFT,
      width: width.value - LEFT - RIGHT,
      top: TOP,
      row: ROW,
      pitch: ROW + GAP,
      letter: 8,
      apart: 14,
    }),
)
const asPoints = (points: readonly (readonly [number, number])[]) =>
  points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')
const hasIntended = computed(() => !!diagram.value?.rows.some(({ intended }) => intended.length))
function showDifference({ at, part }: { at: number; part?: string }): void {
  goTo(at)
  look(part)
}
function pick(event: PointerEvent): void {
  if (!drawing.value) return
  goTo(timeAt(event.clientX - drawing.value.getBoundingClientRect().left))
}
</script>

<template>
  <div ref="box" class="h-full overflow-auto px-3 pb-3" data-testid="strokes">
    <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
    <p v-else-if="busy && !diagram" class="text-soft" role="status">Working it out …</p>
    <p v-else-if="diagram && !diagram.rows.length" class="text-soft">Nothing on this sheet moves.</p>
    <template v-else-if="diagram && layout">
      <div class="mb-1 flex flex-wrap items-center gap-4 text-[13px]">
        <span class="flex items-center gap-1.5"
          ><svg width="28" height="6" aria-hidden="true">
            <line x1="0" x2="28" y1="3" y2="3" class="stroke-accent" stroke-width="2" /></svg
          >simulated</span
        >
        <span v-if="hasIntended" class="flex items-center gap-1.5"
          ><svg width="28" height="6" aria-hidden="true">
            <line
              x1="0"
              x2="28"
              y1="3"
              y2="3"
              class="stroke-soft"
              stroke-width="2"
              stroke-dasharray="5 4"
            /></svg
          >intended by the brief</span
        >
        <span v-else class="text-soft">The brief says nothing of these motions.</span>
        <span class="ml-auto flex gap-2">
          <button class="button" data-testid="strokes-svg" @click="exportFormat('strokesSvg')">SVG</button>
          <button class="button" data-testid="strokes-csv" @click="exportFormat('strokesCsv')">CSV</button>
          <button class="button" data-testid="strokes-pdf" @click="exportFormat('strokesPdf')">PDF</button>
        </span>
      </div>
      <svg
        ref="drawing"
        :width="width"
        :height="height"
        :viewBox="`0 0 ${width} ${height}`"
        role="img"
        aria-label="Stroke–step diagram"
        class="block cursor-crosshair font-lettering"
        @pointerdown="pick"
      >
        <g v-for="(s, i) in layout.steps" :key="i">
          <line
            :x1="s.x"
            :x2="s.x"
            :y1="TOP - 6"
            :y2="height - BOTTOM"
            class="stroke-rule"
            stroke-width="1"
          />
          <text :x="s.x" :y="TOP - 10" text-anchor="middle" font-size="11" class="fill-soft">
            {{ s.text }}
          </text>
        </g>
        <g v-for="{ row, top, simulated, intended } in layout.rows" :key="row.component">
          <text :x="8" :y="top + ROW / 2 + 4" font-size="13" class="fill-ink">{{ row.name }}</text>
          <text :x="LEFT - 6" :y="top + 9" text-anchor="end" font-size="11" class="fill-soft">
            {{ read(row.range[1], row.quantity) }}
          </text>
          <text :x="LEFT - 6" :y="top + ROW" text-anchor="end" font-size="11" class="fill-soft">
            {{ read(row.range[0], row.quantity) }}
          </text>
          <rect
            :x="LEFT"
            :y="top"
            :width="width - LEFT - RIGHT"
            :height="ROW"
            fill="none"
            class="stroke-rule"
          />
          <polyline
            :points="asPoints(intended)"
            fill="none"
            class="stroke-soft"
            stroke-width="1.5"
            stroke-dasharray="5 4"
          />
          <polyline :points="asPoints(simulated)" fill="none" class="stroke-accent" stroke-width="2" />
        </g>
        <g v-for="(s, i) in layout.signals" :key="i">
          <line
            :x1="s.x"
            :x2="s.x"
            :y1="TOP"
            :y2="height - BOTTOM + 4"
            class="stroke-caution"
            stroke-width="1"
            stroke-dasharray="2 3"
          />
          <text :x="s.x" :y="height - BOTTOM + 16" text-anchor="middle" font-size="11" class="fill-caution">
            {{ s.text }}
          </text>
        </g>
        <line
          :x1="xAt(runs.time)"
          :x2="xAt(runs.time)"
          :y1="TOP - 6"
          :y2="height - BOTTOM"
          class="stroke-accent"
          stroke-width="1"
        />
      </svg>
      <template v-if="hasIntended">
        <h3 class="heading mt-2">What differs</h3>
        <p v-if="!diagram.differences.length" class="text-[13px]" data-testid="no-differences">
          Order, overlap and times are as the brief intends them.
        </p>
        <ul class="text-[13px]" data-testid="stroke-differences">
          <li v-for="d in diagram.differences" :key="d.text">
            <button class="text-left hover:text-accent" @click="showDifference(d)">
              <span class="mr-2 font-lettering text-soft">{{ instantText(d.at, show) }}</span><FactText
                :text="d.text"
              />
            </button>
          </li>
        </ul>
      </template>
    </template>
  </div>
</template>
