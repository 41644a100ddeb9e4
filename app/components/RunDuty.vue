<script setup lang="ts">
/** Starts of motors, how long they are loaded, and cycles of switches in a run. */
import { dutyOf } from '@oar-bench/core/simulate/duty'
import type { RunResult } from '@oar-bench/core/simulate/result'
import type { Sheet } from '@oar-bench/core/sheet/schema'

const props = defineProps<{
  result: RunResult
  sheet: Sheet
  designation: (id: string | undefined) => string
}>()
const { show, number } = useUnits()
const duty = computed(() => dutyOf(props.sheet, props.result))
const switched = computed(() => duty.value.switches.filter((s) => s.cycles))
</script>

<template>
  <section v-if="duty.motors.length" data-testid="duty">
    <h3 class="heading mt-2">Duty</h3>
    <table class="w-full">
      <thead class="text-left text-soft">
        <tr>
          <th class="font-normal">Motor</th>
          <th class="text-right font-normal">starts</th>
          <th class="text-right font-normal">an hour</th>
          <th class="text-right font-normal">runs</th>
          <th class="text-right font-normal">loaded</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="m in duty.motors" :key="m.component">
          <td class="font-lettering">{{ designation(m.component) }}</td>
          <td class="text-right">{{ m.starts }}</td>
          <td class="text-right">{{ number(m.startsPerHour, 'ratio', 3) }}</td>
          <td class="text-right">{{ show(m.running, 'time', 3) }}</td>
          <td class="text-right">{{ Math.round(100 * m.loadedShare) }} %</td>
        </tr>
      </tbody>
    </table>
    <p v-for="s in switched" :key="s.component" class="flex justify-between">
      <span>switch {{ designation(s.component) }}</span>
      <span>{{ s.cycles }} times, {{ number(s.cyclesPerHour, 'ratio', 3) }} an hour</span>
    </p>
  </section>
</template>
