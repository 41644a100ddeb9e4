<script setup lang="ts">
/** One motion: what moves, how far, how fast, against what, and how it is held. */
import { Trash2 } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import {
  actuators,
  choicesOf,
  familyOf,
  fieldsOf,
  motionChoices,
  motionFields,
  type ActuatorName,
  type Motion,
  type MotionFieldName,
} from '@oar-bench/core/size/brief/brief'
import { nameOf } from '@oar-bench/core/sheet/schema'
import { changeMotion, removeMotion, setActuator, setMotionValue } from '@oar-bench/core/size/brief/edit'

const props = defineProps<{ motion: Motion }>()
const sheetDocument = useSheetDocument()
const change = (next: Partial<Omit<Motion, 'id'>>) =>
  sheetDocument.setBrief(changeMotion(sheetDocument.brief, props.motion.id, next))
const setValue = (name: MotionFieldName, text: string) =>
  sheetDocument.setBrief(setMotionValue(sheetDocument.brief, props.motion.id, name, text))
const actuatorLabels = Object.fromEntries(
  Object.entries(actuators).map(([name, { label }]) => [name, label]),
) as Record<ActuatorName, string>
const groups = computed(() => {
  const names = fieldsOf(props.motion)
  return [...new Set(names.map((name) => motionFields[name].group))].map(
    (group) => [group, names.filter((name) => motionFields[name].group === group)] as const,
  )
})
const definitionOf = (name: MotionFieldName) =>
  motionFields[name] as { default?: string; note?: string; label: string }
const problemOf = (name: string) =>
  sheetDocument.briefProblems.find((p) => p.motion === props.motion.id && p.field === name)?.message
const loadTable = {
  type: 'table',
  label: 'Force over the stroke, beside the others',
  x: { label: 'Stroke', quantity: 'length' },
  y: { label: 'Force', quantity: 'force', min: -1e8, max: 1e8 },
} as const
/** Actuators on the sheet, to which this motion may belong. */
const designations = computed(() =>
  sheetDocument.sheet.components
    .filter((c) => findKind(c.kind)?.family === 'actuators')
    .map((c) => nameOf(c)),
)
function rename(event: Event) {
  const name = typedText(event, props.motion.name)
  if (name) change({ name })
}
</script>

<template>
  <section class="py-3" data-testid="motion-fields">
    <div class="mb-3 grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3 xl:grid-cols-4">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Name of the motion</span>
        <input class="field" :value="motion.name" maxlength="60" @change="rename" />
      </label>
      <ChoiceField
        label="Actuator"
        :model-value="motion.actuator"
        :choices="actuatorLabels"
        @update:model-value="sheetDocument.setBrief(setActuator(sheetDocument.brief, motion.id, $event))"
      />
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">On the sheet</span>
        <select
          class="field"
          :value="motion.designation"
          @change="change({ designation: ($event.target as HTMLSelectElement).value })"
        >
          <option value="">the only one of its kind</option>
          <option v-if="motion.designation && !designations.includes(motion.designation)">
            {{ motion.designation }}
          </option>
          <option v-for="d in designations" :key="d">{{ d }}</option>
        </select>
      </label>
      <ChoiceField
        v-for="name in choicesOf(motion)"
        :key="name"
        :label="motionChoices[name].label"
        :model-value="motion[name] as string"
        :choices="motionChoices[name].options as Readonly<Record<string, string>>"
        @update:model-value="change({ [name]: $event })"
      />
      <span class="flex items-end justify-end">
        <ToolButton
          :label="`Delete ${motion.name}`"
          @click="sheetDocument.setBrief(removeMotion(sheetDocument.brief, motion.id))"
        >
          <Trash2 :size="16" />
        </ToolButton>
      </span>
    </div>
    <div v-for="[group, names] in groups" :key="group" class="mb-3">
      <h3 class="mb-1 text-[13px] font-semibold">{{ group }}</h3>
      <div class="grid grid-cols-2 gap-x-3 gap-y-2 md:grid-cols-3 xl:grid-cols-4">
        <QuantityField
          v-for="name in names"
          :key="name"
          optional
          converter
          :model-value="motion.values[name] ?? ''"
          :placeholder="definitionOf(name).default"
          :quantity="motionFields[name].quantity"
          :label="definitionOf(name).label"
          :note="definitionOf(name).note"
          :problem="problemOf(name)"
          :data-testid="`motion-${name}`"
          @update:model-value="setValue(name, $event)"
        />
        <TableField
          v-if="group === 'Load' && familyOf(motion) === 'linear'"
          class="col-span-2"
          :parameter="loadTable"
          :model-value="motion.loadTable.length ? motion.loadTable : undefined"
          :problem="problemOf('loadTable')"
          @update:model-value="change({ loadTable: $event ?? [] })"
        />
        <label v-if="group === 'Holding'" class="flex items-center gap-2 self-center">
          <input
            type="checkbox"
            :checked="motion.people"
            @change="change({ people: ($event.target as HTMLInputElement).checked })"
          />
          People may be under or in front of it
        </label>
      </div>
      <p
        v-if="group === 'Holding' && motion.people && motion.holding !== 'lock'"
        class="mt-1.5 text-[13px] text-caution"
      >
        No single valve may hold a load under which somebody stands: a mechanical lock belongs to it.
      </p>
    </div>
  </section>
</template>
