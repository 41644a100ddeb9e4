<script setup lang="ts">
/** The console of a live run: levers, settings, gauges and faults of the machine, laid out by themselves or arranged by hand. */
import { refThrottled, useLocalStorage } from '@vueuse/core'
import { ArrowDown, ArrowUp, Gauge, ListOrdered, Plug, PlugZap, X } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { nameOf } from '@oar-bench/core/sheet/schema'
import type { Operable, OperableType } from '@oar-bench/core/simulate/operable'
import { signalMap } from '@oar-bench/core/simulate/playback'
import { asRead } from '@oar-bench/core/units/quantities'

const emit = defineEmits<{ close: []; reveal: [id: string] }>()
const live = useLiveRun()
const selection = useSelection()
const sheetDocument = useSheetDocument()
const { show } = useUnits()
const { bindings, bind, axes } = useLiveKeys()

/** Numbers are read, and need not change with every frame. */
const frame = refThrottled(
  computed(() => live.frame),
  120,
)
const index = computed(() => (live.base ? signalMap(live.base) : new Map<string, number>()))
function valueOf(signal: string): number | undefined {
  const i = index.value.get(signal)
  return i === undefined ? undefined : frame.value?.values[i]
}

// ---- what can be worked, in the order of the person ------------------------------------------
const orders = useLocalStorage<Record<string, string[]>>('oar-bench-console', {})
const arranging = ref(false)
const order = computed(() => orders.value[sheetDocument.sheetId] ?? [])
const place = (o: Operable) => {
  const at = order.value.indexOf(o.key)
  return at < 0 ? Infinity : at
}
const sorted = computed(() => [...live.machine.operables].sort((a, b) => place(a) - place(b) || 0))
const groups: readonly { type: OperableType; label: string }[] = [
  { type: 'lever', label: 'Levers' },
  { type: 'switch', label: 'Switches' },
  { type: 'setting', label: 'Settings' },
  { type: 'load', label: 'Loads' },
]
const shown = computed(() =>
  groups
    .map(({ type, label }) => ({ label, list: sorted.value.filter((o) => o.type === type) }))
    .filter(({ list }) => list.length),
)
function moveBy(list: readonly Operable[], i: number, by: number) {
  const keys = list.map((o) => o.key)
  const [moved] = keys.splice(i, 1)
  keys.splice(i + by, 0, moved)
  const others = sorted.value.map((o) => o.key).filter((key) => !keys.includes(key))
  orders.value = { ...orders.value, [sheetDocument.sheetId]: [...keys, ...others] }
}
function bindKey(operable: Operable, way: 'plus' | 'minus', event: KeyboardEvent) {
  if (event.key === 'Tab') return
  event.preventDefault()
  event.stopPropagation()
  const clears = ['Escape', 'Backspace', 'Delete'].includes(event.key)
  bind(operable.key, { [way]: clears ? undefined : event.key.toLowerCase() })
}

// ---- what is read ---------------------------------------------------------------------------
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
  const value = valueOf(signal)
  return value === undefined ? '–' : show(asRead(value, quantity), quantity, 3)
}
const powerOff = computed(() => live.machine.electric.some((key) => !!valueOf(key)))
</script>

<template>
  <aside
    class="flex h-full w-80 shrink-0 flex-col overflow-auto border-l border-rule bg-pane p-3 max-md:w-full"
    aria-label="Console"
    data-testid="console"
  >
    <div class="mb-1 flex items-center gap-1">
      <h2 class="heading flex-1">Console</h2>
      <button
        class="icon-button"
        title="Arrange the console; bind keys and the axes of a game controller"
        aria-label="Arrange the console"
        :aria-pressed="arranging"
        @click="arranging = !arranging"
      >
        <ListOrdered :size="16" />
      </button>
      <button class="icon-button" aria-label="Close the console" @click="emit('close')">
        <X :size="16" />
      </button>
    </div>
    <button
      v-if="live.machine.electric.length"
      class="button mb-1"
      :class="{ '!border-caution text-caution': powerOff }"
      data-testid="power"
      :aria-pressed="powerOff"
      @click="live.cutPower(!powerOff)"
    >
      <PlugZap v-if="powerOff" :size="15" /><Plug v-else :size="15" />
      {{ powerOff ? 'Power is off: switch it on' : 'Cut the power' }}
    </button>
    <section v-for="group in shown" :key="group.label">
      <h3 class="heading mt-2 border-b border-rule">{{ group.label }}</h3>
      <div
        v-for="(o, i) in group.list"
        :key="o.key"
        class="border-b border-rule/40 py-1"
        :data-testid="`operable-${o.key}`"
      >
        <p class="flex items-baseline gap-1.5 text-[13px]">
          <button class="font-lettering hover:text-accent" @click="emit('reveal', o.component)">
            {{ o.name }}
          </button>
          <span class="min-w-0 flex-1 truncate text-soft">{{ o.spec.label }}</span>
          <template v-if="arranging">
            <button
              class="icon-button !size-6"
              :disabled="i === 0"
              :aria-label="`${o.name} up`"
              @click="moveBy(group.list, i, -1)"
            >
              <ArrowUp :size="13" />
            </button>
            <button
              class="icon-button !size-6"
              :disabled="i === group.list.length - 1"
              :aria-label="`${o.name} down`"
              @click="moveBy(group.list, i, 1)"
            >
              <ArrowDown :size="13" />
            </button>
          </template>
        </p>
        <LiveLever v-if="o.type === 'lever'" :operable="o" :value="valueOf(o.key)" />
        <LiveSwitch v-else-if="o.type === 'switch'" :operable="o" :value="valueOf(o.key)" />
        <LiveSetting v-else :operable="o" />
        <p v-if="arranging" class="mt-1 flex items-center gap-1 text-xs text-soft">
          Keys
          <input
            v-for="way in ['minus', 'plus'] as const"
            :key="way"
            class="field !w-12 !px-1 !py-0 text-center"
            :value="bindings[o.key]?.[way] ?? ''"
            :placeholder="way === 'plus' ? '+' : '−'"
            :aria-label="`${o.name}, ${o.spec.label}: key ${way}`"
            readonly
            @keydown="bindKey(o, way, $event)"
          />
          <template v-if="axes">
            axis
            <select
              class="field !w-14 !px-1 !py-0"
              :value="bindings[o.key]?.axis ?? ''"
              :aria-label="`${o.name}, ${o.spec.label}: axis of the controller`"
              @change="
                bind(o.key, {
                  axis:
                    ($event.target as HTMLSelectElement).value === ''
                      ? undefined
                      : Number(($event.target as HTMLSelectElement).value),
                })
              "
            >
              <option value="">–</option>
              <option v-for="n in axes" :key="n" :value="n - 1">{{ n }}</option>
            </select>
          </template>
        </p>
      </div>
    </section>
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
    <LiveBranches />
  </aside>
</template>
