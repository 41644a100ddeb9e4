<script setup lang="ts">
/** A table of pairs: what holds along a stroke. Empty until its first row is added. */
import { FileUp, Plus, X } from 'lucide-vue-next'
import type { TableParameter } from '@oar-bench/core/catalogue/kind'
import type { TableText } from '@oar-bench/core/sheet/schema'
import { shownUnit } from '@oar-bench/core/units/quantities'
import { parseQuantity, quantityText } from '@oar-bench/core/units/text'

const props = defineProps<{
  parameter: TableParameter
  modelValue: TableText | undefined
  problem?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: TableText | undefined] }>()
const { system } = useUnits()
const rows = computed(() => props.modelValue ?? [])

function set(row: number, column: 0 | 1, text: string) {
  emit(
    'update:modelValue',
    rows.value.map((r, i) => (i === row ? (column === 0 ? [text, r[1]] : [r[0], text]) : r)),
  )
}
function add() {
  const { x, y } = props.parameter
  const at = (si: number) => quantityText(si, x.quantity, shownUnit(x.quantity, system.value).symbol)
  const zero = quantityText(0, y.quantity, shownUnit(y.quantity, system.value).symbol)
  const last = rows.value[rows.value.length - 1]
  const parsed = last && parseQuantity(last[0], x.quantity)
  const next = parsed?.ok ? parsed.si + 0.1 : 0.1
  emit(
    'update:modelValue',
    last
      ? [...rows.value, [at(next), last[1]]]
      : [
          [at(0), zero],
          [at(next), zero],
        ],
  )
}
const unread = ref('')
/** Takes the rows of a CSV file; what is there stays where it does not read. */
async function fromFile(file: File) {
  const { readTableCsv } = await import('@oar-bench/core/formats/csv-read')
  const read = readTableCsv(await file.text(), props.parameter)
  unread.value = read.ok ? '' : read.message
  if (read.ok) emit('update:modelValue', read.value)
}
/** A line needs two points: with one row left the table is gone. */
function remove(row: number) {
  const left = rows.value.filter((_, i) => i !== row)
  emit('update:modelValue', left.length > 1 ? left : undefined)
}
</script>

<template>
  <div>
    <div class="flex items-center">
      <span class="text-[13px] text-soft">{{ parameter.label }}</span>
      <FileButton
        class="ml-auto"
        :label="`${parameter.label}: from a CSV file`"
        accept=".csv,.txt"
        testid="table-csv"
        @file="fromFile"
      >
        <FileUp :size="15" />
      </FileButton>
      <ToolButton :label="`${parameter.label}: add a row`" hint="Add a row" @click="add">
        <Plus :size="15" />
      </ToolButton>
    </div>
    <div v-for="([x, y], i) in rows" :key="i" class="mb-1 flex items-start gap-1">
      <QuantityField
        hide-label
        class="min-w-0 flex-1"
        :model-value="x"
        :quantity="parameter.x.quantity"
        :label="`${parameter.x.label}, row ${i + 1}`"
        @update:model-value="set(i, 0, $event)"
      />
      <QuantityField
        hide-label
        class="min-w-0 flex-1"
        :model-value="y"
        :quantity="parameter.y.quantity"
        :label="`${parameter.y.label}, row ${i + 1}`"
        @update:model-value="set(i, 1, $event)"
      />
      <ToolButton :label="`Delete row ${i + 1}`" hint="Delete this row" @click="remove(i)">
        <X :size="14" />
      </ToolButton>
    </div>
    <p v-if="unread" class="mt-0.5 text-[13px] text-error" role="alert">Nothing was changed. {{ unread }}</p>
    <p v-if="problem" class="mt-0.5 text-[13px] text-error" role="alert">{{ problem }}</p>
    <p v-else-if="parameter.note" class="mt-0.5 text-xs text-soft">{{ parameter.note }}</p>
  </div>
</template>
