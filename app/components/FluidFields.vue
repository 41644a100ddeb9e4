<script setup lang="ts">
/** The oil of the sheet. */
import { fluidParameters } from '@oar-bench/core/sheet/resolve'
import type { FluidSettings } from '@oar-bench/core/sheet/schema'

const drawing = useDrawing()
const names = Object.keys(fluidParameters) as (keyof typeof fluidParameters)[]
const problemOf = (name: string) =>
  drawing.findings.find((f) => !f.place.component && !f.place.pipe && f.place.parameter === name)?.message
function set(name: keyof FluidSettings, value: string) {
  drawing.apply({ ...drawing.sheet, fluid: { ...drawing.sheet.fluid, [name]: value } })
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
        <input
          class="field"
          :value="drawing.sheet.fluid.name"
          maxlength="100"
          @change="set('name', ($event.target as HTMLInputElement).value)"
        />
      </label>
      <QuantityField
        v-for="name in names"
        :key="name"
        :model-value="drawing.sheet.fluid[name]"
        :quantity="fluidParameters[name].quantity"
        :label="fluidParameters[name].label"
        :problem="problemOf(name)"
        @update:model-value="set(name, $event)"
      />
    </div>
  </div>
</template>
