<script setup lang="ts">
/** What can be placed: typed as a plain word, or picked by family. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { kinds, type AnyKind } from '@oar-bench/core/catalogue'
import { families, type Family } from '@oar-bench/core/catalogue/kind'
import { componentSchema } from '@oar-bench/core/sheet/schema'
import { symbolBounds, symbolOf } from '@oar-bench/core/sheet/geometry'

import { searchPalette, sentenceCase, type PaletteEntry } from '../utils/paletteSearch'
import type { OilLineType } from '../stores/editorUi'

const emit = defineEmits<{ placing: [] }>()
const editor = useEditorUi()
const word = ref('')
const input = useTemplateRef<{ $el: HTMLInputElement }>('input')
defineExpose({ focus: () => input.value?.$el.focus() })

const list = [...kinds.values()]
/** Lines are no components: choosing one begins to draw it. */
const lineEntries: PaletteEntry[] = [
  ...(Object.keys(oilLineTypes) as OilLineType[]).map((lineType) => ({
    key: `line ${lineType}`,
    label: `${sentenceCase(oilLineTypes[lineType])} (connect)`,
    terms: ['line', 'pipe', ...(lineType === 'hose' ? ['hose', 'tube'] : [])],
    pick: () => startConnecting(lineType),
  })),
  {
    key: 'junction',
    label: 'Junction (connect to a pipe)',
    terms: ['tee', 't-piece', 'branch', 'junction', 'cross'],
    pick: () => {
      startConnecting('working')
      editor.showMessage('Begin at a port and end on a pipe: a junction is made there.')
    },
  },
]
const entries: PaletteEntry[] = [
  ...list.map((kind) => ({
    key: kind.name,
    label: kind.label,
    terms: kind.searchTerms,
    pick: () => pick(kind),
  })),
  ...lineEntries,
]
const found = computed(() => searchPalette(entries, word.value))
function startConnecting(lineType: OilLineType) {
  editor.lineType = lineType
  editor.tool = 'connect'
}
function choose(entry: PaletteEntry | null) {
  if (!entry) return
  word.value = ''
  entry.pick()
}
const groups = computed(() =>
  (Object.keys(families) as Family[])
    .map((family) => ({ label: families[family], kinds: list.filter((k) => k.family === family) }))
    .filter((g) => g.kinds.length),
)
const drawings = new Map(
  list.map((kind) => {
    const symbol = symbolOf(componentSchema.parse({ id: 'x', kind: kind.name }))!
    const { x, y, w, h } = symbolBounds(symbol)
    const side = Math.max(w, h, 6) + 1.5
    return [kind.name, { symbol, viewBox: `${x + w / 2 - side / 2} ${y + h / 2 - side / 2} ${side} ${side}` }]
  }),
)
function pick(kind: AnyKind) {
  editor.startPlacing(kind.name)
  emit('placing')
}
</script>

<template>
  <aside class="flex h-full w-56 flex-col border-r border-rule bg-pane" aria-label="Components">
    <Combobox :model-value="null" @update:model-value="choose">
      <div class="relative p-2">
        <ComboboxInput
          ref="input"
          class="field"
          placeholder="Search: pump, check …"
          aria-label="Find a component to place"
          data-testid="palette-search"
          @change="word = $event.target.value"
        />
        <ComboboxOptions
          v-if="word"
          data-testid="palette-options"
          class="menu absolute top-full right-2 left-2 max-h-80 overflow-auto"
        >
          <ComboboxOption
            v-for="entry in found"
            :key="entry.key"
            v-slot="{ active }"
            :value="entry"
            as="template"
          >
            <li class="cursor-pointer px-3 py-1.5" :class="active ? 'bg-accent-paper text-accent' : ''">
              {{ entry.label }}
            </li>
          </ComboboxOption>
          <li v-if="!found.length" class="px-3 py-1.5 text-soft">No match.</li>
        </ComboboxOptions>
      </div>
    </Combobox>
    <div class="min-h-0 flex-1 overflow-auto px-2 pb-3">
      <section v-for="group in groups" :key="group.label" class="mb-2">
        <h3 class="heading px-1 py-1 text-soft">{{ group.label }}</h3>
        <button
          v-for="kind in group.kinds"
          :key="kind.name"
          class="flex w-full items-center gap-2 rounded px-1 py-0.5 text-left hover:bg-accent-paper hover:text-accent"
          :class="editor.placing?.kind === kind.name ? 'bg-accent-paper text-accent' : ''"
          :title="kind.description"
          :data-testid="`place-${kind.name}`"
          @click="pick(kind)"
        >
          <svg class="size-9 shrink-0" :viewBox="drawings.get(kind.name)!.viewBox" aria-hidden="true">
            <SymbolShapes :drawing="drawings.get(kind.name)!.symbol" />
          </svg>
          <span class="leading-tight">{{ kind.label }}</span>
        </button>
      </section>
    </div>
  </aside>
</template>
