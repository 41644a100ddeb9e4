<script setup lang="ts">
/** Title and paper of the drawing: what its title block says. */
import { pageSchema, type PageSettings } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const sizes = pageSchema.shape.size.unwrap().options
const set = (change: Partial<PageSettings>) =>
  sheetDocument.apply({ ...sheetDocument.sheet, page: { ...sheetDocument.sheet.page, ...change } })
const setTitle = (text: string) => {
  const title = text.trim()
  if (title) sheetDocument.apply({ ...sheetDocument.sheet, title })
}
const fields = {
  number: 'Drawing number',
  drawnBy: 'Drawn by',
  approvedBy: 'Approved by',
  date: 'Date of issue',
  issue: 'Issue',
} as const
const text = (event: Event) => (event.target as HTMLInputElement).value.trim()
</script>

<template>
  <div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Title block</h3>
    <div class="space-y-2">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Title</span>
        <input
          class="field"
          :value="sheetDocument.sheet.title"
          maxlength="200"
          data-testid="title"
          @change="setTitle(text($event))"
        />
      </label>
      <label v-for="(label, name) in fields" :key="name" class="block">
        <span class="mb-0.5 block text-[13px] text-soft">{{ label }}</span>
        <input
          class="field"
          :value="sheetDocument.sheet.page[name]"
          maxlength="200"
          :data-testid="`page-${name}`"
          @change="set({ [name]: text($event) })"
        />
      </label>
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Paper</span>
        <select
          class="field"
          :value="sheetDocument.sheet.page.size"
          data-testid="paper"
          @change="set({ size: text($event) as PageSettings['size'] })"
        >
          <option v-for="size in sizes" :key="size" :value="size">{{ size }}</option>
        </select>
      </label>
      <ParameterField
        :parameter="{ type: 'switch', label: 'Portrait', default: false }"
        :model-value="sheetDocument.sheet.page.upright"
        @update:model-value="set({ upright: $event === true })"
      />
      <p class="text-xs text-soft">The PDF has this paper, its frame and title block.</p>
    </div>
  </div>
</template>
