<script setup lang="ts">
/** What a card is given, and from where; each value can be given by hand, or solved for. */
import { Lock, Undo2 } from 'lucide-vue-next'
import type { InputVariable } from '@oar-bench/core/size/card'
import { originText } from '@oar-bench/core/size/report'
import { inSentence, textOf } from '@oar-bench/core/size/text'
import type { Origin, SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode; machine: boolean }>()
const emit = defineEmits<{ value: [variable: string, text: string | undefined]; card: [id: string] }>()
const sizes = useMachineSizes()
const { show } = useUnits()
const inputs = Object.entries(props.node.card.variables).flatMap(([name, v]) =>
  v.role === 'input' ? [[name, v] as const] : [],
)
const results = Object.entries(props.node.card.variables).filter(([, v]) => v.role !== 'input')
/** Where what is typed goes: to the machine, or to the card by itself. */
const target = props.machine ? sizes : useFreeCards()
const solved = computed(() => target.solvedOf(props.node.id))
const given = (name: string) => target.writtenOf(props.node.id, name)
const shown = (name: string, v: InputVariable) => {
  const value = props.node.values[name]
  return value === undefined ? '' : show(value, v.quantity, 5)
}
const optionOf = (name: string, v: InputVariable) =>
  given(name) ||
  (Object.entries(v.options!).find(([, o]) => o.value === props.node.values[name])?.[0] ?? v.default)
const optionLabels = (v: InputVariable) =>
  Object.fromEntries(Object.entries(v.options!).map(([name, { label }]) => [name, label]))
const origin = (name: string): Origin => props.node.origins[name] ?? { type: 'default' }
const problemOf = (name: string) => props.node.problems.find((p) => p.variable === name)?.message
const warningsOf = (name: string) => props.node.warnings.filter((w) => w.variable === name)
const words = (o: Origin) => (o.type === 'default' && !props.machine ? 'example' : originText(o))
const isGiven = (name: string) => origin(name).type === 'given' || given(name) !== ''

/** The result with which an input is to be solved, where one is being asked for. */
const asking = ref<{ unknown: string; wanted: string; value: string }>()
function ask(unknown: string) {
  const [wanted, v] = results.find(([name]) => name === props.node.card.answer) ?? results[0]
  const value = props.node.values[wanted]
  asking.value = { unknown, wanted, value: value === undefined ? '' : textOf(value, v.quantity) }
}
function choose(wanted: string) {
  const value = props.node.values[wanted]
  const { quantity } = props.node.card.variables[wanted]
  asking.value = { ...asking.value!, wanted, value: value === undefined ? '' : textOf(value, quantity) }
}
function solve() {
  target.solve(props.node.id, asking.value!)
  asking.value = undefined
}
const lock = (name: string, v: InputVariable) =>
  emit('value', name, textOf(props.node.values[name], v.quantity))
</script>

<template>
  <section>
    <h2 class="heading mb-2 border-b border-rule pb-1">Given</h2>
    <div v-for="[name, v] in inputs" :key="name" class="mb-2" :data-testid="`input-${name}`">
      <ChoiceField
        v-if="v.options"
        :label="v.label"
        :model-value="optionOf(name, v)"
        :choices="optionLabels(v)"
        @update:model-value="emit('value', name, $event)"
      />
      <QuantityField
        v-else
        optional
        converter
        :model-value="given(name)"
        :placeholder="shown(name, v)"
        :quantity="v.quantity"
        :label="v.label"
        :problem="problemOf(name)"
        @update:model-value="emit('value', name, $event || undefined)"
      />
      <p class="flex items-center gap-2 text-xs text-soft">
        <button
          v-if="origin(name).type === 'card'"
          class="underline hover:text-accent"
          @click="emit('card', (origin(name) as { node: string }).node)"
        >
          {{ (origin(name) as { label: string }).label }}
        </button>
        <span v-else-if="solved?.unknown === name" class="whitespace-nowrap text-accent">solved for</span>
        <span v-else-if="isGiven(name)" class="whitespace-nowrap text-accent">given here</span>
        <span v-else class="whitespace-nowrap">{{ words(origin(name)) }}</span>
        <span v-if="v.note" class="min-w-0 truncate" :title="v.note">· {{ v.note }}</span>
        <span class="ml-auto flex shrink-0 gap-2">
          <button
            v-if="isGiven(name)"
            class="inline-flex items-center gap-0.5 hover:text-accent"
            :aria-label="`${v.label}: take back`"
            @click="emit('value', name, undefined)"
          >
            <Undo2 :size="12" />take back
          </button>
          <button
            v-else-if="!v.options && node.values[name] !== undefined && solved?.unknown !== name"
            class="inline-flex items-center gap-0.5 hover:text-accent"
            :aria-label="`${v.label}: lock`"
            @click="lock(name, v)"
          >
            <Lock :size="11" />lock
          </button>
          <template v-if="!v.options">
            <button
              v-if="solved?.unknown === name"
              class="hover:text-accent"
              @click="target.solve(node.id, undefined)"
            >
              stop solving
            </button>
            <button v-else class="hover:text-accent" :aria-label="`Solve for ${v.label}`" @click="ask(name)">
              solve
            </button>
          </template>
        </span>
      </p>
      <div v-if="asking?.unknown === name" class="mt-1 rounded border border-accent p-2" data-testid="solve">
        <p class="mb-1 text-[13px]">Find {{ inSentence(v.label) }} so that</p>
        <select
          class="field mb-1"
          :value="asking.wanted"
          aria-label="Result that is wanted"
          @change="choose(($event.target as HTMLSelectElement).value)"
        >
          <option v-for="[r, w] in results" :key="r" :value="r">{{ w.label }}</option>
        </select>
        <QuantityField
          hide-label
          :model-value="asking.value"
          :quantity="node.card.variables[asking.wanted].quantity"
          label="Value that is wanted"
          @update:model-value="asking = { ...asking!, value: $event }"
        />
        <p class="mt-1.5 flex gap-2">
          <button class="button-main" :disabled="!asking.value" @click="solve">Solve</button>
          <button class="button" @click="asking = undefined">Cancel</button>
        </p>
      </div>
      <p v-if="solved?.unknown === name && node.otherSolutions.length" class="text-xs text-soft">
        also possible: {{ node.otherSolutions.map((s) => show(s, v.quantity)).join(', ') }}
      </p>
      <p
        v-for="w in warningsOf(name)"
        :key="w.message"
        class="text-[13px]"
        :class="w.severity === 'error' ? 'text-error' : 'text-caution'"
        :role="w.severity === 'error' ? 'alert' : undefined"
      >
        {{ w.message }}
      </p>
    </div>
    <div
      v-for="{ variable, text } in node.unused"
      :key="variable"
      class="mt-2 text-[13px] text-caution"
      data-testid="unused-value"
    >
      “{{ variable }} = {{ text }}” was given for an earlier form of this calculation and is not used. Give it
      again above where it is still meant.
      <button class="underline hover:text-accent" @click="emit('value', variable, undefined)">
        Take it away
      </button>
    </div>
  </section>
</template>
