<script setup lang="ts">
/** The properties of a selected pipe, shaft or rod. */
import { Trash2 } from 'lucide-vue-next'
import { changePipe, remove } from '@oar-bench/core/sheet/edit'
import { buildNetlist, lineDomain } from '@oar-bench/core/sheet/netlist'
import { pipeLimits, resolvePipe } from '@oar-bench/core/sheet/resolve'
import type { Pipe } from '@oar-bench/core/sheet/schema'
import { valuesAt } from '@oar-bench/core/simulate/playback'
import { asRead } from '@oar-bench/core/units/quantities'

const props = defineProps<{ pipe: Pipe }>()
const sheetDocument = useSheetDocument()
const runs = useSimulationRuns()
const { show } = useUnits()
const { general, problemOf } = useFindingsAt(() => props.pipe.id)

const linePressure = computed(() => {
  const shown = runs.shown
  if (!shown || runs.outdated) return undefined
  const node = shown.result.lineOfPipe[props.pipe.id]
  if (node === undefined || shown.result.signals[node].role !== 'pressure') return undefined
  const values = valuesAt(shown.result, runs.time, new Float64Array(shown.result.columns.length))
  return `${show(asRead(values[node], 'pressure'), 'pressure')} in ${shown.result.lines[node]}.`
})
const setPipe = (change: Partial<Pipe>) =>
  sheetDocument.apply(changePipe(sheetDocument.sheet, props.pipe.id, change))
const volume = computed(() => show(resolvePipe(props.pipe).volume, 'volume', 3))
const mechanical = computed(() => lineDomain(props.pipe.lineType) !== 'oil')
const range = (name: 'length' | 'bore') => pipeLimits[name].map((limit) => show(limit, 'length')).join(' to ')
const modelInForce = computed(
  () =>
    buildNetlist(sheetDocument.sheet).netlist.oilPipes.find(({ pipe }) => pipe.id === props.pipe.id)?.model,
)
const modelNote = computed(() => {
  const model = modelInForce.value
  if (props.pipe.lineModel !== 'automatic' || !model) return lineModelNotes[props.pipe.lineModel]
  return model === 'lossFree'
    ? 'Now loss-free: it carries no flow or a small one (pilot, drain, gauge), stands for a given volume, or the greatest flow of this sheet takes less than 0.2 bar here.'
    : 'Now with its friction loss: the greatest flow of this sheet takes more than 0.2 bar here, or 1 % of the highest setting.'
})
/** What the run on show found of this pipe. */
const load = computed(() => {
  const { shown } = runs
  if (!shown || runs.outdated) return undefined
  const found = shown.result.lineLoads.find(({ pipe }) => pipe === props.pipe.id)
  if (!found || found.flow === 0) return undefined
  return `At most ${show(found.speed, 'oilSpeed', 3)} at ${show(found.flow, 'flow', 3)}, which takes ${show(found.drop, 'pressure', 3)}${found.model === 'lossFree' ? ' (not counted)' : ''}.`
})
function setText(field: 'name' | 'rating' | 'construction' | 'wall', event: Event) {
  const text = typedText(event, props.pipe[field] ?? '')
  if (text !== undefined) setPipe({ [field]: text || undefined })
}
</script>

<template>
  <div>
    <h2 class="heading">
      {{ pipe.lineType === 'shaft' ? 'Shaft' : pipe.lineType === 'rod' ? 'Rod' : 'Pipe' }}
    </h2>
    <p class="mb-2 text-[13px] text-soft">
      {{
        pipe.lineType === 'shaft'
          ? 'Connects two shafts; they turn together.'
          : pipe.lineType === 'rod'
            ? 'What is connected follows the position of the rod.'
            : 'Drag a part of it to reroute it, or one of its ends to connect it elsewhere.'
      }}
    </p>
    <div class="mb-2">
      <ToolButton
        hint="Delete (Del)"
        label="Delete"
        @click="sheetDocument.apply(remove(sheetDocument.sheet, [pipe.id]))"
      >
        <Trash2 :size="17" />
      </ToolButton>
    </div>
    <p v-if="linePressure" class="mb-2 rounded bg-accent-paper px-2 py-1.5 text-[13px]">
      {{ linePressure }}
    </p>
    <p v-if="load" class="mb-2 rounded bg-accent-paper px-2 py-1.5 text-[13px]" data-testid="line-load">
      {{ load }}
    </p>
    <FindingNotes :findings="general" />
    <div v-if="!mechanical" class="space-y-2">
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Line name</span>
        <input
          class="field"
          :value="pipe.name ?? ''"
          maxlength="60"
          placeholder="for example pump line"
          @change="setText('name', $event)"
        />
      </label>
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Line type</span>
        <select
          class="field"
          :value="pipe.lineType"
          @change="setPipe({ lineType: ($event.target as HTMLSelectElement).value as Pipe['lineType'] })"
        >
          <option v-for="(label, name) in oilLineTypes" :key="name" :value="name">{{ label }}</option>
        </select>
      </label>
      <QuantityField
        :key="`${pipe.id}.length`"
        :model-value="pipe.length"
        quantity="length"
        label="Length"
        :problem="problemOf('length')"
        :note="range('length')"
        @update:model-value="setPipe({ length: $event })"
      />
      <QuantityField
        :key="`${pipe.id}.bore`"
        :model-value="pipe.bore"
        quantity="length"
        label="Bore"
        :problem="problemOf('bore')"
        :note="range('bore')"
        @update:model-value="setPipe({ bore: $event })"
      />
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Pressure rating</span>
        <input
          class="field"
          :value="pipe.rating ?? ''"
          maxlength="60"
          placeholder="for example 250 bar"
          :aria-invalid="!!problemOf('rating')"
          data-testid="pipe-rating"
          @change="setText('rating', $event)"
        />
        <span v-if="problemOf('rating')" class="mt-0.5 block text-[13px] text-error" role="alert">{{
          problemOf('rating')
        }}</span>
      </label>
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Kind of pipe or hose</span>
        <input
          class="field"
          :value="pipe.construction ?? ''"
          maxlength="200"
          placeholder="as it is ordered"
          data-testid="pipe-construction"
          @change="setText('construction', $event)"
        />
      </label>
      <p class="text-[13px] text-soft">
        Holds {{ volume }} of oil{{ pipe.volume === undefined ? '' : ', as given' }}.
      </p>
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Line model</span>
        <select
          class="field"
          :value="pipe.lineModel"
          data-testid="line-model"
          @change="setPipe({ lineModel: ($event.target as HTMLSelectElement).value as Pipe['lineModel'] })"
        >
          <option v-for="(label, name) in lineModels" :key="name" :value="name">{{ label }}</option>
        </select>
        <span class="mt-0.5 block text-xs text-soft">{{ modelNote }}</span>
      </label>
      <div class="grid grid-cols-2 gap-2">
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Wall</span>
          <input
            class="field"
            :value="pipe.wall ?? ''"
            maxlength="60"
            placeholder="for example 2 mm"
            :aria-invalid="!!problemOf('wall')"
            data-testid="pipe-wall"
            @change="setText('wall', $event)"
          />
        </label>
        <label class="block">
          <span class="mb-0.5 block text-[13px] text-soft">Material</span>
          <select
            class="field"
            :value="pipe.material ?? ''"
            data-testid="pipe-material"
            @change="
              setPipe({
                material: (($event.target as HTMLSelectElement).value || undefined) as Pipe['material'],
              })
            "
          >
            <option value="">rigid</option>
            <option v-for="(label, name) in pipeMaterials" :key="name" :value="name">{{ label }}</option>
          </select>
        </label>
      </div>
      <p v-if="problemOf('wall')" class="text-[13px] text-error" role="alert">{{ problemOf('wall') }}</p>
    </div>
  </div>
</template>
