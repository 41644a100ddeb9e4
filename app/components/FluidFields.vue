<script setup lang="ts">
/** The oil of the sheet. */
import { fluidParameters, lineSpeedParameters, tankParameters } from '@oar-bench/core/sheet/resolve'
import type { FluidSettings, LineSpeedSettings, TankSettings } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const names = Object.keys(fluidParameters) as (keyof typeof fluidParameters)[]
const tankNames = Object.keys(tankParameters) as (keyof typeof tankParameters)[]
const speedNames = Object.keys(lineSpeedParameters) as (keyof typeof lineSpeedParameters)[]
const problemOf = (name: string) =>
  checks.findings.find((f) => !f.location.component && !f.location.pipe && f.location.parameter === name)
    ?.message
function set(name: keyof FluidSettings, value: string) {
  sheetDocument.apply({ ...sheetDocument.sheet, fluid: { ...sheetDocument.sheet.fluid, [name]: value } })
}
function setTank(change: Partial<TankSettings>) {
  sheetDocument.apply({ ...sheetDocument.sheet, tank: { ...sheetDocument.sheet.tank, ...change } })
}
function setLineSpeed(name: keyof LineSpeedSettings, value: string) {
  const { sheet } = sheetDocument
  sheetDocument.apply({ ...sheet, lineSpeeds: { ...sheet.lineSpeeds, [name]: value } })
}
function setName(event: Event) {
  const name = typedText(event, sheetDocument.sheet.fluid.name)
  if (name !== undefined) set('name', name)
}
</script>

<template>
  <div>
    <h2 class="heading">Sheet</h2>
    <p class="mb-3 text-[13px] text-soft">
      Select a component or a pipe to see its values. Here is the oil they share.
    </p>
    <div class="space-y-2">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Oil</span>
        <input class="field" :value="sheetDocument.sheet.fluid.name" maxlength="100" @change="setName" />
      </label>
      <QuantityField
        v-for="name in names"
        :key="name"
        :model-value="sheetDocument.sheet.fluid[name]"
        :quantity="fluidParameters[name].quantity"
        :label="fluidParameters[name].label"
        :problem="problemOf(name)"
        @update:model-value="set(name, $event)"
      />
    </div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Tank and heat</h3>
    <div class="space-y-2">
      <QuantityField
        v-for="name in tankNames"
        :key="name"
        :model-value="sheetDocument.sheet.tank[name]"
        :quantity="tankParameters[name].quantity"
        :label="tankParameters[name].label"
        :problem="problemOf(name)"
        @update:model-value="setTank({ [name]: $event })"
      />
      <ParameterField
        :parameter="{ type: 'switch', label: 'Thermal model: the oil warms up during a run', default: false }"
        :model-value="sheetDocument.sheet.tank.warming"
        @update:model-value="setTank({ warming: $event === true })"
      />
      <p class="text-xs text-soft">
        One temperature for all the oil: losses warm it, the surroundings and coolers remove heat. Without it
        the oil stays at the temperature above.
      </p>
    </div>
    <h3 class="heading mt-3 mb-1 border-t border-rule pt-2">Speed of oil in lines</h3>
    <div class="space-y-2">
      <QuantityField
        v-for="name in speedNames"
        :key="name"
        :model-value="sheetDocument.sheet.lineSpeeds[name]"
        :quantity="lineSpeedParameters[name].quantity"
        :label="lineSpeedParameters[name].label"
        :problem="problemOf(name)"
        @update:model-value="setLineSpeed(name, $event)"
      />
      <p class="text-xs text-soft">A run reports the lines in which oil flows faster than is usual.</p>
    </div>
  </div>
</template>
