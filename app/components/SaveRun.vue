<script setup lang="ts">
/** Saves the run that is shown, under a name. */
import { Save } from 'lucide-vue-next'

const runs = useSimulationRuns()
const live = useLiveRun()
const name = ref('')
const clock = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
async function save(close: () => void) {
  const words = name.value.trim() || `Run of ${clock.format(new Date())}`
  await (live.open ? live.keep(words) : runs.saveRun(words))
  name.value = ''
  close()
}
</script>

<template>
  <PopUp testid="keep" panel-class="w-72 p-3">
    <template #button><Save :size="16" aria-hidden="true" />Save</template>
    <template #default="{ close }">
      <form class="space-y-2" @submit.prevent="save(close)">
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Name of the run</span>
          <input v-model="name" class="field" maxlength="80" placeholder="for example relief at 180 bar" />
        </label>
        <p class="text-xs text-soft">Saved with the sheet it came from.</p>
        <button class="button-main" :disabled="runs.savingRun">Save this run</button>
      </form>
    </template>
  </PopUp>
</template>
