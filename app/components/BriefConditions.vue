<script setup lang="ts">
/** What all motions share: supply, drive, fluid, duty, surroundings. */
import {
  drives,
  fluids,
  grids,
  machineFieldNames,
  machineFields,
  operationFields,
  supplies,
  type Brief,
  type MachineFieldName,
  type OperationName,
} from '@oar-bench/core/size/brief/brief'

const sheetDocument = useSheetDocument()
const brief = computed(() => sheetDocument.brief)
const change = (next: Partial<Brief>) => sheetDocument.setBrief({ ...brief.value, ...next })
const groups = [...new Set(machineFieldNames.map((name) => machineFields[name].group))]
const fieldsIn = (group: string) =>
  machineFieldNames.filter(
    (name) => machineFields[name].group === group && (name !== 'voltage' || brief.value.drive === 'electric'),
  )
function setValue(name: MachineFieldName, text: string) {
  const values = { ...brief.value.values }
  if (text) values[name] = text
  else delete values[name]
  change({ values })
}
const operationNames = Object.keys(operationFields) as OperationName[]
const operate = (next: Partial<Brief['operation']>) =>
  change({ operation: { ...brief.value.operation, ...next } })
const defaultOf = (name: MachineFieldName) => (machineFields[name] as { default?: string }).default ?? ''
const noteOf = (name: MachineFieldName) => (machineFields[name] as { note?: string }).note
const problemOf = (name: string) =>
  sheetDocument.briefProblems.find((p) => !p.motion && !p.step && p.field === name)?.message
</script>

<template>
  <section class="mt-4 border-t border-rule pt-3">
    <div class="mb-3" data-testid="brief-operation">
      <h2 class="heading mb-1.5">Operation</h2>
      <div class="grid gap-y-2">
        <ChoiceField
          v-for="name in operationNames"
          :key="name"
          :label="operationFields[name].label"
          :model-value="brief.operation[name] as string"
          :choices="operationFields[name].options as Readonly<Record<string, string>>"
          :note="operationFields[name].note"
          @update:model-value="operate({ [name]: $event })"
        />
      </div>
    </div>
    <div v-for="group in groups" :key="group" class="mb-3">
      <h2 class="heading mb-1.5">{{ group }}</h2>
      <div class="grid grid-cols-2 gap-x-3 gap-y-2">
        <template v-if="group === 'Supply'">
          <ChoiceField
            class="col-span-2"
            label="Supplied by"
            :model-value="brief.supply"
            :choices="supplies"
            note="a variant may be supplied otherwise, see Sizes"
            @update:model-value="change({ supply: $event })"
          />
          <ChoiceField
            label="Drive"
            :model-value="brief.drive"
            :choices="drives"
            @update:model-value="change({ drive: $event })"
          />
          <ChoiceField
            v-if="brief.drive === 'electric'"
            label="Grid"
            :model-value="brief.grid"
            :choices="grids"
            @update:model-value="change({ grid: $event })"
          />
          <ChoiceField
            label="Fluid"
            :model-value="brief.fluid"
            :choices="fluids"
            @update:model-value="change({ fluid: $event })"
          />
        </template>
        <QuantityField
          v-for="name in fieldsIn(group)"
          :key="name"
          optional
          converter
          :model-value="brief.values[name] ?? ''"
          :placeholder="defaultOf(name)"
          :quantity="machineFields[name].quantity"
          :label="machineFields[name].label"
          :note="noteOf(name)"
          :problem="problemOf(name)"
          :data-testid="`brief-${name}`"
          @update:model-value="setValue(name, $event)"
        />
      </div>
    </div>
  </section>
</template>
