<script setup lang="ts">
/** What all motions share: supply, drive, fluid, duty, surroundings. */
import {
  cycleModes,
  drives,
  fluids,
  grids,
  machineFieldNames,
  machineFields,
  restartModes,
  startModes,
  stopModes,
  supplies,
  type Brief,
  type MachineFieldName,
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
          label="Started by"
          :model-value="brief.operation.start"
          :choices="startModes"
          note="the control is checked against this"
          @update:model-value="operate({ start: $event })"
        />
        <ChoiceField
          label="Stopped by"
          :model-value="brief.operation.stop"
          :choices="stopModes"
          @update:model-value="operate({ stop: $event })"
        />
        <ChoiceField
          label="Cycles"
          :model-value="brief.operation.cycle"
          :choices="cycleModes"
          @update:model-value="operate({ cycle: $event })"
        />
        <ChoiceField
          label="Starts again"
          :model-value="brief.operation.restart"
          :choices="restartModes"
          @update:model-value="operate({ restart: $event })"
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
