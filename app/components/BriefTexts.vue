<script setup lang="ts">
/** Name and statements of the brief. */
import type { Brief } from '@oar-bench/core/size/brief/brief'

const sheetDocument = useSheetDocument()
const statements = [
  {
    name: 'purpose',
    label: 'What it must do, and in which order',
    hint: 'for example: press shavings into a bale, hold, return',
    rows: 4,
  },
  {
    name: 'never',
    label: 'What must never happen',
    hint: 'a load that drops, a tool that moves before the part is held',
    rows: 3,
  },
  { name: 'onLoss', label: 'When power is lost', hint: 'what stops, what stays held', rows: 2 },
  { name: 'onOilLoss', label: 'When oil is lost', hint: 'who is warned, what takes over', rows: 2 },
  { name: 'onControlLoss', label: 'When the control fails', hint: 'where each valve goes', rows: 2 },
] as const
const rename = (name: string, summary: string) =>
  sheetDocument.rename(name.trim() || sheetDocument.machine!.name, summary)
const change = (next: Partial<Brief>) => sheetDocument.setBrief({ ...sheetDocument.brief, ...next })
</script>

<template>
  <label class="mb-2.5 block">
    <span class="mb-0.5 block text-[13px] text-soft">Machine</span>
    <input
      class="field"
      :value="sheetDocument.machine?.name"
      maxlength="80"
      @change="rename(($event.target as HTMLInputElement).value, sheetDocument.machine!.summary)"
    />
  </label>
  <label class="mb-2.5 block">
    <span class="mb-0.5 block text-[13px] text-soft">Short description</span>
    <input
      class="field"
      :value="sheetDocument.machine?.summary"
      maxlength="400"
      @change="rename(sheetDocument.machine!.name, ($event.target as HTMLInputElement).value)"
    />
  </label>
  <label v-for="s in statements" :key="s.name" class="mb-2.5 block">
    <span class="mb-0.5 block text-[13px] text-soft">{{ s.label }}</span>
    <textarea
      class="field"
      :value="sheetDocument.brief[s.name]"
      :placeholder="s.hint"
      maxlength="4000"
      :rows="s.rows"
      @change="change({ [s.name]: ($event.target as HTMLTextAreaElement).value })"
    />
  </label>
</template>
