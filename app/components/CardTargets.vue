<script setup lang="ts">
/** What the sheet takes from a card, component by component, and whether it agrees. */
import { ArrowRight, Check } from 'lucide-vue-next'
import { nameOf } from '@oar-bench/core/sheet/schema'
import {
  agrees,
  applyResult,
  assignComponents,
  resultsOf,
  targetsOf,
  type Result,
  type Target,
} from '@oar-bench/core/size/apply'
import type { SizedNode } from '@oar-bench/core/size/graph'
import { applyBore, boreOf, lineServices, pipesFor, wideEnough } from '@oar-bench/core/size/lines'
import { inSentence } from '@oar-bench/core/size/text'

const props = defineProps<{ node: SizedNode }>()
const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const { show } = useUnits()
const rows = computed(() =>
  resultsOf(props.node).map((result) => ({
    result,
    targets: targetsOf(sheetDocument.sheet, sizes.brief, result),
  })),
)
/** Bores of this card, with the lines that take them. */
const lines = computed(() =>
  Object.entries(props.node.card.variables).flatMap(([name, v]) => {
    const bore = props.node.values[name]
    if (v.role !== 'choice' || !v.service || bore === undefined) return []
    const pipes = pipesFor(sheetDocument.sheet, v.service)
    const bores = pipes.map((p) => boreOf(p) ?? 0)
    return [
      {
        name,
        label: v.label,
        service: v.service,
        bore,
        count: pipes.length,
        narrowest: Math.min(...bores),
        widest: Math.max(...bores),
        enough: wideEnough(pipes, Math.min(bore, v.formula.evaluate(props.node.values))),
      },
    ]
  }),
)
/** Applies a result to a component, which is then the one that it is meant for. */
function apply(result: Result, target: Target, targets: readonly Target[]) {
  const meant = targets.filter((t) => t.assigned).map((t) => nameOf(t.component))
  const name = nameOf(target.component)
  const sheet = target.assigned
    ? sheetDocument.sheet
    : assignComponents(sheetDocument.sheet, result, [...meant, name])
  sheetDocument.apply(applyResult(sheet, target, result))
}
function release(result: Result, target: Target, targets: readonly Target[]) {
  const name = nameOf(target.component)
  const left = targets.filter((t) => t.assigned && nameOf(t.component) !== name)
  sheetDocument.apply(
    assignComponents(
      sheetDocument.sheet,
      result,
      left.map((t) => nameOf(t.component)),
    ),
  )
}
</script>

<template>
  <section v-if="rows.length || lines.length" class="mt-4" data-testid="targets">
    <h2 class="heading mb-1 border-b border-rule pb-1">On the sheet</h2>
    <div v-for="line in lines" :key="line.name" class="py-1 text-[13px]">
      <p class="text-soft">
        {{ line.label }}, {{ show(line.bore, 'length') }}:
        <template v-if="!line.count">the sheet has no {{ lineServices[line.service] }} yet.</template>
        <template v-else
          >{{ line.count }} {{ lineServices[line.service] }}, {{ show(line.narrowest, 'length')
          }}<template v-if="line.widest > line.narrowest">
            to {{ show(line.widest, 'length') }}</template
          ></template
        >
      </p>
      <template v-if="line.count">
        <span v-if="line.enough" class="flex items-center gap-1 text-good">
          <Check :size="15" aria-hidden="true" />wide enough
        </span>
        <button
          v-else
          class="button !text-[13px]"
          :data-testid="`apply-lines-${line.service}`"
          @click="sheetDocument.apply(applyBore(sheetDocument.sheet, line.service, line.bore))"
        >
          <ArrowRight :size="14" aria-hidden="true" />all {{ lineServices[line.service] }} →
          {{ show(line.bore, 'length') }}
        </button>
      </template>
    </div>
    <div v-for="{ result, targets } in rows" :key="result.variable" class="py-1">
      <p class="text-[13px] text-soft">
        {{ result.label }}, {{ show(result.value, result.quantity) }}
        <template v-if="!targets.length">: no component on the sheet takes it yet.</template>
      </p>
      <ul class="flex flex-wrap gap-x-3 gap-y-1">
        <li
          v-for="t in targets"
          :key="`${t.component.id} ${t.parameter}`"
          class="flex items-center gap-1 text-[13px]"
        >
          <span v-if="t.assigned && agrees(t, result)" class="flex items-center gap-1 text-good">
            <Check :size="15" aria-hidden="true" />{{ nameOf(t.component) }}:
            {{ inSentence(t.definition.label) }}
            {{ t.value === undefined ? '' : show(t.value, result.quantity) }}
          </span>
          <span v-else-if="!t.possible" class="text-caution">
            {{ nameOf(t.component) }}: {{ inSentence(t.definition.label) }} is between
            {{ show(t.definition.min, result.quantity) }} and {{ show(t.definition.max, result.quantity) }}
          </span>
          <button
            v-else
            class="button !text-[13px]"
            :class="{ '!border-accent': t.assigned }"
            :data-testid="`apply-${result.variable}-${nameOf(t.component)}`"
            @click="apply(result, t, targets)"
          >
            <ArrowRight :size="14" aria-hidden="true" />{{ nameOf(t.component) }}:
            {{ inSentence(t.definition.label) }}
            {{ t.value === undefined ? '' : show(t.value, result.quantity) }} →
            {{ show(result.value, result.quantity) }}
          </button>
          <button
            v-if="t.assigned"
            class="text-xs text-soft hover:text-accent"
            :aria-label="`${result.label} is not for it for ${nameOf(t.component)}`"
            @click="release(result, t, targets)"
          >
            remove
          </button>
        </li>
      </ul>
    </div>
  </section>
</template>
