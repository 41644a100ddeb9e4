<script setup lang="ts">
/** The controls of a live run: pause and resume, pace, to the next event or a condition, back and on from there, keep. */
import { CalendarPlus, GitBranch, Pause, Play, SkipForward, Square } from 'lucide-vue-next'
import { parseQuantity } from '@oar-bench/core/units/text'
import { showIn } from '@oar-bench/core/units/text'

const live = useLiveRun()
const runs = useSimulationRuns()
const { number, unit } = useUnits()
const speeds = [0.05, 0.25, 1, 2, 4] as const
const pace = computed(() => live.frame?.pace ?? 1)
const isBack = computed(() => !live.playing && !!runs.shown && runs.time < runs.shown.result.duration - 0.03)
async function goOn() {
  if (isBack.value) await live.goOnFrom(runs.time)
  await live.play(true)
}
// ---- run until a condition ------------------------------------------------------------------
const signals = computed(() =>
  (live.base?.signals ?? []).filter(
    (s) => s.role === 'pressure' || s.role === 'position' || s.role === 'speed' || s.role === 'state',
  ),
)
const chosen = ref('')
const above = ref(true)
const limit = ref('')
const problem = ref('')
const signal = computed(() => signals.value.find((s) => s.id === chosen.value) ?? signals.value.at(0))
const nameOfSignal = (s: { id: string; label: string; component?: string }) =>
  s.component
    ? `${live.sheet?.components.find((c) => c.id === s.component)?.designation ?? s.component} ${s.label}`
    : s.label
function goUntil(close: () => void) {
  const { quantity, id } = signal.value!
  const text = /[a-z%°]/i.test(limit.value) ? limit.value : `${limit.value} ${unit(quantity)}`
  const read = parseQuantity(text, quantity)
  problem.value = read.ok ? '' : read.message
  if (!read.ok) return
  void live.goUntil({ signal: id, above: above.value, value: read.si })
  close()
}
// ---- as a schedule --------------------------------------------------------------------------
const name = ref('')
const note = ref('')
function writeSchedule(close: () => void) {
  void live.writeSchedule(name.value.trim() || 'By hand', note.value.trim())
  name.value = note.value = ''
  close()
}
const metric = showIn('metric')
const speedText = (s: number) => (s < 1 ? `1 : ${metric(1 / s, 'ratio', 2)}` : `${number(s, 'ratio')} ×`)
</script>

<template>
  <button
    class="button"
    data-testid="live-end"
    title="End the live run; what it found stays on the tape"
    @click="live.close()"
  >
    <Square :size="14" aria-hidden="true" />End
  </button>
  <button v-if="live.playing" class="button-main" data-testid="live-pause" @click="live.play(false)">
    <Pause :size="16" aria-hidden="true" />Pause
  </button>
  <button v-else class="button-main" data-testid="live-play" @click="goOn">
    <GitBranch v-if="isBack" :size="16" aria-hidden="true" /><Play v-else :size="16" aria-hidden="true" />
    {{ isBack ? `Resume from ${runs.time.toFixed(2)} s` : 'Resume' }}
  </button>
  <ToolButton label="To the next event" data-testid="live-event" @click="live.goToEvent()"
    ><SkipForward :size="17"
  /></ToolButton>
  <select
    class="field !w-auto"
    aria-label="Pace"
    title="Seconds of the machine in a second of the clock"
    :value="live.speed"
    @change="live.setSpeed(Number(($event.target as HTMLSelectElement).value))"
  >
    <option v-for="s in speeds" :key="s" :value="s">{{ speedText(s) }}</option>
  </select>
  <output class="min-w-18 text-right font-semibold tabular-nums" data-testid="time"
    >{{ runs.time.toFixed(2) }} s</output
  >
  <span v-if="live.playing && pace < 0.9" class="text-[13px] text-caution" role="status">
    {{ Math.round(100 * pace) }} % of that pace
  </span>
  <PopUp testid="live-until" panel-class="w-80 p-3">
    <template #button>Until …</template>
    <template #default="{ close }">
      <form class="space-y-2" @submit.prevent="goUntil(close)">
        <select v-model="chosen" class="field" aria-label="Value that is watched">
          <option v-for="s in signals" :key="s.id" :value="s.id">{{ nameOfSignal(s) }}</option>
        </select>
        <div class="flex gap-2">
          <select v-model="above" class="field !w-28" aria-label="Above or below">
            <option :value="true">above</option>
            <option :value="false">below</option>
          </select>
          <input
            v-model="limit"
            class="field"
            :placeholder="signal && unit(signal.quantity)"
            aria-label="Limit"
          />
        </div>
        <p v-if="problem" class="text-[13px] text-error" role="alert">{{ problem }}</p>
        <button class="button-main">Run until then</button>
        <label class="flex items-center gap-1.5 border-t border-rule pt-2">
          <input
            type="checkbox"
            :checked="live.slowAtEvents"
            @change="live.setSlowAtEvents(($event.target as HTMLInputElement).checked)"
          />Slow down after every event
        </label>
      </form>
    </template>
  </PopUp>
  <PopUp testid="live-schedule" panel-class="w-72 p-3">
    <template #button><CalendarPlus :size="16" aria-hidden="true" />As schedule</template>
    <template #default="{ close }">
      <form class="space-y-2" @submit.prevent="writeSchedule(close)">
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Name of the schedule</span>
          <input v-model="name" class="field" maxlength="80" placeholder="By hand" />
        </label>
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Note</span>
          <input v-model="note" class="field" maxlength="400" />
        </label>
        <p class="text-xs text-soft">
          What was done becomes a schedule of the sheet, with the same numbers to the last bit.
        </p>
        <button class="button-main">Write it</button>
      </form>
    </template>
  </PopUp>
</template>
