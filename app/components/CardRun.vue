<script setup lang="ts">
/** What a run shows beside what a card computed, and why they differ. */
import { compareSizes, reasonText } from '@oar-bench/core/study/compare-sizes'
import type { SizedNode } from '@oar-bench/core/size/graph'

const props = defineProps<{ node: SizedNode }>()
const runs = useSimulationRuns()
const sizes = useMachineSizes()
const { show } = useUnits()
const shown = computed(() => runs.shown)
const rows = computed(() =>
  shown.value
    ? compareSizes(shown.value.sheet, sizes.brief, sizes.sizing, shown.value.result).filter(
        (c) => c.node === props.node.id,
      )
    : [],
)
const measured = Object.values(props.node.card.variables).some((v) => v.role === 'step' && v.measure)
</script>

<template>
  <section v-if="measured" class="mt-4" data-testid="card-run">
    <h2 class="heading mb-1 border-b border-rule pb-1">In the run</h2>
    <p v-if="!shown" class="text-[13px] text-soft">Run the sheet, and what it shows stands here beside it.</p>
    <p v-else-if="!rows.length" class="text-[13px] text-soft">
      “{{ shown.name }}” does not show it: no component of the sheet is meant for it, or it does not move.
    </p>
    <template v-else>
      <p class="mb-1 text-[13px] text-soft">
        {{ shown.name }}<template v-if="runs.outdated">, of an earlier state of the sheet</template>
      </p>
      <table class="w-full text-left">
        <thead class="text-xs text-soft">
          <tr>
            <th class="py-0.5 pr-3 font-normal">Value</th>
            <th class="pr-3 font-normal">computed</th>
            <th class="pr-3 font-normal">in the run</th>
            <th class="font-normal">difference</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="row in rows" :key="`${row.variable} ${row.component}`">
            <tr class="border-t border-rule">
              <td class="py-1 pr-3">
                {{ row.label }} <span class="text-soft">{{ row.component }}</span>
              </td>
              <td class="whitespace-nowrap pr-3">{{ show(row.calculated, row.quantity) }}</td>
              <td class="whitespace-nowrap pr-3">{{ show(row.simulated, row.quantity) }}</td>
              <td class="whitespace-nowrap" :class="row.reasons.length ? 'text-caution' : 'text-good'">
                {{ row.difference > 0 ? '+' : '−' }}{{ show(Math.abs(row.difference), 'share', 2) }}
              </td>
            </tr>
            <tr v-if="row.reasons.length">
              <td colspan="4" class="pb-1.5 text-[13px] text-soft">
                {{ row.reasons.map((r) => reasonText(r, (si, q) => show(si, q, 3))).join(' ') }}
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </template>
  </section>
</template>
