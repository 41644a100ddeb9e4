<script setup lang="ts">
/** One card: what is given, how it is worked out, which sizes there are, and what the sheet takes. */
import { EyeOff } from 'lucide-vue-next'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode; machine: boolean }>()
const emit = defineEmits<{ value: [variable: string, text: string | undefined]; card: [id: string] }>()
const sizes = useMachineSizes()
const { show } = useUnits()
const { card } = props.node
const tradeForm = useSetting('trade-constants', false)
const hasTrade = Object.values(card.variables).some((v) => v.role === 'step' && v.trade)
const answer = computed(() => {
  const { label, quantity } = card.variables[card.answer]
  const value = props.node.values[card.answer]
  return { label, text: value === undefined ? '–' : show(value, quantity) }
})
const choices = Object.entries(card.variables).filter(([, v]) => v.role === 'choice')
const reason = computed(() => (props.machine ? (sizes.decisions.reasons[props.node.id] ?? '') : ''))
</script>

<template>
  <article :data-testid="`card-${node.id}`" class="mx-auto max-w-5xl">
    <header class="mb-3 flex items-start gap-4">
      <div class="min-w-0 flex-1">
        <h1 class="font-lettering text-2xl font-medium">
          {{ card.title }}<span v-if="node.motion" class="text-soft">, {{ node.motion.name }}</span>
        </h1>
        <p class="text-soft">{{ card.about }}</p>
      </div>
      <div class="text-right">
        <p class="text-[13px] text-soft">{{ answer.label }}</p>
        <p class="whitespace-nowrap font-lettering text-2xl font-medium" data-testid="answer">
          {{ answer.text }}
        </p>
      </div>
      <ToolButton v-if="machine" label="Take this card away" @click="sizes.close(node.id)">
        <EyeOff :size="17" />
      </ToolButton>
    </header>
    <div class="grid gap-x-8 gap-y-4 xl:grid-cols-[19rem_1fr]">
      <CardInputs
        :node="node"
        :machine="machine"
        @value="(variable, text) => emit('value', variable, text)"
        @card="emit('card', $event)"
      />
      <div class="min-w-0">
        <div class="mb-1 flex items-center border-b border-rule pb-1">
          <h2 class="heading">Calculation</h2>
          <label v-if="hasTrade" class="ml-auto flex items-center gap-1.5 text-[13px] text-soft">
            <input v-model="tradeForm" type="checkbox" />with the constants of the trade
          </label>
        </div>
        <CardSteps
          :node="node"
          :trade="tradeForm"
          @value="(variable, text) => emit('value', variable, text)"
        />
        <CardCandidates
          v-for="[name] in choices"
          :key="name"
          :node="node"
          :name="name"
          :machine="machine"
          @value="emit('value', name, $event)"
        />
        <CardAssessment v-if="card.assess" :node="node" />
        <CardTargets v-if="machine" :node="node" />
        <CardRun v-if="machine" :node="node" />
        <label v-if="machine" class="mt-3 block">
          <span class="mb-0.5 block text-[13px] text-soft">Why it was chosen so</span>
          <textarea
            class="field"
            rows="2"
            maxlength="400"
            :value="reason"
            placeholder="for whoever reads the calculation later"
            @change="sizes.setReason(node.id, ($event.target as HTMLTextAreaElement).value)"
          />
        </label>
        <CardCharts v-if="card.charts.length" :node="node" />
        <CardSplit v-if="node.card.split" :node="node" />
        <CardWhatIf :node="node" />
        <p v-for="note in card.notes" :key="note" class="mt-3 text-[13px] text-soft">{{ note }}</p>
        <p class="mt-3 text-[13px] text-soft">Source: <MathText :text="card.source" />.</p>
      </div>
    </div>
  </article>
</template>
