<script setup lang="ts">
/** The energy and oil balances of a run, with the statistics of the solver. */
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { BALANCE_WARNING, type RunResult } from '@oar-bench/core/simulate/result'

defineProps<{ result: RunResult; sheet: Sheet; designation: (id: string | undefined) => string }>()
const { show, number } = useUnits()
const kJ = (v: number) => show(v, 'energy', 4)
</script>

<template>
  <PopUp panel-class="w-80 p-3 text-[13px]">
    <template #button>Balance</template>
    <template #default>
      <h3 class="heading">Energy</h3>
      <dl class="grid grid-cols-[1fr_auto] gap-x-3">
        <dt>shaft input</dt>
        <dd class="text-right">{{ kJ(result.energy.input) }}</dd>
        <dt>useful work</dt>
        <dd class="text-right">{{ kJ(result.energy.useful) }}</dd>
        <dt>heat</dt>
        <dd class="text-right">{{ kJ(result.energy.heat) }}</dd>
        <template v-for="h in result.energy.heatBy.slice(0, 6)" :key="h.id">
          <dt class="pl-3 text-soft">in {{ designation(h.id) }}</dt>
          <dd class="text-right text-soft">{{ kJ(h.heat) }}</dd>
        </template>
        <dt>stored</dt>
        <dd class="text-right">{{ kJ(result.energy.stored) }}</dd>
        <dt>error</dt>
        <dd class="text-right" :class="result.energy.error > BALANCE_WARNING ? 'text-error' : ''">
          {{ number(100 * result.energy.error, 'ratio', 2) }} %
        </dd>
      </dl>
      <h3 class="heading mt-2">Oil</h3>
      <dl class="grid grid-cols-[1fr_auto] gap-x-3">
        <dt>from the reservoirs</dt>
        <dd class="text-right">{{ show(result.oil.supplied, 'volume', 4) }}</dd>
        <dt>in chambers and by compression</dt>
        <dd class="text-right">{{ show(result.oil.stored, 'volume', 4) }}</dd>
        <dt>error</dt>
        <dd class="text-right" :class="result.oil.error > BALANCE_WARNING ? 'text-error' : ''">
          {{ number(100 * result.oil.error, 'ratio', 2) }} %
        </dd>
      </dl>
      <RunDuty :result="result" :sheet="sheet" :designation="designation" />
      <p v-for="warning in result.warnings" :key="warning" class="mt-2 text-caution">{{ warning }}</p>
      <p class="mt-2 text-soft">
        {{ result.statistics.steps }} steps, {{ result.statistics.rejected }} rejected,
        {{ result.statistics.events }} events. Results support a qualified person's judgement; they do not
        replace it.
      </p>
    </template>
  </PopUp>
</template>
