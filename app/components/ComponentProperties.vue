<script setup lang="ts">
/** The properties of a selected component: its values, what is wrong with it, and its state in the run. */
import { valuesInForce } from '@oar-bench/core/simulate/values-in-force'
import { ArrowLeftRight, Copy, FlipHorizontal2, RotateCw, ShieldAlert, Trash2 } from 'lucide-vue-next'
import { findKind, kinds } from '@oar-bench/core/catalogue'
import { families, type Family, type Parameters } from '@oar-bench/core/catalogue/kind'
import { replaceKind } from '@oar-bench/core/sheet/arrange'
import {
  canSwapPorts,
  setDesignation,
  setForm,
  setParameter,
  setPeopleUnder,
} from '@oar-bench/core/sheet/edit'
import { valuesOrDefaults } from '@oar-bench/core/sheet/geometry'
import type { RawValue } from '@oar-bench/core/sheet/resolve'
import type { SheetComponent } from '@oar-bench/core/sheet/schema'
import { localAt, valuesAt } from '@oar-bench/core/simulate/playback'

const props = defineProps<{ component: SheetComponent }>()
const sheetDocument = useSheetDocument()
const runs = useSimulationRuns()
const { show } = useUnits()
const { commands } = useCommands()
const run = (name: string) => commands.find((c) => c.name === name)!.run()

const kind = computed(() => findKind(props.component.kind))
const groups = computed(() => {
  const idle = kind.value?.idleParameters?.(valuesOrDefaults(props.component)) ?? []
  const all = Object.entries((kind.value?.parameters ?? {}) as Parameters)
  return parametersByGroup(Object.fromEntries(all.filter(([name]) => !idle.includes(name))))
})
/** An outline or words: nothing that another kind could stand for. */
const isDrawnOnly = computed(() => kind.value?.role === 'enclosure' || kind.value?.role === 'text')
const { general, problemOf } = useFindingsAt(() => props.component.id)

const state = computed(() => {
  const shown = runs.shown
  if (!shown || runs.outdated || !kind.value?.describeState) return undefined
  const values = valuesAt(shown.result, runs.time, new Float64Array(shown.result.columns.length))
  const local = localAt(shown.result, values, props.component)
  if (!local) return undefined
  const inForce = valuesInForce(kind.value, valuesOrDefaults(props.component), local.u)
  return kind.value.describeState(local, inForce, show)
})

function setDesignationTo(event: Event) {
  const text = typedText(event, props.component.designation ?? '')
  if (text !== undefined)
    sheetDocument.apply(setDesignation(sheetDocument.sheet, props.component.id, text.slice(0, 24)))
}
function set(name: string, value: RawValue | undefined) {
  sheetDocument.apply(setParameter(sheetDocument.sheet, props.component.id, name, value))
}
const kindsByFamily = (Object.keys(families) as Family[]).map((family) => ({
  label: families[family],
  kinds: [...kinds.values()].filter((k) => k.family === family),
}))
function replace(event: Event) {
  const name = (event.target as HTMLSelectElement).value
  sheetDocument.apply(replaceKind(sheetDocument.sheet, props.component.id, name))
}
const forms = { simplified: 'simplified', detailed: 'in detail' } as const
</script>

<template>
  <div v-if="kind">
    <h2 class="heading">{{ kind.label }}</h2>
    <p class="mb-2 text-[13px] text-soft">{{ kind.description }}</p>
    <div class="mb-2 flex gap-0.5">
      <ToolButton hint="Rotate (R)" label="Rotate" @click="run('rotate')">
        <RotateCw :size="17" />
      </ToolButton>
      <ToolButton hint="Mirror (M)" label="Mirror" @click="run('mirror')">
        <FlipHorizontal2 :size="17" />
      </ToolButton>
      <ToolButton
        v-if="canSwapPorts(sheetDocument.sheet, component.id)"
        hint="Swap ports (X)"
        label="Swap ports"
        @click="run('swapPorts')"
      >
        <ArrowLeftRight :size="17" />
      </ToolButton>
      <ToolButton hint="Duplicate (Ctrl D)" label="Duplicate" @click="run('duplicate')">
        <Copy :size="17" />
      </ToolButton>
      <ToolButton hint="Delete (Del)" label="Delete" @click="run('delete')">
        <Trash2 :size="17" />
      </ToolButton>
    </div>
    <p v-if="state" class="mb-2 rounded bg-accent-paper px-2 py-1.5 text-[13px]" data-testid="doing">
      {{ state }}
    </p>
    <FindingNotes :findings="general" />
    <label v-if="!kind.excludedFromPartsList" class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Designation</span>
      <input
        class="field font-lettering"
        :value="component.designation ?? ''"
        :placeholder="component.id"
        maxlength="24"
        @change="setDesignationTo"
      />
    </label>
    <label v-if="kind.forms" class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Symbol</span>
      <select
        class="field"
        :value="component.form ?? 'simplified'"
        data-testid="form"
        @change="
          sheetDocument.apply(
            setForm(
              sheetDocument.sheet,
              [component.id],
              ($event.target as HTMLSelectElement).value as keyof typeof forms,
            ),
          )
        "
      >
        <option v-for="(words, form) in forms" :key="form" :value="form">{{ words }}</option>
      </select>
      <span class="mt-0.5 block text-xs text-soft">The same valve, drawn simply or in detail.</span>
    </label>
    <label v-if="!isDrawnOnly" class="mb-2 block">
      <span class="mb-0.5 block text-[13px] text-soft">Kind</span>
      <select class="field" :value="component.kind" data-testid="exchange" @change="replace">
        <optgroup v-for="family in kindsByFamily" :key="family.label" :label="family.label">
          <option v-for="k in family.kinds" :key="k.name" :value="k.name">{{ k.label }}</option>
        </optgroup>
      </select>
      <span class="mt-0.5 block text-xs text-soft"
        >Another kind keeps the connections that it has ports for.</span
      >
    </label>
    <section v-for="[group, list] in groups" :key="group" class="mb-2">
      <h3 v-if="group" class="heading mt-1 mb-1 border-t border-rule pt-2">{{ group }}</h3>
      <div class="space-y-2">
        <ParameterField
          v-for="[name, parameter] in list"
          :key="`${component.id}.${name}`"
          :parameter="parameter"
          :model-value="component.parameters[name]"
          :problem="problemOf(name)"
          :data-testid="`parameter-${name}`"
          @update:model-value="set(name, $event)"
        />
      </div>
    </section>
    <label v-if="kind.traits?.motions" class="mb-2 flex items-start gap-2 border-t border-rule pt-2">
      <input
        type="checkbox"
        class="mt-0.5"
        :checked="component.peopleUnder ?? false"
        data-testid="people-under"
        @change="
          sheetDocument.apply(
            setPeopleUnder(sheetDocument.sheet, component.id, ($event.target as HTMLInputElement).checked),
          )
        "
      />
      <span>
        People may be under its load
        <span class="block text-xs text-soft">The checks then ask for more than a single valve.</span>
      </span>
    </label>
    <ControlUses :owner="component.id" />
    <p v-if="kind.safetyNote" class="mt-1 flex gap-2 border-t border-rule pt-2 text-[13px]">
      <ShieldAlert :size="17" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />{{ kind.safetyNote }}
    </p>
  </div>
</template>
