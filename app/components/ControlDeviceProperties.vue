<script setup lang="ts">
/** A device of the control: its name, what it is for, and its values. */
import { Trash2 } from 'lucide-vue-next'
import type { Parameter } from '@oar-bench/core/catalogue/kind'
import { findDeviceType } from '@oar-bench/core/control/devices'
import { changeDevice, removeDevice, setDeviceParameter } from '@oar-bench/core/control/edit'
import { referenceOptions } from '@oar-bench/core/control/terminals'
import type { ControlDeviceData } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ device: ControlDeviceData }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const type = computed(() => findDeviceType(props.device.type))
const parameters = computed(() => Object.entries((type.value?.parameters ?? {}) as Record<string, Parameter>))
const findings = computed(() => checks.findings.filter((f) => f.location.control === props.device.id))
const problemOf = (name: string) => findings.value.find((f) => f.location.parameter === name)?.message
const general = computed(() => findings.value.filter((f) => !f.location.parameter))
const referenceOf = (name: string) =>
  (type.value?.references as Record<string, 'coil' | 'signal' | 'value'> | undefined)?.[name]
const optionsOf = (name: string) => referenceOptions(sheetDocument.sheet, referenceOf(name)!)
function change(field: 'label' | 'designation', event: Event) {
  const text = typedText(event, props.device[field] ?? '')
  if (text === undefined) return
  sheetDocument.apply(
    changeDevice(sheetDocument.sheet, props.device.id, {
      [field]: text.slice(0, field === 'label' ? 200 : 24),
    }),
  )
}
const set = (name: string, value: string | boolean | undefined) =>
  sheetDocument.apply(setDeviceParameter(sheetDocument.sheet, props.device.id, name, value))
</script>

<template>
  <div>
    <h2 class="heading">{{ type?.label ?? device.type }}</h2>
    <p class="mb-2 text-[13px] text-soft">{{ type?.description }}</p>
    <div class="mb-2">
      <ToolButton
        label="Delete the device"
        data-testid="delete-device"
        @click="sheetDocument.apply(removeDevice(sheetDocument.sheet, device.id))"
      >
        <Trash2 :size="17" />
      </ToolButton>
    </div>
    <FindingNotes :findings="general" />
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Designation</span>
      <input
        class="field font-lettering"
        :value="device.designation ?? ''"
        :placeholder="device.id"
        maxlength="24"
        data-testid="device-designation"
        @change="change('designation', $event)"
      />
    </label>
    <label class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">What it is for</span>
      <input
        class="field"
        :value="device.label"
        maxlength="200"
        data-testid="device-label"
        @change="change('label', $event)"
      />
    </label>
    <div class="space-y-2">
      <template v-for="[name, parameter] in parameters" :key="`${device.id}.${name}`">
        <label v-if="referenceOf(name)" class="block">
          <span class="mb-0.5 block text-[13px] text-soft">{{ parameter.label }}</span>
          <select
            class="field"
            :value="device.parameters[name] ?? '-'"
            :data-testid="`device-${name}`"
            @change="
              set(
                name,
                ($event.target as HTMLSelectElement).value === '-'
                  ? undefined
                  : ($event.target as HTMLSelectElement).value,
              )
            "
          >
            <option value="-">nothing</option>
            <option v-for="o in optionsOf(name)" :key="o.ref" :value="o.ref">{{ o.name }}</option>
          </select>
        </label>
        <ParameterField
          v-else
          :parameter="parameter"
          :model-value="device.parameters[name]"
          :problem="problemOf(name)"
          :data-testid="`device-${name}`"
          @update:model-value="set(name, $event as string | boolean | undefined)"
        />
      </template>
    </div>
  </div>
</template>
