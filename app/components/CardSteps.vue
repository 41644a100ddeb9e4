<script setup lang="ts">
/** Every result with its formula, the numbers put in, and its value. */
import { Pencil, TriangleAlert, Undo2 } from 'lucide-vue-next'
import { inSentence, textOf } from '@oar-bench/core/size/text'
import type { ChoiceVariable, StepVariable } from '@oar-bench/core/size/card'
import type { SizedNode } from '@oar-bench/core/size/graph'
import { inTradeUnits } from '@oar-bench/core/size/trade'
import { formatNumber } from '@oar-bench/core/units/text'

const props = defineProps<{ node: SizedNode; trade: boolean }>()
const emit = defineEmits<{ value: [variable: string, text: string | undefined] }>()
const { show } = useUnits()
const ownSeries = useOwnSeries()
const { variables } = props.node.card
const results = Object.entries(variables).flatMap(([name, v]) =>
  v.role === 'input' ? [] : [[name, v] as readonly [string, StepVariable | ChoiceVariable]],
)
const symbolOf = (name: string) => variables[name].symbol || inSentence(variables[name].label)
function numberOf(name: string): string {
  const v = variables[name]
  const value = props.node.values[name]
  if (value === undefined) return '?'
  const option = v.role === 'input' && Object.values(v.options ?? {}).find((o) => o.value === value)
  return option ? `“${option.label}”` : show(value, v.quantity)
}
const isGiven = (name: string) => props.node.origins[name]?.type === 'given'
const tradeOf = (v: StepVariable | ChoiceVariable) =>
  props.trade && v.role === 'step' ? inTradeUnits(props.node.card, v, props.node.values) : undefined
const remarksOf = (name: string) => [
  ...props.node.problems.filter((p) => p.variable === name).map((p) => ({ ...p, error: true })),
  ...props.node.warnings
    .filter((w) => w.variable === name)
    .map((w) => ({ ...w, error: w.severity === 'error' })),
]
/** What a setting was rounded from, where that is another value. */
function unroundedOf(name: string, v: StepVariable | ChoiceVariable): string | undefined {
  const value = props.node.unrounded[name]
  if (v.role !== 'choice' || value === undefined || !ownSeries.inForce[v.series].continuous) return undefined
  const shown = show(value, v.quantity)
  return shown === show(props.node.values[name], v.quantity) ? undefined : shown
}
const editing = ref<string>()
function give(name: string, text: string) {
  editing.value = undefined
  emit('value', name, text)
}
</script>

<template>
  <ol>
    <li
      v-for="[name, v] in results"
      :key="name"
      class="group/step border-b border-rule/50 py-1.5"
      :data-testid="`step-${name}`"
    >
      <div class="flex items-baseline gap-2">
        <span class="min-w-0 flex-1 text-[13px] text-soft" :title="v.note">
          {{ v.label }}<template v-if="v.note"> · {{ v.note }}</template>
        </span>
        <b class="whitespace-nowrap font-semibold">{{
          node.values[name] === undefined ? '–' : show(node.values[name], v.quantity)
        }}</b>
        <button
          v-if="isGiven(name)"
          class="icon-button !size-6"
          :title="`Take back`"
          :aria-label="`${v.label}: take back`"
          @click="emit('value', name, undefined)"
        >
          <Undo2 :size="13" />
        </button>
        <button
          v-else
          class="icon-button !size-6 opacity-0 group-hover/step:opacity-100 focus-visible:opacity-100"
          title="Give this value"
          :aria-label="`${v.label}: give`"
          @click="editing = editing === name ? undefined : name"
        >
          <Pencil :size="13" />
        </button>
      </div>
      <p class="break-words">
        <i><MathText :text="v.symbol" /></i> =
        <template v-if="v.role === 'choice'"
          >next {{ v.rounding === 'up' ? 'larger' : 'smaller' }} of
          {{ ownSeries.inForce[v.series].source }} to
        </template>
        <span :title="v.formula.print(symbolOf)"
          ><MathText :text="v.formula.printActive(symbolOf, node.values)" /></span
        ><template v-if="v.formula.names.length">
          =
          <span class="text-soft">{{ v.formula.printActive(numberOf, node.values) }}</span></template
        >
        <span v-if="unroundedOf(name, v)" class="ml-1 text-[13px] text-soft"
          >· {{ unroundedOf(name, v) }} before rounding</span
        >
        <span v-if="isGiven(name)" class="ml-1 text-[13px] text-accent">
          · given here<template v-if="node.computed[name] !== undefined"
            >, computed {{ show(node.computed[name], v.quantity) }}</template
          >
        </span>
      </p>
      <p v-if="tradeOf(v)" class="text-[13px] text-soft">
        <MathText :text="tradeOf(v)!.formula" /> = {{ tradeOf(v)!.numbers }} =
        {{ formatNumber(tradeOf(v)!.value) }}
        {{ tradeOf(v)!.unit }}
      </p>
      <p v-if="v.role === 'step' && v.source" class="text-xs text-soft">{{ v.source }}</p>
      <QuantityField
        v-if="editing === name"
        class="mt-1 max-w-48"
        hide-label
        :model-value="node.values[name] === undefined ? '' : textOf(node.values[name], v.quantity)"
        :quantity="v.quantity"
        :label="`${v.label}, given`"
        @update:model-value="give(name, $event)"
      />
      <p
        v-for="r in remarksOf(name)"
        :key="r.message"
        class="mt-0.5 flex gap-1.5 text-[13px]"
        :class="r.error ? 'text-error' : 'text-caution'"
        :role="r.error ? 'alert' : undefined"
      >
        <TriangleAlert :size="15" class="mt-0.5 shrink-0" aria-hidden="true" />{{ r.message }}
      </p>
    </li>
  </ol>
</template>
