<script setup lang="ts">
/** Title block, revision table and paper of the drawing, and what is written beside its symbols. */
import { Plus, Trash2 } from 'lucide-vue-next'
import { withDesignationStyle } from '@oar-bench/core/sheet/designations'
import {
  changeSchema,
  MOST_CHANGES,
  designationStyles,
  pageSchema,
  type Annotations,
  type DrawingChange,
  type PageSettings,
} from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const page = computed(() => sheetDocument.sheet.page)
const sizes = pageSchema.shape.size.unwrap().options
const set = (change: Partial<PageSettings>) =>
  sheetDocument.apply({ ...sheetDocument.sheet, page: { ...page.value, ...change } })
function setTitle(event: Event) {
  const title = typedText(event, sheetDocument.sheet.title)
  if (title) sheetDocument.apply({ ...sheetDocument.sheet, title })
}
const fields = {
  owner: 'Legal owner',
  documentType: 'Document type',
  number: 'Document number',
  drawnBy: 'Created by',
  approvedBy: 'Approved by',
  date: 'Date of issue',
  issue: 'Issue',
} as const
function setField(name: keyof typeof fields, event: Event) {
  const text = typedText(event, page.value[name])
  if (text !== undefined) set({ [name]: text })
}
/** A number of sheets; one that is none is left as it was. */
function setCount(name: 'sheetNumber' | 'sheets', event: Event) {
  const field = event.target as HTMLInputElement
  const read = pageSchema.shape[name].safeParse(field.valueAsNumber)
  if (read.success) set({ [name]: read.data })
  else field.value = String(page.value[name])
}

const changeFields = { issue: 'Issue', change: 'Change', date: 'Date', by: 'By' } as const
function setChange(i: number, name: keyof DrawingChange, event: Event) {
  const text = typedText(event, page.value.changes[i][name])
  if (text !== undefined)
    set({ changes: page.value.changes.map((row, k) => (k === i ? { ...row, [name]: text } : row)) })
}
const addChange = () => set({ changes: [...page.value.changes, changeSchema.parse({})] })
const removeChange = (i: number) => set({ changes: page.value.changes.filter((_, k) => k !== i) })
const annotations = computed(() => sheetDocument.sheet.annotations)
const annotate = (change: Partial<Annotations>) =>
  sheetDocument.apply({ ...sheetDocument.sheet, annotations: { ...annotations.value, ...change } })
const styles = { typeLetter: '1-2V3: letter of the part', mediumLetter: '1-H2.3: letter of the medium' }
</script>

<template>
  <div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Written on the sheet</h3>
    <div class="space-y-2">
      <ParameterField
        v-for="(label, name) in annotationSwitches"
        :key="name"
        :parameter="{ type: 'switch', label, default: false }"
        :model-value="annotations[name]"
        :data-testid="`annotation-${name}`"
        @update:model-value="annotate({ [name]: $event === true })"
      />
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Designations</span>
        <select
          class="field"
          :value="annotations.designations"
          data-testid="designation-style"
          @change="
            sheetDocument.apply(
              withDesignationStyle(
                sheetDocument.sheet,
                ($event.target as HTMLSelectElement).value as Annotations['designations'],
              ),
            )
          "
        >
          <option v-for="style in designationStyles" :key="style" :value="style">{{ styles[style] }}</option>
        </select>
      </label>
    </div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Title block</h3>
    <div class="space-y-2">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Title</span>
        <input
          class="field"
          :value="sheetDocument.sheet.title"
          maxlength="200"
          data-testid="title"
          @change="setTitle"
        />
      </label>
      <label v-for="(label, name) in fields" :key="name" class="block">
        <span class="mb-0.5 block text-[13px] text-soft">{{ label }}</span>
        <input
          class="field"
          :value="page[name]"
          maxlength="200"
          :data-testid="`page-${name}`"
          @change="setField(name, $event)"
        />
      </label>
      <div class="flex items-end gap-2">
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Sheet</span>
          <input
            class="field"
            type="number"
            min="1"
            max="999"
            :value="page.sheetNumber"
            data-testid="page-sheetNumber"
            @change="setCount('sheetNumber', $event)"
          />
        </label>
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">of</span>
          <input
            class="field"
            type="number"
            min="1"
            max="999"
            :value="page.sheets"
            data-testid="page-sheets"
            @change="setCount('sheets', $event)"
          />
        </label>
      </div>
    </div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Revision table</h3>
    <div
      v-for="(row, i) in page.changes"
      :key="i"
      class="mb-2 grid grid-cols-[1fr_1fr_auto] gap-1"
      :data-testid="`change-${i}`"
    >
      <input
        v-for="(label, name) in changeFields"
        :key="name"
        class="field"
        :class="name === 'change' && 'col-span-2 row-start-2'"
        :value="row[name]"
        :placeholder="label"
        :aria-label="`${label}, row ${i + 1}`"
        maxlength="200"
        @change="setChange(i, name, $event)"
      />
      <ToolButton
        class="col-start-3 row-start-1"
        :hint="`Remove row ${i + 1}`"
        :label="`Remove row ${i + 1}`"
        @click="removeChange(i)"
      >
        <Trash2 :size="15" />
      </ToolButton>
    </div>
    <button
      class="button"
      data-testid="add-change"
      :disabled="page.changes.length >= MOST_CHANGES"
      @click="addChange"
    >
      <Plus :size="15" aria-hidden="true" /> Add a row
    </button>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Paper</h3>
    <div class="space-y-2">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Size</span>
        <select
          class="field"
          :value="page.size"
          data-testid="paper"
          @change="set({ size: ($event.target as HTMLSelectElement).value as PageSettings['size'] })"
        >
          <option v-for="size in sizes" :key="size" :value="size">{{ size }}</option>
        </select>
      </label>
      <ParameterField
        :parameter="{ type: 'switch', label: 'Portrait', default: false }"
        :model-value="page.upright"
        @update:model-value="set({ upright: $event === true })"
      />
      <p class="text-xs text-soft">PDF and DXF have this paper, its frame and title block.</p>
    </div>
  </div>
</template>
