<script setup lang="ts">
/** The alarm panel: what stands, what came first, and what somebody has acknowledged. */
import { BellRing } from 'lucide-vue-next'
import { alarmDevices, alarmsAt, type StandingAlarm } from '@oar-bench/core/control/alarms'

const live = useLiveRun()
const runs = useSimulationRuns()
const devices = computed(() => (live.sheet ? alarmDevices(live.sheet) : []))
const standing = computed(() =>
  live.sheet && runs.shown ? alarmsAt(live.sheet, runs.shown.result, runs.time) : [],
)
const words: Record<StandingAlarm['state'], string> = {
  unacknowledged: 'not acknowledged',
  acknowledged: 'acknowledged',
  gone: 'gone, not acknowledged',
}
/** Long enough for the control to see it. */
const PRESS = 200
async function acknowledge() {
  for (const { device } of devices.value) await live.set(device.id, 'acknowledge', 1)
  setTimeout(() => {
    for (const { device } of devices.value) void live.set(device.id, 'acknowledge', 0)
  }, PRESS)
}
</script>

<template>
  <section v-if="devices.length" class="mt-1" aria-label="Alarms" data-testid="alarms">
    <div class="flex items-center border-b border-rule">
      <h3 class="heading flex-1">Alarms</h3>
      <button
        class="button !py-0"
        :disabled="!standing.some((a) => a.state !== 'acknowledged')"
        data-testid="acknowledge"
        @click="acknowledge"
      >
        Acknowledge
      </button>
    </div>
    <p v-if="!standing.length" class="py-0.5 text-[13px] text-soft">None stands.</p>
    <ul role="status">
      <li
        v-for="a in standing"
        :key="a.id"
        class="flex items-baseline gap-1.5 py-0.5 text-[13px]"
        :class="a.severity === 'trip' ? 'text-error' : 'text-caution'"
        :data-testid="`alarm-${a.id}`"
        :data-state="a.state"
      >
        <BellRing
          v-if="a.state !== 'acknowledged'"
          :size="14"
          class="shrink-0 self-center"
          aria-hidden="true"
        />
        <span class="flex-1 font-semibold">{{ a.name }}</span>
        <span class="text-soft"
          >{{ a.first ? 'first, ' : '' }}{{ a.since.toFixed(1) }} s, {{ words[a.state] }}</span
        >
      </li>
    </ul>
  </section>
</template>
