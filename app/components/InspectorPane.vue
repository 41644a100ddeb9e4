<script setup lang="ts">
/** What is selected: its values, what is wrong with it, what it is doing. */
import { Copy, FlipHorizontal2, RotateCw, ShieldAlert, Trash2, ArrowLeftRight } from 'lucide-vue-next'
import { findKind, kinds } from '@oar-bench/core/catalogue'
import { families, type Family, type Parameter } from '@oar-bench/core/catalogue/kind'
import { replaceKind } from '@oar-bench/core/sheet/arrange'
import {
  changePipe,
  swapPorts,
  mirror,
  remove,
  rotate,
  setDesignation,
  setForm,
  setParameter,
  setPeopleUnder,
} from '@oar-bench/core/sheet/edit'
import { valuesOrDefaults } from '@oar-bench/core/sheet/geometry'
import { lineDomain } from '@oar-bench/core/sheet/netlist'
import { pipeLimits, resolvePipe, type RawValue } from '@oar-bench/core/sheet/resolve'
import type { Pipe } from '@oar-bench/core/sheet/schema'
import { valuesAt, localAt } from '@oar-bench/core/simulate/playback'
import { asRead } from '@oar-bench/core/units/quantities'

const drawing = useDrawing()
const run = useRun()
const desk = useDesk()
const { show } = useUnits()

const only = computed(() => (drawing.selection.size === 1 ? [...drawing.selection][0] : undefined))
const component = computed(() => drawing.sheet.components.find((c) => c.id === only.value))
const kind = computed(() => component.value && findKind(component.value.kind))
const pipe = computed(() => drawing.sheet.pipes.find((p) => p.id === only.value))

const groups = computed(() => {
  const result = new Map<string, [string, Parameter][]>()
  for (const [name, parameter] of Object.entries(
    (kind.value?.parameters ?? {}) as Record<string, Parameter>,
  )) {
    const group = parameter.group ?? ''
    result.set(group, [...(result.get(group) ?? []), [name, parameter]])
  }
  return [...result.entries()]
})
const here = computed(() =>
  drawing.findings.filter(
    (f) => only.value && [f.location.component, f.location.pipe, f.location.junction].includes(only.value),
  ),
)
const problemOf = (name: string) => here.value.find((f) => f.location.parameter === name)?.message
const general = computed(() => here.value.filter((f) => !f.location.parameter))

const doing = computed(() => {
  const shown = run.shown
  if (!shown || run.outdated || !component.value || !kind.value?.describeState) return undefined
  const frame = valuesAt(shown.result, run.time, new Float64Array(shown.result.columns.length))
  const local = localAt(shown.result, frame, component.value)
  return local && kind.value.describeState(local, valuesOrDefaults(component.value), show)
})
const linePressure = computed(() => {
  const shown = run.shown
  if (!shown || run.outdated || !pipe.value) return undefined
  const node = shown.result.lineOfPipe[pipe.value.id]
  if (node === undefined || shown.result.signals[node].role !== 'pressure') return undefined
  const frame = valuesAt(shown.result, run.time, new Float64Array(shown.result.columns.length))
  return `${show(asRead(frame[node], 'pressure'), 'pressure')} in ${shown.result.lines[node]}.`
})

function setDesignationTo(text: string) {
  drawing.apply(setDesignation(drawing.sheet, component.value!.id, text.trim().slice(0, 24)))
}
function set(name: string, value: RawValue | undefined) {
  drawing.apply(setParameter(drawing.sheet, component.value!.id, name, value))
}
const setPipe = (change: Partial<Pipe>) => drawing.apply(changePipe(drawing.sheet, pipe.value!.id, change))
const pipeProblem = (name: string) => problemOf(name)
const pipeVolume = computed(() => (pipe.value ? show(resolvePipe(pipe.value).volume, 'volume', 3) : ''))
const twoOilPorts = computed(() => kind.value?.ports.filter((p) => p.domain === 'oil').length === 2)
const { commands, named } = useCommands()
const arranging = computed(() => commands.value.filter((c) => c.group === 'Arrange' && c.enabled))
const others = (Object.keys(families) as Family[]).map((family) => ({
  label: families[family],
  kinds: [...kinds.values()].filter((k) => k.family === family),
}))
function exchange(event: Event) {
  drawing.apply(replaceKind(drawing.sheet, component.value!.id, (event.target as HTMLSelectElement).value))
}
const lineWords = {
  working: 'working line',
  pilot: 'pilot line',
  drain: 'drain line',
  hose: 'flexible hose',
}
const mechanical = computed(() => !!pipe.value && lineDomain(pipe.value.lineType) !== 'oil')
const forms = { simplified: 'simplified', detailed: 'in detail' } as const
const range = (name: keyof typeof pipeLimits) =>
  `${show(pipeLimits[name][0], name === 'volume' ? 'volume' : 'length')} to ${show(pipeLimits[name][1], name === 'volume' ? 'volume' : 'length')}`
</script>

<template>
  <aside
    class="flex h-full w-64 flex-col overflow-auto border-l border-rule bg-pane p-3"
    aria-label="Properties"
    data-testid="properties"
    @keydown.escape="desk.view?.focus()"
  >
    <template v-if="component && kind">
      <h2 class="heading">{{ kind.label }}</h2>
      <p class="mb-2 text-[13px] text-soft">{{ kind.description }}</p>
      <div class="mb-2 flex gap-0.5">
        <ToolButton
          hint="Rotate (R)"
          label="Rotate"
          @click="drawing.apply(rotate(drawing.sheet, [component.id]))"
        >
          <RotateCw :size="17" />
        </ToolButton>
        <ToolButton
          hint="Mirror (M)"
          label="Mirror"
          @click="drawing.apply(mirror(drawing.sheet, [component.id]))"
        >
          <FlipHorizontal2 :size="17" />
        </ToolButton>
        <ToolButton
          v-if="twoOilPorts"
          hint="Turn round: exchange its two ports (X)"
          label="Turn round"
          @click="drawing.apply(swapPorts(drawing.sheet, component.id))"
        >
          <ArrowLeftRight :size="17" />
        </ToolButton>
        <ToolButton hint="Duplicate (Ctrl D)" label="Duplicate" @click="named('duplicate').run()">
          <Copy :size="17" />
        </ToolButton>
        <ToolButton hint="Delete (Del)" label="Delete" @click="named('delete').run()">
          <Trash2 :size="17" />
        </ToolButton>
      </div>
      <p v-if="doing" class="mb-2 rounded bg-accent-paper px-2 py-1.5 text-[13px]" data-testid="doing">
        {{ doing }}
      </p>
      <FindingNotes :findings="general" />
      <label v-if="!kind.excludedFromPartsList" class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Designation</span>
        <input
          class="field font-lettering"
          :value="component.designation ?? ''"
          :placeholder="component.id"
          maxlength="24"
          @change="setDesignationTo(($event.target as HTMLInputElement).value)"
        />
      </label>
      <label v-if="kind.forms" class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Symbol</span>
        <select
          class="field"
          :value="component.form ?? 'simplified'"
          data-testid="form"
          @change="
            drawing.apply(
              setForm(
                drawing.sheet,
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
      <label v-if="!kind.excludedFromPartsList" class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Kind</span>
        <select class="field" :value="component.kind" data-testid="exchange" @change="exchange">
          <optgroup v-for="family in others" :key="family.label" :label="family.label">
            <option v-for="k in family.kinds" :key="k.name" :value="k.name">{{ k.label }}</option>
          </optgroup>
        </select>
        <span class="mt-0.5 block text-xs text-soft">Another kind keeps what is joined to it.</span>
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
            drawing.apply(
              setPeopleUnder(drawing.sheet, component.id, ($event.target as HTMLInputElement).checked),
            )
          "
        />
        <span>
          People may be under its load
          <span class="block text-xs text-soft">The checks then ask for more than a single valve.</span>
        </span>
      </label>
      <p v-if="kind.safetyNote" class="mt-1 flex gap-2 border-t border-rule pt-2 text-[13px]">
        <ShieldAlert :size="17" class="mt-0.5 shrink-0 text-caution" aria-hidden="true" />{{
          kind.safetyNote
        }}
      </p>
    </template>

    <template v-else-if="pipe">
      <h2 class="heading">
        {{ pipe.lineType === 'shaft' ? 'Shaft' : pipe.lineType === 'rod' ? 'Rod' : 'Pipe' }}
      </h2>
      <p class="mb-2 text-[13px] text-soft">
        {{
          pipe.lineType === 'shaft'
            ? 'Joins two shafts; they turn together.'
            : pipe.lineType === 'rod'
              ? 'What it leads to follows the position of the rod.'
              : 'Drag a part of it aside to shape it, or one of its ends to lead it elsewhere.'
        }}
      </p>
      <div class="mb-2">
        <ToolButton
          hint="Delete (Del)"
          label="Delete"
          @click="drawing.apply(remove(drawing.sheet, [pipe.id]))"
        >
          <Trash2 :size="17" />
        </ToolButton>
      </div>
      <p v-if="linePressure" class="mb-2 rounded bg-accent-paper px-2 py-1.5 text-[13px]">
        {{ linePressure }}
      </p>
      <FindingNotes :findings="general" />
      <div v-if="!mechanical" class="space-y-2">
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Name of the line</span>
          <input
            class="field"
            :value="pipe.name ?? ''"
            maxlength="60"
            placeholder="for example pump line"
            @change="setPipe({ name: ($event.target as HTMLInputElement).value.trim() || undefined })"
          />
        </label>
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Kind of line</span>
          <select
            class="field"
            :value="pipe.lineType"
            @change="setPipe({ lineType: ($event.target as HTMLSelectElement).value as Pipe['lineType'] })"
          >
            <option v-for="(words, name) in lineWords" :key="name" :value="name">{{ words }}</option>
          </select>
        </label>
        <QuantityField
          :key="`${pipe.id}.length`"
          :model-value="pipe.length"
          quantity="length"
          label="Length"
          :problem="pipeProblem('length')"
          :note="range('length')"
          @update:model-value="setPipe({ length: $event })"
        />
        <QuantityField
          :key="`${pipe.id}.bore`"
          :model-value="pipe.bore"
          quantity="length"
          label="Bore"
          :problem="pipeProblem('bore')"
          :note="range('bore')"
          @update:model-value="setPipe({ bore: $event })"
        />
        <p class="text-[13px] text-soft">
          Holds {{ pipeVolume }} of oil{{ pipe.volume === undefined ? '' : ', as given' }}.
        </p>
        <ParameterField
          :parameter="{ type: 'switch', label: 'Friction and inertia count', default: false }"
          :model-value="pipe.friction"
          @update:model-value="setPipe({ friction: $event === true })"
        />
      </div>
    </template>

    <template v-else-if="drawing.selection.size > 1">
      <h2 class="heading">{{ drawing.selection.size }} selected</h2>
      <p class="text-[13px] text-soft">
        Move them together with the arrows; copy with Ctrl C, delete with Del.
      </p>
      <ul class="mt-2">
        <li v-for="c in arranging" :key="c.name">
          <button class="menu-item justify-between rounded !px-2" :data-testid="c.name" @click="c.run()">
            {{ c.label }} <kbd class="text-[12px] text-soft">{{ c.keys }}</kbd>
          </button>
        </li>
      </ul>
    </template>
    <template v-else>
      <FluidFields />
      <PageFields />
    </template>
  </aside>
</template>
