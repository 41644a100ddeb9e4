<script setup lang="ts">
/** The states of the machine: commands, contacts, pressures with what sets them, motions, power; each solved from the state itself. */
import { Plus, X } from 'lucide-vue-next'
import type { ColumnGroup } from '@oar-bench/core/explain/state-figures'
import type { StateRow, StateTable } from '@oar-bench/core/explain/state-table'
import { cellText, countText, metText, outcomeText } from '@oar-bench/core/explain/state-words'
import { fixedByShort } from '@oar-bench/core/explain/words'
import type { SheetState } from '@oar-bench/core/sheet/schema'

const emit = defineEmits<{ reveal: [id: string] }>()
const runs = useSimulationRuns()
const sheetDocument = useSheetDocument()
const { show, system } = useUnits()
const { exportFormat } = useFormatExport()
const questions = useRunQuestions()
const { answer: table, busy, problem, ask } = useLatest<StateTable>()
const { goTo, look } = useRunPlaces((id) => emit('reveal', id))
const progress = ref(0)
const adding = ref(false)

function update(): void {
  progress.value = 0
  void ask((isLatest) =>
    questions.states((share) => {
      if (isLatest()) progress.value = share
    }),
  )
}
watch([() => sheetDocument.sheet, system], update, { immediate: true })

const groups: Readonly<Record<ColumnGroup, string>> = {
  commands: 'Commands',
  control: 'Control',
  pressures: 'Pressures, and what sets them',
  flows: 'Flows',
  motion: 'Motion',
  supply: 'Supply',
  power: 'Power',
}
/** Headings over columns of one group. */
const spans = computed(() => {
  const found: { group: ColumnGroup; count: number }[] = []
  for (const { group } of table.value?.columns ?? []) {
    const last = found.at(-1)
    if (last?.group === group) last.count++
    else found.push({ group, count: 1 })
  }
  return found
})
const sheet = computed(() => sheetDocument.sheet)
/** Instant of the shown run at which a state is met. */
const instantOf = ({ met }: StateRow) =>
  met.find(({ schedule }) => !runs.outdated && schedule === runs.shown?.result.schedule)?.at
function add(state: SheetState): void {
  sheetDocument.apply({ ...sheet.value, states: [...sheet.value.states, state] })
  adding.value = false
}
const remove = (name: string) =>
  sheetDocument.apply({ ...sheet.value, states: sheet.value.states.filter((s) => s.name !== name) })
</script>

<template>
  <div class="flex h-full flex-col px-3 pb-3" data-testid="states">
    <div class="mb-1 flex flex-wrap items-center gap-2 text-[13px]">
      <span v-if="busy" class="text-soft" role="status">Solving, {{ Math.round(100 * progress) }} % …</span>
      <span v-else-if="table" class="text-soft" data-testid="states-count">{{ countText(table) }}</span>
      <button
        class="button ml-auto"
        data-testid="add-state"
        :aria-expanded="adding"
        @click="adding = !adding"
      >
        <Plus :size="15" aria-hidden="true" />Add a state
      </button>
      <button class="button" data-testid="states-xlsx" @click="exportFormat('statesXlsx')">XLSX</button>
      <button class="button" data-testid="states-csv" @click="exportFormat('statesCsv')">CSV</button>
      <button class="button" data-testid="states-pdf" @click="exportFormat('statesPdf')">PDF</button>
    </div>
    <StateForm v-if="adding" @add="add" @cancel="adding = false" />
    <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
    <div v-if="table" class="min-h-0 flex-1 overflow-auto border border-rule">
      <table class="border-collapse text-[13px]">
        <thead class="sticky top-0 z-10 bg-pane">
          <tr>
            <th class="sticky left-0 z-10 bg-pane" />
            <th
              v-for="(s, i) in spans"
              :key="i"
              :colspan="s.count"
              class="border-l border-rule px-2 text-left text-[12px] font-normal text-soft"
            >
              {{ groups[s.group] }}
            </th>
          </tr>
          <tr class="border-b border-rule">
            <th class="sticky left-0 z-10 bg-pane px-2 text-left font-normal text-soft">State</th>
            <th v-for="c in table.columns" :key="c.key" class="border-l border-rule px-2 py-1 text-left">
              <button
                class="font-lettering hover:text-accent disabled:text-ink disabled:opacity-100"
                :disabled="!c.part"
                @click="look(c.part)"
              >
                <FactText :text="c.label" />
              </button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(row, r) in table.rows"
            :key="r"
            class="border-b border-rule align-top"
            data-testid="state-row"
          >
            <th class="sticky left-0 w-64 min-w-56 bg-pane px-2 py-1 text-left font-normal">
              <button
                class="text-left hover:text-accent disabled:text-ink disabled:opacity-100"
                :disabled="instantOf(row) === undefined"
                :title="metText(sheet, row, show)"
                @click="goTo(instantOf(row)!)"
              >
                <span class="mr-1 text-soft">{{ r + 1 }}</span><FactText :text="row.title" />
              </button>
              <button
                v-if="row.origin === 'added'"
                class="ml-1 align-middle text-soft hover:text-error"
                :aria-label="`Remove ${row.title}`"
                @click="remove(row.title)"
              >
                <X :size="13" />
              </button>
              <span v-if="row.origin === 'control'" class="block text-[12px] text-soft">{{
                metText(sheet, row, show)
              }}</span>
              <span v-if="outcomeText(sheet, row)" class="block text-caution">{{
                outcomeText(sheet, row)
              }}</span>
            </th>
            <td
              v-for="(cell, i) in row.cells"
              :key="table.columns[i].key"
              class="border-l border-rule px-2 py-1 whitespace-nowrap"
            >
              <span class="font-lettering">{{ cellText(cell, table.columns[i], show) }}</span>
              <button
                v-if="cell.fixedBy"
                class="block text-[12px] text-soft hover:text-accent"
                @click="look(cell.fixedBy.part)"
              >
                {{ fixedByShort(sheet, cell.fixedBy) }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
