<script setup lang="ts">
/** The cards with their answers, what is wrong with them, and what holds for all. */
import { Check, CircleAlert, FileText, ListOrdered, Ruler, TriangleAlert } from 'lucide-vue-next'
import { stateOf, type CardState } from '@oar-bench/core/size/apply'
import { supplies } from '@oar-bench/core/size/brief/brief'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{
  mode: 'machine' | 'calculator'
  sections: readonly { label: string; nodes: readonly SizedNode[] }[]
  selected?: string
  view: 'card' | 'settings' | 'report' | 'series'
}>()
const emit = defineEmits<{
  mode: [mode: 'machine' | 'calculator']
  select: [id: string]
  view: [view: 'settings' | 'report' | 'series']
}>()
const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const ownSeries = useOwnSeries()
const { show } = useUnits()
const answerOf = (node: SizedNode) => {
  const { card, values } = node
  const value = values[card.answer]
  return value === undefined ? '–' : show(value, card.variables[card.answer].quantity, 3)
}
/** The state of each card, by its id. */
const states = computed(() => {
  const machine = props.mode === 'machine' ? { sheet: sheetDocument.sheet, brief: sizes.brief } : undefined
  return new Map(
    props.sections.flatMap(({ nodes }) => nodes.map((node) => [node.id, stateOf(node, machine)] as const)),
  )
})
const words: Record<CardState, string> = {
  problem: 'cannot be computed',
  warning: 'to be thought about',
  differs: 'the sheet differs',
  agrees: 'the sheet agrees',
}
const supplyChoices = { '': 'as the brief says', ...supplies }
</script>

<template>
  <nav
    class="flex w-72 shrink-0 flex-col border-r border-rule bg-pane max-md:w-full"
    aria-label="Cards"
    data-testid="sizes-nav"
  >
    <div class="border-b border-rule p-3">
      <div class="mb-2 flex gap-1" role="group" aria-label="What is calculated">
        <button
          v-for="m in ['machine', 'calculator'] as const"
          :key="m"
          class="flex-1 rounded px-2 py-0.5"
          :class="mode === m ? 'bg-accent-paper text-accent' : 'hover:text-accent'"
          :aria-pressed="mode === m"
          @click="emit('mode', m)"
        >
          {{ m === 'machine' ? 'This machine' : 'Calculator' }}
        </button>
      </div>
      <template v-if="mode === 'machine' && sheetDocument.brief.motions.length">
        <p v-if="sizes.agreeing.sized" class="mb-1.5 text-[13px] text-soft">
          {{ sizes.agreeing.agreeing }} of {{ sizes.agreeing.sized }} values on the sheet agree<template
            v-if="sizes.agreeing.waiting"
            >; {{ sizes.agreeing.waiting }} {{ sizes.agreeing.waiting === 1 ? 'waits' : 'wait' }} until you
            say which result is for {{ sizes.agreeing.waiting === 1 ? 'it' : 'them' }}</template
          >.
        </p>
        <button
          v-if="sizes.agreeing.agreeing < sizes.agreeing.sized"
          class="button mb-1.5"
          @click="sizes.applyEverything()"
        >
          Apply all to the sheet
        </button>
        <div
          v-if="sizes.notApplied.length"
          class="mb-1.5 text-[13px] text-caution"
          role="status"
          data-testid="not-applied"
        >
          <p>Not applied:</p>
          <ul class="list-disc pl-4">
            <li v-for="n in sizes.notApplied" :key="`${n.what} ${n.why}`">{{ n.what }}: {{ n.why }}</li>
          </ul>
        </div>
        <ChoiceField
          label="This variant is supplied by"
          :model-value="(sizes.decisions.supply ?? '') as keyof typeof supplyChoices"
          :choices="supplyChoices"
          @update:model-value="sizes.decide({ supply: $event || undefined })"
        />
        <button
          class="mt-2 flex w-full items-center gap-1.5 rounded px-2 py-1 text-left"
          :class="view === 'settings' ? 'bg-accent-paper text-accent' : 'hover:text-accent'"
          data-testid="open-ruler"
          @click="emit('view', 'settings')"
        >
          <Ruler :size="15" aria-hidden="true" />Pressures on a ruler
        </button>
        <button
          class="flex w-full items-center gap-1.5 rounded px-2 py-1 text-left"
          :class="view === 'report' ? 'bg-accent-paper text-accent' : 'hover:text-accent'"
          data-testid="open-calculation"
          @click="emit('view', 'report')"
        >
          <FileText :size="15" aria-hidden="true" />Calculation report
        </button>
      </template>
    </div>
    <div class="min-h-0 flex-1 overflow-auto py-2" tabindex="0" aria-label="List of cards">
      <section v-for="section in sections" :key="section.label" class="mb-2">
        <h2 class="px-3 py-0.5 text-[13px] font-semibold">{{ section.label }}</h2>
        <button
          v-for="node in section.nodes"
          :key="node.id"
          class="flex w-full items-baseline gap-2 px-3 py-0.5 text-left"
          :class="node.id === selected ? 'bg-accent-paper text-accent' : 'hover:text-accent'"
          :aria-current="node.id === selected"
          :data-testid="`nav-${node.id}`"
          @click="emit('select', node.id)"
        >
          <span class="min-w-0 flex-1 truncate">{{ node.card.title }}</span>
          <span class="whitespace-nowrap text-[13px] text-soft">{{ answerOf(node) }}</span>
          <span class="w-4 shrink-0 self-center" :title="words[states.get(node.id)!] ?? ''">
            <CircleAlert v-if="states.get(node.id) === 'problem'" :size="14" class="text-error" />
            <TriangleAlert v-else-if="states.get(node.id) === 'warning'" :size="14" class="text-caution" />
            <Check v-else-if="states.get(node.id) === 'agrees'" :size="14" class="text-good" />
            <span
              v-else-if="states.get(node.id) === 'differs'"
              class="block text-center text-[13px] font-semibold text-accent"
              >≠</span
            >
            <span v-if="states.get(node.id)" class="sr-only">{{ words[states.get(node.id)!] }}</span>
          </span>
        </button>
      </section>
    </div>
    <div class="border-t border-rule p-3">
      <slot />
      <button
        class="mt-1.5 flex w-full items-center gap-1.5 rounded px-2 py-1 text-left"
        :class="view === 'series' ? 'bg-accent-paper text-accent' : 'hover:text-accent'"
        data-testid="open-series"
        @click="emit('view', 'series')"
      >
        <ListOrdered :size="15" aria-hidden="true" />Series of sizes
        <span v-if="ownSeries.list.length" class="ml-auto text-[13px] text-soft"
          >{{ ownSeries.list.length }} own</span
        >
      </button>
    </div>
  </nav>
</template>
