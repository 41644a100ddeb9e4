<script setup lang="ts">
/** What is read of a live run: gauges of the machine, cards of what is measured, and the part that is selected. */
import { Gauge, X } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { nameOf } from '@oar-bench/core/sheet/schema'
import { asRead } from '@oar-bench/core/units/quantities'

const props = defineProps<{
  /** Value of a signal now, SI; not with every frame. */
  valueOf: (signal: string) => number | undefined
}>()
const live = useLiveRun()
const selection = useSelection()
const { show } = useUnits()

const gauges = computed(() =>
  (live.sheet?.components ?? []).flatMap((c) => {
    const kind = findKind(c.kind)
    if (kind?.family !== 'instruments') return []
    const own = live.base?.signals.find((s) => s.component === c.id && s.role === 'output')
    return own
      ? [{ id: c.id, name: nameOf(c), label: own.label, signal: own.id, quantity: own.quantity }]
      : []
  }),
)
const measured = ref<string[]>([])
const selected = computed(() => {
  const [id] = selection.ids
  if (selection.ids.size !== 1) return undefined
  const component = live.sheet?.components.find((c) => c.id === id)
  const pipe = live.sheet?.pipes.find((p) => p.id === id)
  return component
    ? { id, component: id, pipe: undefined, name: nameOf(component) }
    : pipe
      ? { id, component: undefined, pipe: id, name: `Line ${id}` }
      : undefined
})
/** Signals of a part worth reading. */
function signalsOf(id: string) {
  const { base } = live
  if (!base) return []
  const line = base.lineOfPipe[id]
  if (line !== undefined) return base.signals.filter((s) => s.node === line)
  return base.signals
    .filter((s) => s.component === id && ['state', 'output', 'flow'].includes(s.role))
    .slice(0, 8)
}
const cards = computed(() =>
  measured.value.map((id) => {
    const component = live.sheet?.components.find((c) => c.id === id)
    return { id, name: component ? nameOf(component) : `Line ${id}`, signals: signalsOf(id) }
  }),
)
const toggleCard = (id: string) =>
  (measured.value = measured.value.includes(id)
    ? measured.value.filter((m) => m !== id)
    : [...measured.value, id])
const reading = (signal: string, quantity: Parameters<typeof asRead>[1]) => {
  const value = props.valueOf(signal)
  return value === undefined ? '–' : show(asRead(value, quantity), quantity, 3)
}
</script>

<template>
  <div>
    <section v-if="gauges.length">
      <h3 class="heading mt-2 border-b border-rule">Gauges</h3>
      <dl class="grid grid-cols-[1fr_auto] gap-x-2 py-1 text-[13px]" data-testid="gauges">
        <template v-for="g in gauges" :key="g.id">
          <dt class="truncate">
            <span class="font-lettering">{{ g.name }}</span> <span class="text-soft">{{ g.label }}</span>
          </dt>
          <dd class="text-right font-semibold tabular-nums" :data-testid="`gauge-${g.id}`">
            {{ reading(g.signal, g.quantity) }}
          </dd>
        </template>
      </dl>
    </section>
    <section
      v-for="card in cards"
      :key="card.id"
      class="mt-2 rounded border border-rule bg-paper p-2"
      :data-testid="`card-${card.id}`"
    >
      <h3 class="flex items-center text-[13px] font-semibold">
        <Gauge :size="14" class="mr-1" aria-hidden="true" />{{ card.name }}
        <button
          class="icon-button ml-auto !size-6"
          :aria-label="`Take the card of ${card.name} away`"
          @click="toggleCard(card.id)"
        >
          <X :size="13" />
        </button>
      </h3>
      <dl class="grid grid-cols-[1fr_auto] gap-x-2 text-[13px]">
        <template v-for="s in card.signals" :key="s.id">
          <dt class="truncate text-soft">{{ s.label }}</dt>
          <dd class="text-right tabular-nums">{{ reading(s.id, s.quantity) }}</dd>
        </template>
      </dl>
    </section>
    <section data-testid="selected-part">
      <h3 class="heading mt-2 border-b border-rule">{{ selected?.name ?? 'Measure and break' }}</h3>
      <p v-if="!selected" class="py-1 text-[13px] text-soft">
        Select a part or a line on the sheet to measure it, to jam it, to burst it.
      </p>
      <template v-else>
        <button
          class="button my-1"
          data-testid="measure"
          :aria-pressed="measured.includes(selected.id)"
          @click="toggleCard(selected.id)"
        >
          <Gauge :size="14" aria-hidden="true" />{{
            measured.includes(selected.id) ? 'Take its card away' : 'Measure it'
          }}
        </button>
        <LiveFaults :component="selected.component" :pipe="selected.pipe" :value-of="valueOf" />
        <LiveParameters v-if="selected.component" :component="selected.component" />
      </template>
    </section>
  </div>
</template>
