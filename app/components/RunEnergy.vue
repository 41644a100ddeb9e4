<script setup lang="ts">
/** Where the energy of the run goes: from what is put in to work, heat by part, and what is kept; for the run or for one of its states. */
import { sankey, sankeyLinkHorizontal, type SankeyLink, type SankeyNode } from 'd3-sankey'
import { useElementSize } from '@vueuse/core'
import { toRaw } from 'vue'
import {
  energyGraph,
  steadyText,
  totalOf,
  type EnergyLink,
  type EnergyNode,
} from '@oar-bench/core/explain/energy'
import { instantText, partName } from '@oar-bench/core/explain/words'

const emit = defineEmits<{ reveal: [id: string] }>()
const runs = useSimulationRuns()
const { look } = useRunPlaces((id) => emit('reveal', id))
const { show } = useUnits()
const { exportFormat } = useFormatExport()
const questions = useRunQuestions()
const { answer: states } = useRunAnswer(questions.walkthrough)
/** Index of the state that is looked at; none for the whole run. */
const chosen = ref(-1)
const span = computed(() => {
  const state = states.value?.[chosen.value]
  return state ? ([state.t, state.end] as const) : ([0, runs.shown?.result.duration ?? 0] as const)
})
const {
  answer: account,
  busy,
  problem,
} = useRunAnswer(
  (run) => questions.energy(run, ...span.value),
  () => span.value,
)
watch(
  () => runs.shown,
  () => (chosen.value = -1),
)
const sheet = computed(() => runs.shown!.sheet)
const whole = computed(() =>
  account.value ? totalOf(account.value.input) + totalOf(account.value.given) : 0,
)

// ---- the flow picture ------------------------------------------------------------------------------
const box = useTemplateRef<HTMLElement>('box')
const { width: measured, height: room } = useElementSize(box)
const width = computed(() => Math.max(560, Math.min(1100, measured.value - 320 || 800)))
/** Room beside the picture for the names of the parts. */
const [LEFT, RIGHT, LEAST_HEIGHT, MOST_HEIGHT, A_PART] = [140, 170, 180, 480, 22]
type Node = SankeyNode<EnergyNode, EnergyLink>
type Link = SankeyLink<EnergyNode, EnergyLink>
const graph = computed(() => {
  if (!account.value || !(whole.value > 0)) return undefined
  const { nodes, links } = energyGraph(sheet.value, account.value, (part) => partName(sheet.value, part))
  const ends = nodes.filter((n) => !links.some((l) => l.source === n.id)).length
  const height = Math.max(LEAST_HEIGHT, ends * A_PART, Math.min(MOST_HEIGHT, room.value - 60))
  const layout = sankey<EnergyNode, EnergyLink>()
    .nodeId((n) => n.id)
    .nodeWidth(10)
    .nodePadding(9)
    .extent([
      [LEFT, 4],
      [width.value - RIGHT, height - 4],
    ])
  return { ...layout({ nodes: nodes.map((n) => ({ ...n })), links: links.map((l) => ({ ...l })) }), height }
})
const path = sankeyLinkHorizontal<EnergyNode, EnergyLink>()
const colours: Readonly<Record<EnergyNode['kind'], string>> = {
  input: 'var(--accent)',
  given: 'var(--accent)',
  all: 'var(--ink)',
  work: 'var(--good)',
  heat: 'var(--caution)',
  kept: 'var(--soft)',
  rest: 'var(--soft)',
}
const kindOf = (end: Link['target']) => (end as Node).kind
const isLeft = (n: Node) => n.kind === 'input' || n.kind === 'given'
const isEnd = (n: Node) => !n.sourceLinks?.length
const label = (n: Node) => `${n.label} ${show(n.value ?? 0, 'energy', 3)}`
const percent = (n: Node) => `${Math.round((100 * (n.value ?? 0)) / whole.value)} %`

// ---- steady temperature ------------------------------------------------------------------------------
const { answer: steady, busy: finding, problem: unfound, ask, cancel } = useLatest<string>()
function findSteady(): void {
  const run = runs.shown
  if (run)
    void ask(async () => {
      const found = await questions.ask((r) => r.steady(toRaw(run.sheet), run.result.schedule))
      return steadyText(found, show)
    })
}
watch(
  () => runs.shown?.result,
  () => {
    cancel()
    steady.value = undefined
  },
)
const rows = computed(() => {
  const a = account.value
  if (!a) return []
  return [
    { label: 'Put in', total: totalOf(a.input) },
    { label: 'Given back by loads and stores', total: totalOf(a.given) },
    { label: 'Work on loads', total: totalOf(a.work) },
    { label: 'Heat', total: totalOf(a.heat) },
    { label: 'Kept in masses, heights and stores', total: totalOf(a.kept) },
    { label: 'Taken by coolers', total: a.cooled },
  ].filter(({ total }, i) => i === 0 || Math.abs(total) > 1e-3 * whole.value)
})
</script>

<template>
  <div ref="box" class="h-full overflow-auto px-3 pb-3" data-testid="energy">
    <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
    <p v-else-if="busy && !account" class="text-soft" role="status">Working it out …</p>
    <template v-else-if="account">
      <div class="mb-1 flex flex-wrap items-center gap-2 text-[13px]">
        <select
          v-model.number="chosen"
          class="field !w-96"
          aria-label="Part of the run"
          data-testid="energy-span"
        >
          <option :value="-1">the whole run</option>
          <option v-for="(s, i) in states ?? []" :key="s.t" :value="i">
            {{ instantText(s.t, show) }}: {{ s.summary }}
          </option>
        </select>
        <button class="button" data-testid="energy-xlsx" @click="exportFormat('energyXlsx')">XLSX</button>
        <button class="button" @click="exportFormat('energyCsv')">CSV</button>
      </div>
      <p v-if="!(whole > 0)" class="text-[13px] text-soft">Nothing is put in here.</p>
      <div v-else class="flex flex-wrap gap-4">
        <svg
          v-if="graph"
          :width="width"
          :height="graph.height"
          role="img"
          aria-label="Where the energy goes"
          class="font-lettering"
          data-testid="energy-picture"
        >
          <path
            v-for="(l, i) in graph.links"
            :key="i"
            :d="path(l) ?? undefined"
            fill="none"
            :stroke="colours[kindOf(l.target) === 'all' ? kindOf(l.source) : kindOf(l.target)]"
            :stroke-width="Math.max(1, l.width ?? 0)"
            stroke-opacity="0.35"
          />
          <g
            v-for="n in graph.nodes"
            :key="n.id"
            :class="n.part ? 'cursor-pointer' : ''"
            @click="look(n.part)"
          >
            <title>{{ label(n) }}, {{ percent(n) }}</title>
            <rect
              :x="n.x0"
              :y="n.y0"
              :width="(n.x1 ?? 0) - (n.x0 ?? 0)"
              :height="Math.max(1, (n.y1 ?? 0) - (n.y0 ?? 0))"
              :fill="colours[n.kind]"
            />
            <text
              v-if="n.kind !== 'all'"
              :x="isLeft(n) ? (n.x0 ?? 0) - 6 : (n.x1 ?? 0) + 6"
              :y="((n.y0 ?? 0) + (n.y1 ?? 0)) / 2 + 4"
              :text-anchor="isLeft(n) ? 'end' : 'start'"
              font-size="12"
              class="fill-ink"
            >
              {{ isEnd(n) || isLeft(n) ? label(n) : n.label }}
            </text>
          </g>
        </svg>
        <div class="w-72 text-[13px]">
          <dl class="grid grid-cols-[1fr_auto] gap-x-3" data-testid="energy-totals">
            <template v-for="r in rows" :key="r.label">
              <dt>{{ r.label }}</dt>
              <dd class="text-right font-lettering">{{ show(r.total, 'energy', 3) }}</dd>
            </template>
          </dl>
          <p class="mt-2 text-soft">
            Added up over the samples of the run. Mean power put in:
            {{ show(whole / (span[1] - span[0] || 1), 'power', 3) }}.
          </p>
          <h3 class="heading mt-3">Oil temperature</h3>
          <p v-if="unfound" class="text-error" role="alert">{{ unfound }}</p>
          <p v-else-if="steady" data-testid="steady">{{ steady }}</p>
          <button
            v-else
            class="button mt-1"
            :disabled="finding"
            data-testid="find-steady"
            @click="findSteady"
          >
            {{ finding ? 'Solving at other temperatures …' : 'At which temperature does the oil stay?' }}
          </button>
        </div>
      </div>
    </template>
  </div>
</template>
