<script setup lang="ts">
/** This run beside another one: what differs in order, times, speeds, pressures and what sets them, forces, energy and heat. */
import { toRaw } from 'vue'
import {
  comparisonSummary,
  type ComparisonGroup,
  type ComparisonRow,
} from '@oar-bench/core/explain/compare-runs'
import type { MachineDetail } from '#shared/api'

const runs = useSimulationRuns()
const live = useLiveRun()
const sheetDocument = useSheetDocument()
const { system } = useUnits()
const { csvFile, download } = useFiles()
const { ask } = useRunQuestions()
/** What it is compared with: "previous", "run ID", "sheet ID". */
const other = ref('')
const { answer: rows, busy, problem, ask: askLatest, cancel } = useLatest<readonly ComparisonRow[]>()
const { goTo } = useRunPlaces()
const onlyDifferent = useSetting('compare-different', true)

const choices = computed(() => [
  ...(runs.previous ? [{ value: 'previous', label: runs.previous.name }] : []),
  ...runs.savedRuns
    .filter((r) => r.id !== runs.shown?.id)
    .map((r) => ({ value: `run ${r.id}`, label: `saved run: ${r.name}` })),
  ...sheetDocument.variants
    .filter((v) => v.id !== sheetDocument.sheetId)
    .map((v) => ({ value: `sheet ${v.id}`, label: `variant: ${v.name}` })),
])
const otherName = computed(() => choices.value.find((c) => c.value === other.value)?.label ?? '')

async function otherRun() {
  const [what, id] = other.value.split(' ')
  if (what === 'previous') return runs.previous && ofRun(runs.previous)
  if (what === 'run') {
    const row = runs.savedRuns.find((r) => r.id === id)
    const run = row && (await runs.fetchRun(row))
    return run && ofRun(run)
  }
  const detail = await $fetch<MachineDetail>(`/api/machines/${sheetDocument.machine!.id}`, {
    query: { sheet: id },
  })
  return { sheet: toRaw(detail.sheet.content) }
}
function update(): void {
  cancel()
  rows.value = undefined
  const shown = runs.shown
  if (!other.value || !shown || live.playing) return
  void askLatest(async () => {
    const second = await otherRun()
    if (!second) throw new Error('That run is no longer there.')
    return ask((r) => r.compare(ofRun(shown), second, system.value))
  })
}
watch([other, () => runs.shown, () => live.playing, system], update)
watch(choices, (now) => {
  if (!now.some((c) => c.value === other.value)) other.value = ''
})

const groups: Readonly<Record<ComparisonGroup, string>> = {
  order: 'Order',
  motions: 'Motions',
  pressures: 'Pressures, and what sets them',
  forces: 'Forces and torques',
  duty: 'Duty of motors and switches',
  energy: 'Energy',
  heat: 'Heat by component',
}
const shownGroups = computed(() =>
  (Object.keys(groups) as ComparisonGroup[])
    .map((group) => ({
      title: groups[group],
      rows: (rows.value ?? []).filter((r) => r.group === group && (r.differs || !onlyDifferent.value)),
    }))
    .filter((g) => g.rows.length),
)
function showRow({ at }: ComparisonRow): void {
  if (at?.[0] !== undefined) goTo(at[0])
}
async function exportCsv(): Promise<void> {
  if (!rows.value) return
  const name = runs.shown?.name ?? 'This run'
  download(
    await csvFile([
      ['', '', name, otherName.value, 'Difference', 'Differs'],
      ...rows.value.map((r) => [
        groups[r.group],
        r.label,
        r.first,
        r.second,
        r.difference,
        r.differs ? 'yes' : 'no',
      ]),
    ]),
    '-comparison.csv',
  )
}
</script>

<template>
  <div class="h-full overflow-auto px-3 pb-3" data-testid="compare">
    <div class="mb-1 flex flex-wrap items-center gap-3 text-[13px]">
      <label class="flex items-center gap-2">
        This run compared with
        <select v-model="other" class="field !w-80" data-testid="compare-with">
          <option value="">choose a run or a variant</option>
          <option v-for="c in choices" :key="c.value" :value="c.value">{{ c.label }}</option>
        </select>
      </label>
      <label v-if="rows" class="flex items-center gap-1">
        <input v-model="onlyDifferent" type="checkbox" />only what differs
      </label>
      <button v-if="rows" class="button" data-testid="compare-csv" @click="exportCsv">CSV</button>
    </div>
    <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
    <p v-else-if="busy" class="text-soft" role="status">Comparing …</p>
    <p v-else-if="!choices.length" class="text-[13px] text-soft">
      There is nothing to compare with yet: save a run, add a variant, or change something and run again.
    </p>
    <template v-else-if="rows">
      <p class="text-[13px]" data-testid="compare-summary">{{ comparisonSummary(rows).join(' ') }}</p>
      <table class="mt-1 w-full max-w-5xl border-collapse text-[13px]">
        <thead>
          <tr class="border-b border-rule text-left text-soft">
            <th class="py-1 font-normal" />
            <th class="px-2 font-normal">{{ runs.shown?.name }}</th>
            <th class="px-2 font-normal">{{ otherName }}</th>
            <th class="px-2 font-normal">difference</th>
          </tr>
        </thead>
        <tbody v-for="g in shownGroups" :key="g.title">
          <tr>
            <th colspan="4" class="heading pt-2 text-left">{{ g.title }}</th>
          </tr>
          <tr
            v-for="r in g.rows"
            :key="r.label"
            class="border-b border-rule/60 align-top"
            :class="r.differs ? '' : 'text-soft'"
            data-testid="compare-row"
          >
            <td class="py-0.5 pr-2">
              <button v-if="r.at?.[0] !== undefined" class="text-left hover:text-accent" @click="showRow(r)">
                {{ r.label }}
              </button>
              <template v-else>{{ r.label }}</template>
            </td>
            <td class="px-2">{{ r.first }}</td>
            <td class="px-2">{{ r.second }}</td>
            <td class="px-2 font-lettering whitespace-nowrap">{{ r.difference }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>
