<script setup lang="ts">
/** A setting that is turned while the machine runs: by buttons, wheel and arrow keys, or typed. A spring has a lock nut and turns. */
import { Lock, LockOpen, Minus, Plus } from 'lucide-vue-next'
import type { Operable } from '@oar-bench/core/simulate/operable'
import { textOf } from '@oar-bench/core/size/text'
import { formatNumber, parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{ operable: Operable }>()
const live = useLiveRun()
const { show } = useUnits()
const spec = computed(() => props.operable.spec)
const {
  least,
  greatest,
  present,
  loose: isLoose,
  setLoose,
  turn,
  turnByKey,
  turnByWheel,
} = useTurn(() => props.operable)
/** What has no lock nut can always be turned. */
const loose = computed(() => isLoose.value || !props.operable.knob)
const turns = computed(() => {
  const { knob } = props.operable
  if (!knob) return ''
  const share = (present.value - knob.least) / (knob.greatest - knob.least)
  const perTurn = show((knob.greatest - knob.least) / knob.turns, spec.value.quantity, 3)
  return `${formatNumber(knob.turns * share, 2)} of ${knob.turns} turns, ${perTurn} a turn`
})
function typed(text: string) {
  const read = parseQuantity(text, spec.value.quantity)
  if (read.ok) void live.set(props.operable.component, spec.value.name, read.si)
}
</script>

<template>
  <div class="flex items-center gap-1">
    <button
      v-if="operable.knob"
      class="icon-button !size-7"
      :aria-label="`${operable.name}: ${loose ? 'tighten' : 'loosen'} the lock nut`"
      :title="loose ? 'Tighten the lock nut' : 'Loosen the lock nut to turn it'"
      :aria-pressed="loose"
      :data-testid="`nut-${operable.key}`"
      @click="setLoose(!isLoose)"
    >
      <LockOpen v-if="loose" :size="14" /><Lock v-else :size="14" />
    </button>
    <button
      class="icon-button !size-7"
      :disabled="!loose"
      :aria-label="`${operable.name}: less`"
      @click="turn(-1)"
    >
      <Minus :size="14" />
    </button>
    <span
      role="slider"
      :tabindex="loose ? 0 : -1"
      class="min-w-18 rounded border border-transparent px-1 text-right font-semibold tabular-nums"
      :class="loose ? 'cursor-ns-resize hover:border-accent' : 'text-soft'"
      :aria-label="`${operable.name}, ${spec.label}`"
      :aria-valuenow="present"
      :aria-valuemin="least"
      :aria-valuemax="greatest"
      :aria-valuetext="show(present, spec.quantity, 4)"
      :aria-disabled="!loose"
      :title="turns || 'Turn by wheel or arrow keys'"
      :data-testid="`setting-${operable.key}`"
      @keydown="loose && turnByKey($event)"
      @wheel.prevent="loose && turnByWheel($event)"
      >{{ show(present, spec.quantity, 4) }}</span
    >
    <button
      class="icon-button !size-7"
      :disabled="!loose"
      :aria-label="`${operable.name}: more`"
      @click="turn(1)"
    >
      <Plus :size="14" />
    </button>
    <QuantityField
      v-if="loose"
      class="w-24"
      hide-label
      optional
      model-value=""
      placeholder="set to …"
      :quantity="spec.quantity"
      :label="`${operable.name}, ${spec.label}: set to`"
      @update:model-value="typed"
    />
  </div>
  <p v-if="turns && loose" class="text-xs text-soft">
    {{ turns }}; {{ textOf(least, spec.quantity) }} to {{ textOf(greatest, spec.quantity) }}
  </p>
</template>
