<script setup lang="ts">
/** A value in all units of its quantity, with the exact factors and the slips that are usual. */
import { quantities, type Quantity } from '@oar-bench/core/units/quantities'
import { conversions, slipsOf } from '@oar-bench/core/units/slips'
import { formatNumber, parseQuantity } from '@oar-bench/core/units/text'

const props = defineProps<{ quantity: Quantity; label: string; text: string }>()
const emit = defineEmits<{ take: [value: string]; close: [] }>()
const open = ref(true)
watch(open, (now) => !now && emit('close'))
const typed = ref(props.text)
const before = parseQuantity(props.text, props.quantity)
const read = computed(() => {
  const parsed = parseQuantity(typed.value, props.quantity)
  // a bare number is shown in the first unit, and questioned
  return parsed.ok ? parsed : parseQuantity(typed.value, props.quantity, quantities[props.quantity].units[0])
})
const rows = computed(() =>
  read.value.ok ? conversions(read.value.value, read.value.unit, props.quantity) : [],
)
const slips = computed(() => slipsOf(typed.value, props.quantity, before.ok ? before.si : undefined))
</script>

<template>
  <DialogBox v-model:open="open" :title="`Units: ${label}`" testid="unit-helper" width="max-w-lg">
    <label class="mb-3 block">
      <span class="mb-0.5 block text-[13px] text-soft">Value with its unit</span>
      <input
        v-model="typed"
        class="field"
        autocomplete="off"
        spellcheck="false"
        data-testid="unit-helper-value"
      />
    </label>
    <p v-if="!read.ok" class="text-error" role="alert">{{ read.message }}</p>
    <ul v-for="slip in slips" :key="slip" class="mb-1 text-caution">
      <li>{{ slip }}</li>
    </ul>
    <table v-if="read.ok" class="mt-2 w-full text-left">
      <thead class="text-[13px] text-soft">
        <tr>
          <th class="py-1 font-normal">Value</th>
          <th class="font-normal">from {{ read.unit.symbol || 'the number' }}</th>
          <th><span class="sr-only">Take</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.unit" class="border-t border-rule">
          <td class="py-1">{{ formatNumber(row.value, 7) }} {{ row.unit === '1' ? '' : row.unit }}</td>
          <td class="text-soft">{{ row.factor }}</td>
          <td class="text-right">
            <button
              class="button !py-0.5"
              @click="
                emit('take', `${Number(row.value.toPrecision(8))} ${row.unit === '1' ? '' : row.unit}`.trim())
              "
            >
              Use
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </DialogBox>
</template>
