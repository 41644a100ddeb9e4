<script setup lang="ts">
/** Sizes of a series side by side, and what each does on this machine. */
import { candidatesOf } from '@oar-bench/core/size/candidates'
import { formatNumber } from '@oar-bench/core/units/text'
import { textOf } from '@oar-bench/core/size/text'
import type { ChoiceVariable } from '@oar-bench/core/size/card'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode; name: string; machine: boolean }>()
const emit = defineEmits<{ value: [text: string | undefined] }>()
const sheetDocument = useSheetDocument()
const sizes = useMachineSizes()
const ownSeries = useOwnSeries()
const { show } = useUnits()
const choice = props.node.card.variables[props.name] as ChoiceVariable
const candidates = computed(() =>
  candidatesOf(
    props.node,
    props.name,
    props.machine
      ? { brief: sheetDocument.brief, decisions: sizes.decisions, sizing: sizes.sizing }
      : undefined,
    ownSeries.inForce,
  ),
)
const priced = computed(() => candidates.value.rows.some((r) => r.price !== undefined))
</script>

<template>
  <section v-if="candidates.rows.length" class="mt-3 overflow-x-auto" :data-testid="`candidates-${name}`">
    <table class="w-full text-left">
      <caption class="pb-1 text-left text-[13px] text-soft">
        {{
          choice.label
        }}: sizes of
        {{
          ownSeries.inForce[choice.series].source
        }}
      </caption>
      <thead class="align-bottom text-xs text-soft">
        <tr>
          <th class="w-28 py-1 pr-3 font-normal">{{ choice.label }}</th>
          <th v-for="c in candidates.columns" :key="c.label" class="pr-3 font-normal">{{ c.label }}</th>
          <th
            v-if="priced"
            class="pr-3 font-normal"
            title="By the six-tenths rule: price grows with capacity to the power of 0.6"
          >
            Price, about
          </th>
          <th class="w-20"><span class="sr-only">Choose</span></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in candidates.rows"
          :key="row.value"
          class="border-t border-rule"
          :class="{ 'bg-accent-paper/60': row.chosen }"
        >
          <td class="whitespace-nowrap py-1 pr-3 font-semibold" :title="row.warnings.join(' ')">
            {{ show(row.value, choice.quantity)
            }}<span v-if="row.warnings.length" class="ml-1 text-caution" aria-label="with a warning">!</span>
          </td>
          <td v-for="(r, i) in row.results" :key="i" class="whitespace-nowrap pr-3">
            {{ r === undefined ? '–' : show(r, candidates.columns[i].quantity, 3) }}
          </td>
          <td v-if="priced" class="whitespace-nowrap pr-3">
            {{ row.price === undefined ? '–' : `× ${formatNumber(row.price, 2)}` }}
          </td>
          <td class="text-right">
            <span v-if="row.chosen" class="text-[13px] text-accent">chosen</span>
            <button
              v-else
              class="button !py-0"
              :aria-label="`Choose ${show(row.value, choice.quantity)}`"
              @click="emit('value', row.computed ? undefined : textOf(row.value, choice.quantity))"
            >
              Choose
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
