<script setup lang="ts">
/** The console of a live run: levers, settings, gauges and faults of the machine. They have a default arrangement, which can be changed by dragging. */
import { ArrowDown, ArrowUp, ListOrdered, Plug, PlugZap, X } from 'lucide-vue-next'
import type { Operable, OperableType } from '@oar-bench/core/simulate/operable'

const emit = defineEmits<{ close: []; reveal: [id: string] }>()
const live = useLiveRun()
const sheetDocument = useSheetDocument()
const { bindings, bind, axes } = useLiveKeys()

const { valueOf } = useFrameValues()

// ---- what can be worked, in the order of the person ------------------------------------------
const orders = useSetting<Record<string, string[]>>('console-order', {})
const arranging = ref(false)
const order = computed(() => orders.value[sheetDocument.sheetId] ?? [])
const place = (o: Operable) => {
  const at = order.value.indexOf(o.key)
  return at < 0 ? Infinity : at
}
const sorted = computed(() => [...live.machine.operables].sort((a, b) => place(a) - place(b) || 0))
const groups: readonly { type: OperableType; label: string }[] = [
  { type: 'button', label: 'Buttons' },
  { type: 'selector', label: 'Selectors and latching buttons' },
  { type: 'order', label: 'Orders' },
  { type: 'lever', label: 'Levers' },
  { type: 'switch', label: 'Switches' },
  { type: 'setting', label: 'Settings' },
  { type: 'load', label: 'Loads' },
]
const shown = computed(() =>
  groups
    .map(({ type, label }) => ({
      label,
      list: sorted.value.filter((o) => o.type === type && o.spec.name !== 'acknowledge'),
    }))
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
    <LiveLamps :value-of="valueOf" />
    <LiveAlarms />
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
        <LiveButton v-if="o.type === 'button'" :operable="o" :value="valueOf(o.key)" />
        <LiveLever v-else-if="o.type === 'lever'" :operable="o" :value="valueOf(o.key)" />
        <LiveSwitch
          v-else-if="o.type === 'switch' || o.type === 'selector'"
          :operable="o"
          :value="valueOf(o.key)"
        />
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
    <LiveReadings :value-of="valueOf" />
    <LiveBranches />
  </aside>
</template>
