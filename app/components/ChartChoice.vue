<script setup lang="ts">
/** Which charts are shown, and which signals are in them. */
import { Activity } from 'lucide-vue-next'
import type { RunResult } from '@oar-bench/core/simulate/result'
import type { TapeCharts } from '../composables/useTapeCharts'

defineProps<{ result: RunResult; charts: TapeCharts }>()
</script>

<template>
  <div class="flex" role="group" aria-label="Charts">
    <button
      v-for="q in chartQuantities"
      :key="q"
      class="border border-rule px-2 py-0.5 first:rounded-l last:rounded-r not-first:border-l-0"
      :class="charts.shown.value.includes(q) ? 'bg-accent-paper text-accent' : 'bg-paper text-soft'"
      :aria-pressed="charts.shown.value.includes(q)"
      :disabled="!charts.available.value.includes(q)"
      @click="charts.toggleChart(q)"
    >
      {{ chartLabels[q] }}
    </button>
  </div>
  <PopUp panel-class="w-80 p-2">
    <template #button><Activity :size="16" aria-hidden="true" />Signals</template>
    <template #default>
      <fieldset v-for="q in charts.shown.value" :key="q" class="mb-2">
        <legend class="heading">{{ chartLabels[q] }}, up to {{ MOST_TRACES }}</legend>
        <label
          v-for="{ signal, index } in chartSignals(result, q)"
          :key="signal.id"
          class="flex items-center gap-2 px-1 py-0.5"
        >
          <input
            type="checkbox"
            class="accent-(--accent)"
            :checked="charts.signalsOf(q, result).includes(signal.id)"
            @change="charts.toggleSignal(q, signal.id)"
          />
          {{ charts.labelOf(result, index) }}
        </label>
      </fieldset>
    </template>
  </PopUp>
</template>
