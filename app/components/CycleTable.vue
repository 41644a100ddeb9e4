<script setup lang="ts">
/** The steps of the cycle in their order: what follows what, and on which condition. */
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-vue-next'
import { familyOf, type CycleStep } from '@oar-bench/core/size/brief/brief'
import { placeSteps } from '@oar-bench/core/size/brief/cycle'
import { addStep, changeStep, moveStep, removeStep } from '@oar-bench/core/size/brief/edit'

const sheetDocument = useSheetDocument()
const { show } = useUnits()
const placed = computed(() => placeSteps(sheetDocument.brief))
const change = (step: CycleStep, next: Partial<CycleStep>) =>
  sheetDocument.setBrief(changeStep(sheetDocument.brief, step.id, next))
/** What a step does, as one value: a motion and its way, or a wait. */
const actions = computed(() => [
  ...sheetDocument.brief.motions.flatMap((m) =>
    familyOf(m) === 'flow'
      ? [{ value: `${m.id} out`, label: m.name }]
      : [
          { value: `${m.id} out`, label: `${m.name}, out` },
          { value: `${m.id} back`, label: `${m.name}, back` },
        ],
  ),
  { value: 'wait', label: 'wait' },
])
const actionOf = (step: CycleStep) => (step.way === 'wait' ? 'wait' : `${step.motion} ${step.way}`)
function setAction(step: CycleStep, value: string) {
  if (value === 'wait') change(step, { motion: undefined, way: 'wait', duration: step.duration ?? '1 s' })
  else {
    const [motion, way] = value.split(' ') as [string, 'out' | 'back']
    change(step, { motion, way })
  }
}
const problemOf = (step: CycleStep, field: string) =>
  sheetDocument.briefProblems.find((p) => p.step === step.id && p.field === field)?.message
</script>

<template>
  <section class="pb-4">
    <h2 class="heading mb-1 border-t border-rule pt-2">Cycle</h2>
    <div class="overflow-x-auto">
      <table class="w-full min-w-[720px] text-left" data-testid="cycle-table">
        <thead class="text-[13px] text-soft">
          <tr>
            <th class="py-1 pr-2 font-normal">Step</th>
            <th class="pr-2 font-normal">Starts</th>
            <th class="w-24 pr-2 font-normal">Delay</th>
            <th class="w-28 pr-2 font-normal">Time</th>
            <th class="pr-2 font-normal">On which condition</th>
            <th class="w-32 pr-2 font-normal">From, to</th>
            <th><span class="sr-only">Edit</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="({ step, start, end }, i) in placed" :key="step.id" class="align-top">
            <td class="py-0.5 pr-2">
              <select
                class="field"
                :value="actionOf(step)"
                :aria-label="`Step ${i + 1}`"
                @change="setAction(step, ($event.target as HTMLSelectElement).value)"
              >
                <option v-for="a in actions" :key="a.value" :value="a.value">{{ a.label }}</option>
              </select>
              <p v-if="problemOf(step, 'motion')" class="text-[13px] text-error" role="alert">
                {{ problemOf(step, 'motion') }}
              </p>
            </td>
            <td class="py-0.5 pr-2">
              <select
                class="field"
                :value="step.start"
                :aria-label="`Step ${i + 1} starts`"
                @change="
                  change(step, { start: ($event.target as HTMLSelectElement).value as CycleStep['start'] })
                "
              >
                <option value="after">after those before</option>
                <option value="with" :disabled="i === 0">with the one before</option>
              </select>
            </td>
            <td class="py-0.5 pr-2">
              <QuantityField
                optional
                hide-label
                :model-value="step.delay ?? ''"
                quantity="time"
                :label="`Delay of step ${i + 1}`"
                placeholder="0 s"
                :problem="problemOf(step, 'delay')"
                @update:model-value="change(step, { delay: $event || undefined })"
              />
            </td>
            <td class="py-0.5 pr-2">
              <QuantityField
                hide-label
                :optional="step.way !== 'wait'"
                :model-value="step.duration ?? ''"
                quantity="time"
                :label="`Time of step ${i + 1}`"
                :placeholder="end > start ? show(end - start, 'time', 3) : 'of the motion'"
                :problem="problemOf(step, 'duration')"
                @update:model-value="change(step, { duration: $event || undefined })"
              />
            </td>
            <td class="py-0.5 pr-2">
              <input
                class="field"
                :value="step.condition"
                maxlength="200"
                :aria-label="`Condition of step ${i + 1}`"
                @change="change(step, { condition: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td class="whitespace-nowrap py-1.5 pr-2 text-[13px] text-soft">
              {{ show(start, 'time', 3) }} – {{ show(end, 'time', 3) }}
            </td>
            <td class="whitespace-nowrap py-0.5">
              <ToolButton
                :label="`Step ${i + 1} earlier`"
                :disabled="i === 0"
                @click="sheetDocument.setBrief(moveStep(sheetDocument.brief, step.id, -1))"
              >
                <ArrowUp :size="15" />
              </ToolButton>
              <ToolButton
                :label="`Step ${i + 1} later`"
                :disabled="i === placed.length - 1"
                @click="sheetDocument.setBrief(moveStep(sheetDocument.brief, step.id, 1))"
              >
                <ArrowDown :size="15" />
              </ToolButton>
              <ToolButton
                :label="`Delete step ${i + 1}`"
                @click="sheetDocument.setBrief(removeStep(sheetDocument.brief, step.id))"
              >
                <X :size="15" />
              </ToolButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <button
      class="button mt-1"
      @click="sheetDocument.setBrief(addStep(sheetDocument.brief, sheetDocument.brief.motions[0]?.id))"
    >
      <Plus :size="15" />Add a step
    </button>
  </section>
</template>
