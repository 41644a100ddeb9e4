<script setup lang="ts">
/** What a schedule does by hand: each action is moved, given another value, repeated and deleted. */
import { Copy, Plus, Trash2 } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { commandableOf } from '@oar-bench/core/catalogue/kind'
import { devicesOf } from '@oar-bench/core/control/run'
import { nameOf, type RecordedAction, type Schedule, type Sheet } from '@oar-bench/core/sheet/schema'
import { parseAction, readAction } from '@oar-bench/core/simulate/recorded-actions'
import { parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{ schedule: Schedule; sheet: Sheet }>()
const emit = defineEmits<{ change: [change: Partial<Schedule>] }>()
const { show } = useUnits()
const timeOf = ({ at }: RecordedAction) => {
  const read = parseQuantity(at, 'time')
  return read.ok ? read.si : Infinity
}
const devices = computed(() => devicesOf(props.sheet))
const setActions = (actions: readonly RecordedAction[]) =>
  emit('change', { actions: [...actions].sort((a, b) => timeOf(a) - timeOf(b)) })
const rows = computed(() =>
  props.schedule.actions.map((action, index) => {
    const read = readAction(props.sheet, action, devices.value)
    return { action, index, words: words(action), problem: 'message' in read ? read.message : '' }
  }),
)
function words({ kind, component, target, value }: RecordedAction): string {
  if (kind === 'longestStep') return `steps up to ${shown(value, 'time')}`
  const owner = props.sheet.components.find((c) => c.id === component)
  const device = devices.value.find((d) => d.id === component)
  const what = owner ? (findKind(owner.kind) ?? {}) : device
  const spec = what && commandableOf(what).find((s) => s.name === target)
  const who = `${owner ? nameOf(owner) : (device?.name ?? component)}: ${spec?.label ?? target}`
  return kind === 'release'
    ? `${who} released`
    : `${who} ${spec ? shown(value, spec.quantity) : String(value)}`
}
function shown(value: RecordedAction['value'], quantity: Parameters<typeof show>[1]): string {
  const read = typeof value === 'string' ? parseQuantity(value, quantity) : undefined
  return read?.ok ? show(read.si, quantity, 4) : String(value)
}
const change = (index: number, next: Partial<RecordedAction>) =>
  setActions(props.schedule.actions.map((a, i) => (i === index ? { ...a, ...next } : a)))
const repeat = (index: number) => {
  const action = props.schedule.actions[index]
  setActions([...props.schedule.actions, { ...action, at: `${timeOf(action) + 1} s` }])
}
const remove = (index: number) => setActions(props.schedule.actions.filter((_, i) => i !== index))
const typed = ref('')
const problem = ref('')
function add() {
  const parsed = parseAction(props.sheet, typed.value, devices.value)
  const read = 'message' in parsed ? parsed : readAction(props.sheet, parsed.value, devices.value)
  problem.value = 'message' in read ? read.message : ''
  if ('message' in read || 'message' in parsed) return
  setActions([...props.schedule.actions, parsed.value])
  typed.value = ''
}
</script>

<template>
  <section class="mt-3" data-testid="schedule-actions">
    <h3 class="heading border-b border-rule">Done by hand</h3>
    <ol class="text-[13px]">
      <li
        v-for="{ action, index, words: text, problem: wrong } in rows"
        :key="index"
        class="border-b border-rule/40 py-0.5"
      >
        <div class="flex items-center gap-1">
          <QuantityField
            class="w-24"
            hide-label
            :label="`Instant of: ${text}`"
            quantity="time"
            :model-value="action.at"
            @update:model-value="change(index, { at: $event })"
          />
          <span class="min-w-0 flex-1 truncate" :title="text">{{ text }}</span>
          <button
            class="icon-button !size-6"
            title="Once more, a second later"
            :aria-label="`Repeat: ${text}`"
            @click="repeat(index)"
          >
            <Copy :size="13" />
          </button>
          <button
            class="icon-button !size-6"
            title="Delete"
            :aria-label="`Delete: ${text}`"
            @click="remove(index)"
          >
            <Trash2 :size="13" />
          </button>
        </div>
        <p v-if="wrong" class="text-error" role="alert">{{ wrong }}</p>
      </li>
    </ol>
    <form class="mt-1 flex gap-1" @submit.prevent="add">
      <input
        v-model="typed"
        class="field"
        placeholder="2 s 1-0V1.setting=95 bar"
        aria-label="Action to add: time, and what is set to what"
        data-testid="add-action"
      />
      <button class="icon-button" aria-label="Add the action"><Plus :size="16" /></button>
    </form>
    <p v-if="problem" class="text-[13px] text-error" role="alert">{{ problem }}</p>
  </section>
</template>
