<script setup lang="ts">
/** Step sequences: their drawing, with active steps in a run, and their steps and transitions as lists. */
import { Plus, Trash2 } from 'lucide-vue-next'
import {
  addSequence,
  addStep,
  changeSequence,
  coilsFromText,
  coilsToText,
  contactsFromText,
  contactsToText,
  removeSequence,
  removeStep,
} from '@oar-bench/core/control/edit'
import { unusedName } from '@oar-bench/core/sheet/edit'
import type { Sequence, SequenceStep, StepAction, Transition } from '@oar-bench/core/sheet/schema'

defineProps<{ running?: boolean }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const sequences = computed(() => sheetDocument.sheet.control.sequences)
const apply = (sheet: typeof sheetDocument.sheet) => sheetDocument.apply(sheet)
const change = (id: string, next: Partial<Sequence>) => apply(changeSequence(sheetDocument.sheet, id, next))
const changeStep = (s: Sequence, id: string, next: Partial<SequenceStep>) =>
  change(s.id, { steps: s.steps.map((x) => (x.id === id ? { ...x, ...next } : x)) })
const changeTransition = (s: Sequence, id: string, next: Partial<Transition>) =>
  change(s.id, { transitions: s.transitions.map((t) => (t.id === id ? { ...t, ...next } : t)) })
const changeAction = (s: Sequence, step: SequenceStep, i: number, next: Partial<StepAction> | undefined) =>
  changeStep(s, step.id, {
    actions: step.actions.flatMap((a, k) => (k === i ? (next ? [{ ...a, ...next }] : []) : [a])),
  })
function addAction(s: Sequence, step: SequenceStep, event: Event) {
  const field = event.target as HTMLInputElement
  const coils = coilsFromText(sheetDocument.sheet, field.value)
  field.value = ''
  if (coils.length)
    changeStep(s, step.id, {
      actions: [...step.actions, ...coils.map((coil) => ({ coil, qualifier: 'while' as const }))].slice(
        0,
        20,
      ),
    })
}
function addTransition(s: Sequence) {
  const id = unusedName(
    't',
    s.transitions.map((t) => t.id),
  )
  const [first] = s.steps
  if (first)
    change(s.id, {
      transitions: [...s.transitions, { id, from: [s.steps.at(-1)!.id], to: [first.id], condition: '' }],
    })
}
const qualifiers: Record<StepAction['qualifier'], string> = {
  while: 'while active',
  set: 'set',
  reset: 'reset',
  delayed: 'delayed by',
  limited: 'limited to',
}
const stepsOf = (event: Event, s: Sequence) =>
  (event.target as HTMLInputElement).value.split(/[\s,]+/).filter((id) => s.steps.some((x) => x.id === id))
const problemsOf = (id: string) => checks.findings.filter((f) => f.location.control === id)
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col overflow-auto bg-paper p-3" data-testid="control-steps">
    <p v-if="!sequences.length" class="text-soft">
      A step sequence says what happens after what: steps with their actions, and transitions with the
      conditions to go on (IEC 60848).
    </p>
    <section v-for="s in sequences" :key="s.id" class="mb-4 flex flex-wrap gap-4">
      <SequenceDrawing :sequence="s" :running="running" />
      <div v-if="!running" class="min-w-80 flex-1">
        <p class="flex items-center gap-2">
          <input
            class="field !w-56"
            :value="s.name"
            aria-label="Name of the sequence"
            maxlength="200"
            @change="change(s.id, { name: ($event.target as HTMLInputElement).value.slice(0, 200) })"
          />
          <ToolButton label="Delete the sequence" @click="apply(removeSequence(sheetDocument.sheet, s.id))">
            <Trash2 :size="15" />
          </ToolButton>
        </p>
        <p v-for="(f, i) in problemsOf(s.id)" :key="i" class="text-[13px] text-error" role="alert">
          {{ f.message }}
        </p>
        <h3 class="heading mt-2 border-b border-rule">Steps</h3>
        <div
          v-for="step in s.steps"
          :key="step.id"
          class="border-b border-rule/50 py-1 text-[13px]"
          :data-testid="`edit-step-${step.id}`"
        >
          <p class="flex items-center gap-2">
            <span class="w-8 font-lettering">{{ step.id }}</span>
            <input
              class="field !py-0.5"
              :value="step.name"
              placeholder="Name"
              :aria-label="`Name of step ${step.id}`"
              maxlength="200"
              @change="
                changeStep(s, step.id, { name: ($event.target as HTMLInputElement).value.slice(0, 200) })
              "
            />
            <label class="flex items-center gap-1 whitespace-nowrap">
              <input
                type="checkbox"
                :checked="step.initial"
                @change="changeStep(s, step.id, { initial: ($event.target as HTMLInputElement).checked })"
              />first
            </label>
            <button
              class="icon-button !size-6"
              :aria-label="`Add a step after ${step.id}`"
              :title="`Add a step after ${step.id}`"
              @click="apply(addStep(sheetDocument.sheet, s.id, step.id))"
            >
              <Plus :size="14" />
            </button>
            <button
              class="icon-button !size-6"
              :aria-label="`Delete step ${step.id}`"
              @click="apply(removeStep(sheetDocument.sheet, s.id, step.id))"
            >
              <Trash2 :size="13" />
            </button>
          </p>
          <p v-for="(a, i) in step.actions" :key="i" class="mt-0.5 ml-10 flex items-center gap-1">
            <select
              class="field !w-28 !py-0"
              :value="a.qualifier"
              :aria-label="`How ${a.coil} acts in ${step.id}`"
              @change="
                changeAction(s, step, i, {
                  qualifier: ($event.target as HTMLSelectElement).value as StepAction['qualifier'],
                })
              "
            >
              <option v-for="(w, q) in qualifiers" :key="q" :value="q">{{ w }}</option>
            </select>
            <QuantityField
              v-if="a.qualifier === 'delayed' || a.qualifier === 'limited'"
              class="w-20"
              hide-label
              :label="`Time of ${a.coil} in ${step.id}`"
              quantity="time"
              :model-value="a.time ?? ''"
              @update:model-value="changeAction(s, step, i, { time: $event })"
            />
            <span class="flex-1 font-lettering">{{ coilsToText(sheetDocument.sheet, [a.coil]) }}</span>
            <button
              class="icon-button !size-6"
              :aria-label="`Delete the action ${a.coil} of ${step.id}`"
              @click="changeAction(s, step, i, undefined)"
            >
              <Trash2 :size="13" />
            </button>
          </p>
          <input
            class="field mt-0.5 ml-10 !w-56 !py-0 font-lettering"
            placeholder="Add a coil"
            :aria-label="`Add a coil to step ${step.id}`"
            maxlength="80"
            @change="addAction(s, step, $event)"
          />
        </div>
        <h3 class="heading mt-3 border-b border-rule">Transitions</h3>
        <p v-for="t in s.transitions" :key="t.id" class="flex items-center gap-1.5 py-0.5 text-[13px]">
          <input
            class="field !w-24 !py-0.5 font-lettering"
            :value="t.from.join(', ')"
            :aria-label="`Steps before ${t.id}`"
            @change="
              changeTransition(s, t.id, { from: stepsOf($event, s).length ? stepsOf($event, s) : t.from })
            "
          />
          →
          <input
            class="field !w-24 !py-0.5 font-lettering"
            :value="t.to.join(', ')"
            :aria-label="`Steps after ${t.id}`"
            @change="changeTransition(s, t.id, { to: stepsOf($event, s).length ? stepsOf($event, s) : t.to })"
          />
          where
          <input
            class="field !py-0.5 font-lettering"
            :value="contactsToText(sheetDocument.sheet, t.condition)"
            placeholder="always"
            :aria-label="`Condition of ${t.id}`"
            maxlength="500"
            @change="
              changeTransition(s, t.id, {
                condition: contactsFromText(
                  sheetDocument.sheet,
                  ($event.target as HTMLInputElement).value,
                ).slice(0, 500),
              })
            "
          />
          <button
            class="icon-button !size-6"
            :aria-label="`Delete transition ${t.id}`"
            @click="change(s.id, { transitions: s.transitions.filter((x) => x.id !== t.id) })"
          >
            <Trash2 :size="13" />
          </button>
        </p>
        <button class="button mt-1 !py-0.5" @click="addTransition(s)">
          <Plus :size="14" aria-hidden="true" />Transition
        </button>
      </div>
    </section>
    <button
      v-if="!running"
      class="button self-start"
      data-testid="add-sequence"
      @click="apply(addSequence(sheetDocument.sheet).sheet)"
    >
      <Plus :size="15" aria-hidden="true" />Step sequence
    </button>
  </div>
</template>
