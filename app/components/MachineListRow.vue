<script setup lang="ts">
/** A machine in the list: a small picture of its sheet, and the state of each step. */
import { CopyPlus, Trash2 } from 'lucide-vue-next'
import type { MachineRow } from '#shared/api'

const props = defineProps<{
  machine: MachineRow
  /** Edits of it in this browser were never saved. */
  unsaved: boolean
}>()
const emit = defineEmits<{ duplicate: []; remove: [] }>()
const steps = computed(() => stepStates(props.machine))
const colours = { done: 'text-good', open: 'text-soft', problem: 'text-error' } as const
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
const to = (step: string) => `/machines/${props.machine.id}/${step}`
</script>

<template>
  <li
    class="machine-row flex items-start gap-4 border-b border-rule px-2 py-2 hover:bg-pane"
    data-testid="machine"
  >
    <NuxtLink :to="to('sheet')" tabindex="-1" aria-hidden="true" class="shrink-0">
      <span class="flex h-20 w-32 items-center justify-center rounded border border-rule bg-white">
        <img
          v-if="machine.sheet?.components"
          :src="`/api/sheets/${machine.sheetId}/thumbnail?revision=${machine.sheetRevision}`"
          alt=""
          loading="lazy"
          class="max-h-18 max-w-30"
        />
        <span v-else class="text-xs text-neutral-500">{{ machine.sheet ? 'empty sheet' : '…' }}</span>
      </span>
    </NuxtLink>
    <div class="min-w-0 flex-1">
      <div class="flex items-baseline gap-2">
        <NuxtLink
          :to="to(machine.sheet?.components === 0 ? 'brief' : 'sheet')"
          class="font-semibold text-accent hover:underline"
          >{{ machine.name }}</NuxtLink
        >
        <span v-if="machine.variants > 1" class="text-[13px] text-soft">{{ machine.variants }} variants</span>
        <span
          v-if="unsaved"
          class="rounded bg-accent-paper px-2 text-[13px] text-caution"
          data-testid="unsaved"
          >Unsaved changes in this browser</span
        >
      </div>
      <p class="max-w-2xl truncate text-soft" :title="machine.summary">{{ machine.summary }}</p>
      <ul class="mt-1 flex flex-wrap gap-x-5 text-[13px]">
        <li v-for="s in steps" :key="s.step" :data-step="s.step" :data-state="s.state">
          <NuxtLink :to="to(s.step)" class="hover:text-accent">
            <span class="mr-1 font-medium">{{ s.label }}:</span
            ><span :class="colours[s.state]">{{ s.text }}</span>
          </NuxtLink>
        </li>
      </ul>
    </div>
    <div class="flex shrink-0 items-center gap-1">
      <span class="pr-2 text-right text-[13px] whitespace-nowrap text-soft max-lg:hidden"
        >{{ when.format(machine.updatedAt)
        }}<span v-if="machine.runs" class="block"
          >{{ machine.runs }} saved {{ machine.runs === 1 ? 'run' : 'runs' }}</span
        ></span
      >
      <ToolButton :label="`Duplicate ${machine.name}`" hint="Duplicate" @click="emit('duplicate')">
        <CopyPlus :size="16" />
      </ToolButton>
      <ToolButton :label="`Delete ${machine.name}`" hint="Delete" @click="emit('remove')">
        <Trash2 :size="16" />
      </ToolButton>
    </div>
  </li>
</template>

<style scoped>
/* rows outside the window are not laid out */
.machine-row {
  content-visibility: auto;
  contain-intrinsic-size: auto 97px;
}
</style>
