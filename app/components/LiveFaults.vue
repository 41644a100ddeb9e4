<script setup lang="ts">
/** How the selected part fails: set while the machine runs, and taken back. */
import { Hammer } from 'lucide-vue-next'
import { BURST_INPUT } from '@oar-bench/core/simulate/circuit/bursting'
import type { OperableFault } from '@oar-bench/core/simulate/operable'
import { textOf } from '@oar-bench/core/size/text'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{
  component?: string
  pipe?: string
  valueOf: (signal: string) => number | undefined
}>()
const live = useLiveRun()
const { show } = useUnits()
const faults = computed(() => live.machine.faults.filter((f) => f.component === props.component))
/** A size at which it shows. */
const usual = ({ spec }: OperableFault) =>
  textOf(Math.min(1, spec.max) === 1 ? 1 : spec.max / 10, spec.quantity)
const sizes = ref<Record<string, string>>({})
const hole = ref('4 mm')
function fail(fault: OperableFault) {
  const text = sizes.value[fault.key] ?? usual(fault)
  const read = parseQuantity(text, fault.spec.quantity)
  if (read.ok) void live.set(fault.component, fault.spec.name, fault.onOff ? 1 : read.si)
}
const repair = (fault: OperableFault) => live.set(fault.component, fault.spec.name, 0)
function burst() {
  const read = parseQuantity(hole.value, 'length')
  if (read.ok) void live.set(props.pipe!, BURST_INPUT.name, read.si)
}
/** The hole of the selected line: its signal is named by the line. */
const burstNow = computed(() => {
  const done = live.actions.findLast(
    (a) => a.kind === 'set' && a.component === props.pipe && a.target === BURST_INPUT.name,
  )
  return done?.kind === 'set' ? done.value : 0
})
</script>

<template>
  <ul v-if="component" class="space-y-1">
    <li v-for="f in faults" :key="f.key" class="flex flex-wrap items-center gap-1.5">
      <span class="min-w-0 flex-1">{{ f.spec.label }}</span>
      <template v-if="valueOf(f.key)">
        <b class="text-caution">{{ f.onOff ? 'yes' : show(valueOf(f.key)!, f.spec.quantity, 3) }}</b>
        <button class="button !py-0" :aria-label="`${f.spec.label}: repair`" @click="repair(f)">
          Repair
        </button>
      </template>
      <template v-else>
        <QuantityField
          v-if="!f.onOff"
          class="w-24"
          hide-label
          :label="`${f.spec.label}: size`"
          :quantity="f.spec.quantity"
          :model-value="sizes[f.key] ?? usual(f)"
          @update:model-value="sizes[f.key] = $event"
        />
        <button
          class="button !py-0"
          :data-testid="`fail-${f.key}`"
          :aria-label="`${f.spec.label}: set`"
          @click="fail(f)"
        >
          <Hammer :size="13" aria-hidden="true" />Set
        </button>
      </template>
    </li>
    <li v-if="!faults.length" class="text-soft">It has no faults that can be set.</li>
  </ul>
  <div v-else-if="pipe" class="flex items-center gap-1.5">
    <template v-if="burstNow">
      <b class="flex-1 text-caution">burst, hole {{ show(burstNow, 'length', 3) }}</b>
      <button class="button !py-0" @click="live.set(pipe, BURST_INPUT.name, 0)">Repair</button>
    </template>
    <template v-else>
      <QuantityField v-model="hole" class="flex-1" hide-label label="Hole" quantity="length" />
      <button class="button" data-testid="burst" @click="burst">
        <Hammer :size="13" aria-hidden="true" />Burst this line
      </button>
    </template>
  </div>
</template>
