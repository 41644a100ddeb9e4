<script setup lang="ts">
/** Saved runs: open, overlay, rename, delete. */
import { Layers, Trash2 } from 'lucide-vue-next'

const runs = useSimulationRuns()
const live = useLiveRun()
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <PopUp testid="kept-runs" panel-class="w-96 p-2">
    <template #button>
      <Layers :size="16" aria-hidden="true" />Saved runs ({{ runs.savedRuns.length }})
    </template>
    <template #default>
      <p v-if="runs.overlay" class="mb-2 flex items-center justify-between rounded bg-accent-paper px-2 py-1">
        Overlay, dashed: {{ runs.overlay.name }}
        <button class="button" @click="runs.setOverlay(undefined)">Remove</button>
      </p>
      <ul>
        <li
          v-for="row in runs.savedRuns"
          :key="row.id"
          class="border-b border-rule px-1 py-2 last:border-0"
          data-testid="kept-run"
        >
          <input
            class="field !border-transparent font-semibold hover:!border-rule"
            :value="row.name"
            maxlength="80"
            :aria-label="`Name of ${row.name}`"
            @change="runs.rename(row, ($event.target as HTMLInputElement).value.trim() || row.name)"
          />
          <div class="flex items-center gap-2 pl-2 text-[13px] text-soft">
            <span
              >{{ when.format(row.createdAt) }}, {{ row.duration.toFixed(1) }} s,
              {{ row.conditions }} conditions</span
            >
          </div>
          <div class="mt-1 flex items-center gap-2 pl-2">
            <button class="button" @click="(live.close(), runs.openRun(row))">Open</button>
            <button
              class="button"
              :disabled="!runs.shown || runs.overlay?.id === row.id"
              @click="runs.setOverlay(row)"
            >
              Overlay
            </button>
            <ToolButton
              class="ml-auto"
              :label="`Delete ${row.name}`"
              hint="Delete"
              @click="runs.deleteRun(row)"
            >
              <Trash2 :size="16" />
            </ToolButton>
          </div>
        </li>
      </ul>
    </template>
  </PopUp>
</template>
