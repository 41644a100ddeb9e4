<script setup lang="ts">
/** The calculator of the machine: its cards on the left, one of them open beside; or any card by itself. */
import { groups } from '@oar-bench/core/size/card'
import { cards, findCard } from '@oar-bench/core/size/cards'
import type { SizedNode } from '@oar-bench/core/size/graph'

const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const route = useRoute()
const mode = ref<'machine' | 'calculator'>('machine')
useUndoKeys(
  () => sheetDocument.undo(),
  () => sheetDocument.redo(),
)
const free = useFreeCards()
const selected = ref('')
const view = ref<'card' | 'settings' | 'report' | 'series'>('card')

const nodes = computed<readonly SizedNode[]>(() =>
  mode.value === 'machine' ? sizes.sizing.nodes : free.nodes,
)
const node = computed(() => nodes.value.find((n) => n.id === selected.value) ?? nodes.value.at(0))
/** Headings with their cards: motions one after the other, then the machine, each in the order of the work. */
const sections = computed(() => {
  if (mode.value === 'calculator')
    return Object.entries(groups).map(([group, label]) => ({
      label,
      nodes: nodes.value.filter((n) => n.card.group === group),
    }))
  return [
    ...sheetDocument.brief.motions.map((m) => ({
      label: m.name,
      nodes: nodes.value.filter((n) => n.motion?.id === m.id),
    })),
    ...Object.entries(groups).map(([group, label]) => ({
      label,
      nodes: nodes.value.filter((n) => !n.motion && n.card.group === group),
    })),
  ].filter((section) => section.nodes.length)
})
function choose(id: string) {
  selected.value = id
  view.value = 'card'
}
const setValue = (id: string, variable: string, text: string | undefined) =>
  (mode.value === 'machine' ? sizes : free).setValue(id, variable, text)
/** Cards that this machine does not show and that can be opened for it. */
const more = computed(() => {
  const shown = new Set(sizes.sizing.nodes.map((n) => n.id))
  return cards.flatMap((card) => {
    const motions = card.scope === 'motion' ? sheetDocument.brief.motions : [undefined]
    return motions
      .map((m) => ({
        id: m ? `${card.id}@${m.id}` : card.id,
        label: m ? `${card.title}, ${m.name}` : card.title,
      }))
      .filter(({ id }) => !shown.has(id))
  })
})
function open(event: Event) {
  const { value } = event.target as HTMLSelectElement
  ;(event.target as HTMLSelectElement).value = ''
  sizes.open(value)
  choose(value)
}
watch(
  () => route.query.card,
  (id) => typeof id === 'string' && (findCard(id) || sizes.sizing.find(id)) && choose(id),
  { immediate: true },
)
</script>

<template>
  <section class="flex min-h-0 flex-1 bg-paper max-md:flex-col max-md:overflow-auto" aria-label="Sizes">
    <SizesNav
      :mode="mode"
      :sections="sections"
      :selected="view === 'card' ? node?.id : undefined"
      :view="view"
      @mode="mode = $event"
      @select="choose"
      @view="view = $event"
    >
      <select
        v-if="mode === 'machine' && more.length && sheetDocument.brief.motions.length"
        class="field"
        aria-label="Open another card"
        @change="open"
      >
        <option value="">Open another card …</option>
        <option v-for="card in more" :key="card.id" :value="card.id">{{ card.label }}</option>
      </select>
    </SizesNav>
    <div class="min-w-0 flex-1 overflow-auto px-6 py-5" tabindex="0" aria-label="Card">
      <SizeSeries v-if="view === 'series'" />
      <SizesEmpty
        v-else-if="mode === 'machine' && !sheetDocument.brief.motions.length"
        @calculator="mode = 'calculator'"
      />
      <SettingsRuler v-else-if="view === 'settings' && mode === 'machine'" @card="choose" />
      <CalculationReport v-else-if="view === 'report' && mode === 'machine'" />
      <SizeCard
        v-else-if="node"
        :key="`${mode} ${node.id}`"
        :node="node"
        :machine="mode === 'machine'"
        @value="(variable, text) => setValue(node!.id, variable, text)"
        @card="choose"
      />
    </div>
  </section>
</template>
