<script setup lang="ts">
/** Ways that were tried in a live run, and what was done in the present one. */
import { Copy, Trash2 } from 'lucide-vue-next'
import { nameOf } from '@oar-bench/core/sheet/schema'
import type { Action } from '@oar-bench/core/simulate/actions'
import { parseQuantity } from '@oar-bench/core/units/text'

const live = useLiveRun()
const runs = useSimulationRuns()
const { show } = useUnits()
const listed = computed(() =>
  live.actions.flatMap((action, index) => (action.kind === 'longestStep' ? [] : [{ action, index }])),
)
function words(action: Action): string {
  if (action.kind === 'longestStep') return ''
  const component = live.sheet?.components.find((c) => c.id === action.component)
  const who = component ? nameOf(component) : action.component
  if (action.kind === 'release') return `${who}: ${action.target} released`
  if (action.kind === 'parameter') return `${who}: ${action.target} ${String(action.value)}`
  const spec =
    live.machine.operables.find((o) => o.component === action.component && o.spec.name === action.target)
      ?.spec ??
    live.machine.faults.find((f) => f.component === action.component && f.spec.name === action.target)?.spec
  const position = spec?.positions?.find((p) => p.value === action.value)?.label
  const value = position ?? (spec ? show(action.value, spec.quantity, 4) : show(action.value, 'length', 3))
  return `${who}: ${spec?.label ?? action.target} ${value}`
}
const without = (index: number) => live.actions.filter((_, i) => i !== index)
function move(index: number, event: Event) {
  const input = event.target as HTMLInputElement
  const read = parseQuantity(/[a-z]/.test(input.value) ? input.value : `${input.value} s`, 'time')
  if (!read.ok || read.si < 0) return void (input.value = live.actions[index].at.toFixed(3))
  void live.rerun(live.actions.map((a, i) => (i === index ? { ...a, at: read.si } : a)))
}
/** Does it once more, at the instant that is looked at. */
const repeat = (index: number) => live.rerun([...live.actions, { ...live.actions[index], at: runs.time }])
</script>

<template>
  <section data-testid="branches">
    <h3 class="heading mt-3">Branches</h3>
    <ul class="space-y-0.5">
      <li class="flex items-center gap-1.5">
        <input
          class="field !border-transparent !px-1 !py-0 font-semibold"
          :value="live.branch.name"
          maxlength="60"
          aria-label="Name of the present branch"
          @change="
            live.renameBranch(live.branch.id, ($event.target as HTMLInputElement).value || live.branch.name)
          "
        />
        <span class="whitespace-nowrap text-xs text-soft">
          {{ live.branch.from === undefined ? 'present' : `present, from ${live.branch.from.toFixed(2)} s` }}
        </span>
      </li>
      <li
        v-for="b in live.branches"
        :key="b.id"
        class="flex items-center gap-1.5"
        :data-testid="`branch-${b.id}`"
      >
        <span class="min-w-0 flex-1 truncate">{{ b.name }}</span>
        <span class="whitespace-nowrap text-xs text-soft">to {{ b.duration.toFixed(2) }} s</span>
        <button
          v-if="b.result"
          class="button !px-1.5 !py-0 text-[13px]"
          :aria-pressed="runs.overlay?.result === b.result"
          @click="live.compare(runs.overlay?.result === b.result ? undefined : b)"
        >
          Overlay
        </button>
        <button class="button !px-1.5 !py-0 text-[13px]" @click="live.openBranch(b)">Resume</button>
      </li>
    </ul>
    <h3 class="heading mt-3">Done by hand</h3>
    <p v-if="!listed.length" class="text-[13px] text-soft">Nothing yet.</p>
    <ol class="space-y-0.5 text-[13px]">
      <li v-for="{ action, index } in listed" :key="index" class="flex items-center gap-1">
        <input
          class="field !w-16 !px-1 !py-0 text-right tabular-nums"
          :value="action.at.toFixed(3)"
          :aria-label="`Instant of: ${words(action)}`"
          @change="move(index, $event)"
        />
        <span class="min-w-0 flex-1 truncate" :title="words(action)">s {{ words(action) }}</span>
        <button
          class="icon-button !size-6"
          title="Do it once more at the instant that is shown"
          :aria-label="`Repeat: ${words(action)}`"
          @click="repeat(index)"
        >
          <Copy :size="13" />
        </button>
        <button
          class="icon-button !size-6"
          title="Without it"
          :aria-label="`Delete: ${words(action)}`"
          @click="live.rerun(without(index))"
        >
          <Trash2 :size="13" />
        </button>
      </li>
    </ol>
  </section>
</template>
