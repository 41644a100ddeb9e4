<script setup lang="ts">
/** The controls of the run: solve, play back, choose charts, save. */
import { Hand, Pause, Play, Square, StepBack, Zap } from 'lucide-vue-next'
import type { TapeCharts } from '../composables/useTapeCharts'

defineProps<{
  charts: TapeCharts
  /** The charts are what is shown. */
  withCharts: boolean
  designation: (id: string | undefined) => string
}>()
const emit = defineEmits<{ reveal: [id: string] }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const runs = useSimulationRuns()
const live = useLiveRun()
const editor = useEditorUi()
/** The schedule goes on commanding what no hand works; else its commands of 0 s are held. */
const scheduled = ref(false)
async function startLive() {
  if (await live.start(scheduled.value)) editor.setPane('console', true)
}
const result = computed(() => runs.shown?.result)
const { time, shown } = storeToRefs(runs)
const { playing, speed, toggle } = usePlayback(
  time,
  computed(() => result.value?.duration),
)
watch(shown, () => (playing.value = false))
</script>

<template>
  <div class="flex shrink-0 flex-wrap items-center gap-2 px-3 pb-1">
    <LiveToolbar v-if="live.open" />
    <button
      v-else-if="!runs.solving"
      class="button-main"
      data-testid="run"
      :disabled="checks.errors.length > 0"
      @click="runs.start()"
    >
      <Zap :size="16" aria-hidden="true" />Run
    </button>
    <button v-else class="button-main" data-testid="stop" @click="runs.stop()">
      <Square :size="15" aria-hidden="true" />Stop, {{ Math.round(runs.progress * 100) }} %
    </button>
    <button
      v-if="!live.open && !runs.solving"
      class="button"
      data-testid="live"
      title="Work the machine by hand while it runs: hold levers, turn settings, break parts"
      :disabled="checks.errors.length > 0 || live.starting"
      @click="startLive"
    >
      <Hand :size="16" aria-hidden="true" />{{ live.starting ? 'Starting …' : 'Live' }}
    </button>
    <label
      v-if="!live.open && !runs.solving && sheetDocument.sheet.schedules.some((s) => s.tracks.length)"
      class="flex items-center gap-1 text-[13px] text-soft"
      title="Live: the schedule goes on commanding what is not worked by hand"
    >
      <input v-model="scheduled" type="checkbox" data-testid="live-scheduled" />with schedule
    </label>
    <select
      v-if="!live.open && sheetDocument.sheet.schedules.length > 1"
      v-model="sheetDocument.scheduleId"
      class="field !w-44"
      aria-label="Schedule"
    >
      <option v-for="s in sheetDocument.sheet.schedules" :key="s.id" :value="s.id">{{ s.name }}</option>
    </select>
    <FindingsList @reveal="emit('reveal', $event)" />
    <template v-if="result && !live.open">
      <span class="mx-1 h-5 border-l border-rule" />
      <button
        v-if="result.live && !runs.outdated"
        class="button"
        data-testid="live-reopen"
        title="Replay what was done by hand, and resume from its end"
        @click="live.reopen(result)"
      >
        <Hand :size="16" aria-hidden="true" />Resume live
      </button>
      <ToolButton label="To the start" @click="runs.time = 0">
        <StepBack :size="17" />
      </ToolButton>
      <ToolButton :hint="playing ? 'Pause' : 'Play'" :label="playing ? 'Pause' : 'Play'" @click="toggle">
        <Pause v-if="playing" :size="17" /><Play v-else :size="17" />
      </ToolButton>
      <select
        v-model.number="speed"
        class="field !w-auto"
        aria-label="Playback speed"
        title="Playback speed; 1 × is real time"
      >
        <option :value="0.05">0.05 ×</option>
        <option :value="0.25">0.25 ×</option>
        <option :value="1">1 ×</option>
        <option :value="4">4 ×</option>
      </select>
      <output class="min-w-18 text-right font-semibold" data-testid="time"
        >{{ runs.time.toFixed(2) }} s</output
      >
    </template>
    <template v-if="result">
      <span class="mx-1 h-5 border-l border-rule" />
      <ChartChoice v-if="withCharts" :result="result" :charts="charts" />
      <SaveRun v-if="!runs.shown?.id" />
      <RunBalance v-if="!live.open" :result="result" :sheet="runs.shown!.sheet" :designation="designation" />
    </template>
    <SavedRuns v-if="runs.savedRuns.length" />
    <span v-if="runs.shown?.id && !runs.outdated" class="truncate text-soft">{{ runs.shown.name }}</span>
  </div>
</template>
