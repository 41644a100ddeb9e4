<script setup lang="ts">
/** What if: a result over one or two inputs, and its spread when the inputs are not exact. */
import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/vue'
import { ChevronRight } from 'lucide-vue-next'
import { textOf } from '@oar-bench/core/size/text'
import type { SizedNode } from '@oar-bench/core/size/graph'
import { numericInputs, spreadOf, sweep, type Range } from '@oar-bench/core/size/what-if'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{ node: SizedNode }>()
const { show, number, unit } = useUnits()
const { dark } = useTheme()
const ownSeries = useOwnSeries()
const { card } = props.node
const inputs = numericInputs(card)
const results = Object.entries(card.variables).filter(([, v]) => v.role !== 'input')
const result = ref(card.answer)
const first = ref(inputs[0]?.[0] ?? '')
const second = ref('')
/** Ends of the ranges as they were typed; half and twice the present value where nothing was. */
const ends = ref<Record<string, { from?: string; to?: string }>>({})
function endOf(name: string, which: 'from' | 'to'): string {
  const { quantity } = card.variables[name]
  const present = props.node.values[name] ?? 0
  const typed = ends.value[name]?.[which]
  return (
    typed ??
    textOf(present === 0 ? (which === 'from' ? 0 : 1) : present * (which === 'from' ? 0.5 : 1.5), quantity)
  )
}
const setEnd = (name: string, which: 'from' | 'to', text: string) =>
  (ends.value = { ...ends.value, [name]: { ...ends.value[name], [which]: text } })
function rangeOf(name: string, count: number): Range | undefined {
  if (!name) return undefined
  const { quantity } = card.variables[name]
  const [from, to] = [
    parseQuantity(endOf(name, 'from'), quantity),
    parseQuantity(endOf(name, 'to'), quantity),
  ]
  return from.ok && to.ok ? { name, from: from.si, to: to.si, count } : undefined
}
const swept = computed(() => {
  const x = rangeOf(first.value, 7)
  return x && props.node.values[first.value] !== undefined
    ? sweep(props.node, result.value, x, rangeOf(second.value, 4), ownSeries.inForce)
    : undefined
})
const curves = computed(() => {
  const x = rangeOf(first.value, 41)
  if (!x) return []
  const {
    x: at,
    y,
    results: rows,
  } = sweep(props.node, result.value, x, rangeOf(second.value, 4), ownSeries.inForce)
  const [a, b] = [card.variables[first.value].quantity, card.variables[result.value].quantity]
  return rows.map((row, i) => ({
    name:
      y[i] === undefined
        ? card.variables[result.value].label
        : show(y[i], card.variables[second.value].quantity, 3),
    limit: false,
    data: row.flatMap((v, j) =>
      v === undefined ? [] : [[Number(number(at[j], a)), Number(number(v, b))] as [number, number]],
    ),
  }))
})
const tolerances = ref<Record<string, string>>({})
const spread = computed(() =>
  spreadOf(
    props.node,
    result.value,
    Object.fromEntries(
      Object.entries(tolerances.value).flatMap(([name, text]) => {
        const read = parseQuantity(text, 'share')
        return read.ok ? [[name, read.si]] : []
      }),
    ),
    ownSeries.inForce,
  ),
)
const quantityOf = (name: string) => card.variables[name].quantity
const labelOf = (name: string) => card.variables[name].label
</script>

<template>
  <Disclosure v-if="inputs.length" v-slot="{ open }" as="section" class="mt-4" data-testid="what-if">
    <DisclosureButton class="flex w-full items-center gap-1 border-b border-rule pb-1 text-left">
      <ChevronRight
        :size="16"
        class="transition-transform"
        :class="{ 'rotate-90': open }"
        aria-hidden="true"
      />
      <span class="heading">What if</span>
    </DisclosureButton>
    <DisclosurePanel class="pt-2">
      <div class="grid gap-x-3 gap-y-2 sm:grid-cols-3">
        <ChoiceField
          label="Result"
          :model-value="result"
          :choices="Object.fromEntries(results.map(([name, v]) => [name, v.label]))"
          @update:model-value="result = $event"
        />
        <ChoiceField
          label="Over"
          :model-value="first"
          :choices="Object.fromEntries(inputs.map(([name, v]) => [name, v.label]))"
          @update:model-value="first = $event"
        />
        <ChoiceField
          label="and"
          :model-value="second"
          :choices="{ '': 'nothing else', ...Object.fromEntries(inputs.map(([name, v]) => [name, v.label])) }"
          @update:model-value="second = $event"
        />
        <template v-for="name in [first, second].filter(Boolean)" :key="name">
          <QuantityField
            :label="`${labelOf(name)}, from`"
            :model-value="endOf(name, 'from')"
            :quantity="quantityOf(name)"
            @update:model-value="setEnd(name, 'from', $event)"
          />
          <QuantityField
            :label="`${labelOf(name)}, to`"
            :model-value="endOf(name, 'to')"
            :quantity="quantityOf(name)"
            @update:model-value="setEnd(name, 'to', $event)"
          />
          <span class="max-sm:hidden" />
        </template>
      </div>
      <template v-if="swept">
        <LineChart
          v-if="open"
          class="mt-2"
          :series="curves"
          :x-label="`${labelOf(first)}, ${unit(quantityOf(first))}`"
          :y-label="unit(quantityOf(result))"
          :now="Number(number(node.values[first]!, quantityOf(first)))"
          :dark="dark"
        />
        <div class="overflow-x-auto">
          <table class="w-full text-left text-[13px]" data-testid="sweep">
            <thead class="text-xs text-soft">
              <tr>
                <th class="pr-3 font-normal">{{ second ? labelOf(second) : labelOf(result) }}</th>
                <th v-for="x in swept.x" :key="x" class="pr-3 font-normal">
                  {{ show(x, quantityOf(first), 3) }}
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, i) in swept.results" :key="i" class="border-t border-rule">
                <th class="whitespace-nowrap py-1 pr-3 font-normal text-soft">
                  {{ swept.y[i] === undefined ? '' : show(swept.y[i], quantityOf(second), 3) }}
                </th>
                <td
                  v-for="(value, j) in row"
                  :key="j"
                  class="whitespace-nowrap pr-3"
                  :class="{ 'text-caution': swept.warned[i]![j] }"
                >
                  {{ value === undefined ? '–' : show(value, quantityOf(result), 3)
                  }}<template v-if="swept.warned[i]![j]"> !</template>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="text-xs text-soft">! the card warns of something there.</p>
      </template>
      <h3 class="mb-1 mt-3 text-[13px] font-semibold">
        Spread of “{{ labelOf(result) }}” when inputs are not exact
      </h3>
      <p v-if="card.variables[result].role === 'choice'" class="text-[13px] text-soft">
        A size that is chosen from a series does not spread: take a computed result.
      </p>
      <div v-else class="grid gap-x-3 gap-y-1.5 sm:grid-cols-4">
        <QuantityField
          v-for="[name, v] in inputs"
          :key="name"
          optional
          quantity="share"
          :label="`± ${v.label}`"
          :model-value="tolerances[name] ?? ''"
          placeholder="exact"
          @update:model-value="tolerances = { ...tolerances, [name]: $event }"
        />
      </div>
      <div
        v-if="spread?.contributions.length && card.variables[result].role === 'step'"
        class="mt-2"
        data-testid="spread"
      >
        <p>
          {{ show(spread.nominal, quantityOf(result)) }} ±
          {{ show(spread.likely, quantityOf(result), 3) }} likely; at worst
          {{ show(spread.worst[0], quantityOf(result), 3) }} to
          {{ show(spread.worst[1], quantityOf(result), 3) }}.
        </p>
        <ul class="text-[13px] text-soft">
          <li v-for="c in spread.contributions" :key="c.name">
            {{ labelOf(c.name) }}: {{ show(c.share, 'share', 2) }} of it,
            {{ show(c.low, quantityOf(result), 3) }} to {{ show(c.high, quantityOf(result), 3) }}
          </li>
        </ul>
      </div>
    </DisclosurePanel>
  </Disclosure>
</template>
