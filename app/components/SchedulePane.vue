<script setup lang="ts">
/** The schedules of the sheet: who is commanded to what, when. */
import { FileDown, FileUp, Plus, Trash2, X } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { commandableOf, type FaultForm, type InputSpec } from '@oar-bench/core/catalogue/kind'
import {
  nameOf,
  scheduleSchema,
  type Schedule,
  type SheetComponent,
  type Track,
} from '@oar-bench/core/sheet/schema'
import { parseQuantity, quantityText } from '@oar-bench/core/units/text'
import { shownUnit } from '@oar-bench/core/units/quantities'

defineEmits<{ close: [] }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const schedule = computed(() => sheetDocument.schedule)

interface Commandable {
  component: SheetComponent
  spec: InputSpec & { form?: FaultForm }
}
const commandable = computed<Commandable[]>(() =>
  sheetDocument.sheet.components.flatMap((component) =>
    commandableOf(findKind(component.kind) ?? {}).map((spec) => ({ component, spec })),
  ),
)
const specOf = (track: Track) =>
  commandable.value.find((c) => c.component.id === track.component && c.spec.name === track.input)
const name = (c: Commandable) => nameOf(c.component)
const words = (c: Commandable) => `${nameOf(c.component)} ${c.spec.label}`
const free = computed(() =>
  commandable.value.filter(
    (c) => !schedule.value?.tracks.some((t) => t.component === c.component.id && t.input === c.spec.name),
  ),
)
/** What may be commanded, and below it what may be broken, in the order of their designations. */
const offers = computed(() =>
  [
    { label: 'Commands', list: free.value.filter((c) => !c.spec.form) },
    { label: 'Faults', list: free.value.filter((c) => c.spec.form) },
  ].map((g) => ({
    label: g.label,
    list: [...g.list].sort((a, b) => name(a).localeCompare(name(b), 'en', { numeric: true })),
  })),
)
const problems = computed(() => checks.findings.filter((f) => f.location.schedule === schedule.value?.id))

function change(next: Partial<Schedule>) {
  const id = schedule.value!.id
  sheetDocument.apply({
    ...sheetDocument.sheet,
    schedules: sheetDocument.sheet.schedules.map((s) => (s.id === id ? { ...s, ...next } : s)),
  })
}
function changeTrack(at: number, next: Track | undefined) {
  const tracks = schedule.value!.tracks.flatMap((t, i) => (i === at ? (next ? [next] : []) : [t]))
  change({ tracks })
}
type PointOf = Track['points'][number]
function changePoint(at: number, k: number, next: Partial<PointOf>) {
  const track = schedule.value!.tracks[at]
  const points = track.points.map((p, i) => (i === k ? { ...p, ...next } : p))
  const time = (p: PointOf) => {
    const parsed = parseQuantity(p.at, 'time')
    return parsed.ok ? parsed.si : Infinity
  }
  points.sort((a, b) => time(a) - time(b))
  changeTrack(at, { ...track, points })
}
function addPoint(at: number) {
  const track = schedule.value!.tracks[at]
  const last = track.points[track.points.length - 1]
  const parsed = parseQuantity(last.at, 'time')
  changeTrack(at, {
    ...track,
    points: [...track.points, { ...last, at: `${parsed.ok ? parsed.si + 1 : 1} s` }],
  })
}
function removePoint(at: number, k: number) {
  const track = schedule.value!.tracks[at]
  const points = track.points.filter((_, i) => i !== k)
  changeTrack(at, points.length ? { ...track, points } : undefined)
}
const written = (spec: InputSpec, si: number) =>
  quantityText(si, spec.quantity, shownUnit(spec.quantity, 'metric').symbol)
function addTrack(event: Event) {
  const select = event.target as HTMLSelectElement
  const c = free.value.find((f) => `${f.component.id}.${f.spec.name}` === select.value)
  select.value = ''
  if (!c) return
  const value =
    c.spec.positions?.[0]?.value ??
    // a fault is offered at a size that shows
    (c.spec.form ? c.spec.max / 10 : undefined) ??
    (typeof c.spec.rest === 'number' ? c.spec.rest : Math.max(0, c.spec.min))
  change({
    tracks: [
      ...schedule.value!.tracks,
      {
        component: c.component.id,
        input: c.spec.name,
        points: [{ at: '1 s', value: written(c.spec, value), shape: 'step' }],
      },
    ],
  })
}
const positionOf = (spec: InputSpec, value: string) => {
  const parsed = parseQuantity(value, spec.quantity)
  return spec.positions?.find((p) => parsed.ok && Math.abs(p.value - parsed.si) < 1e-9)?.value
}
function addSchedule() {
  const names = new Set(sheetDocument.sheet.schedules.map((s) => s.id))
  let n = 1
  while (names.has(`schedule-${n}`)) n++
  const from = schedule.value
  const added = scheduleSchema.parse({
    ...from,
    id: `schedule-${n}`,
    name: from ? `${from.name}, copy` : 'Schedule',
  })
  sheetDocument.apply({ ...sheetDocument.sheet, schedules: [...sheetDocument.sheet.schedules, added] })
  sheetDocument.scheduleId = added.id
}
const unread = ref('')
const { csvFile, download } = useFiles()
let filesChosen = 0
/** Takes the commands of a CSV file in place of those that are there; nothing where it does not read. The last file chosen counts. */
async function fromFile(file: File) {
  const own = ++filesChosen
  const { readScheduleCsv } = await import('@oar-bench/core/formats/csv-read')
  const text = await file.text()
  if (own !== filesChosen) return
  const read = readScheduleCsv(text, sheetDocument.sheet)
  unread.value = read.ok ? '' : read.message
  if (read.ok) change({ tracks: read.value })
}
async function toFile() {
  const { scheduleRows } = await import('@oar-bench/core/formats/csv-read')
  download(await csvFile(scheduleRows(sheetDocument.sheet, schedule.value!)), '-schedule.csv')
}
function removeSchedule() {
  const id = schedule.value!.id
  sheetDocument.apply({
    ...sheetDocument.sheet,
    schedules: sheetDocument.sheet.schedules.filter((s) => s.id !== id),
  })
}
</script>

<template>
  <aside
    class="flex h-full w-96 flex-col overflow-auto border-l border-rule bg-pane p-3"
    aria-label="Schedule"
  >
    <div class="mb-2 flex items-center">
      <h2 class="heading">Schedule</h2>
      <FileButton
        class="ml-auto"
        label="Import commands from a CSV file, in place of these"
        accept=".csv,.txt"
        testid="schedule-csv"
        @file="fromFile"
      >
        <FileUp :size="16" />
      </FileButton>
      <ToolButton label="Export these commands as a CSV file" data-testid="schedule-to-csv" @click="toFile">
        <FileDown :size="16" />
      </ToolButton>
      <ToolButton hint="New schedule, copied from this" label="New schedule" @click="addSchedule">
        <Plus :size="17" />
      </ToolButton>
      <ToolButton
        label="Delete this schedule"
        :disabled="sheetDocument.sheet.schedules.length < 2"
        @click="removeSchedule"
      >
        <Trash2 :size="16" />
      </ToolButton>
      <ToolButton label="Close" @click="$emit('close')">
        <X :size="17" />
      </ToolButton>
    </div>
    <p v-if="unread" class="mb-2 text-[13px] text-error" role="alert">Nothing was changed. {{ unread }}</p>
    <template v-if="schedule">
      <label class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Name</span>
        <input
          class="field"
          :value="schedule.name"
          maxlength="100"
          @change="change({ name: ($event.target as HTMLInputElement).value })"
        />
      </label>
      <div class="mb-2 grid grid-cols-2 gap-2">
        <QuantityField
          :model-value="schedule.duration"
          quantity="time"
          label="Duration"
          @update:model-value="change({ duration: $event })"
        />
        <QuantityField
          :model-value="schedule.every"
          quantity="time"
          label="Sample interval"
          @update:model-value="change({ every: $event })"
        />
      </div>
      <label class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Relative tolerance</span>
        <select
          class="field"
          :value="schedule.tolerance"
          @change="change({ tolerance: Number(($event.target as HTMLSelectElement).value) })"
        >
          <option
            v-for="t in [...new Set([1e-4, 1e-5, 1e-6, 1e-7, schedule.tolerance])].sort((a, b) => b - a)"
            :key="t"
            :value="t"
          >
            {{ t }}
          </option>
        </select>
      </label>
      <label class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">Start of the run</span>
        <select
          class="field"
          :value="schedule.start"
          @change="change({ start: ($event.target as HTMLSelectElement).value as Schedule['start'] })"
        >
          <option value="initialValues">initial values of the sheet</option>
          <option value="steadyState">steady state with its first commands</option>
        </select>
      </label>
      <label class="mb-2 block">
        <span class="mb-0.5 block text-[13px] text-soft">At burst pressure (four times the rating)</span>
        <select
          class="field"
          :value="schedule.onBurst"
          @change="change({ onBurst: ($event.target as HTMLSelectElement).value as Schedule['onBurst'] })"
        >
          <option value="report">report it</option>
          <option value="stop">stop the run there</option>
          <option value="open">let the line open</option>
        </select>
      </label>
      <ul v-if="problems.length" class="mb-2">
        <li v-for="p in problems" :key="p.message" class="text-[13px] text-error">{{ p.message }}</li>
      </ul>
      <section
        v-for="(track, i) in schedule.tracks"
        :key="`${track.component}.${track.input}`"
        class="border-t border-rule py-2"
      >
        <div class="mb-1 flex items-center">
          <h3 class="heading">
            {{ specOf(track) ? words(specOf(track)!) : `${track.component}.${track.input}` }}
          </h3>
          <ToolButton class="ml-auto" label="Add a point" @click="addPoint(i)">
            <Plus :size="16" />
          </ToolButton>
          <ToolButton label="Remove the command" @click="changeTrack(i, undefined)">
            <Trash2 :size="15" />
          </ToolButton>
        </div>
        <div v-for="(point, k) in track.points" :key="k" class="mb-1 flex items-start gap-1">
          <QuantityField
            class="w-20"
            hide-label
            :model-value="point.at"
            quantity="time"
            label="At"
            @update:model-value="changePoint(i, k, { at: $event })"
          />
          <select
            class="field !w-20"
            :value="point.shape"
            aria-label="Shape"
            @change="
              changePoint(i, k, { shape: ($event.target as HTMLSelectElement).value as PointOf['shape'] })
            "
          >
            <option value="step">step to</option>
            <option value="ramp">ramp to</option>
          </select>
          <template v-if="specOf(track)">
            <select
              v-if="
                specOf(track)!.spec.positions && positionOf(specOf(track)!.spec, point.value) !== undefined
              "
              class="field !w-auto min-w-0 flex-1"
              :value="positionOf(specOf(track)!.spec, point.value)"
              aria-label="Position"
              @change="changePoint(i, k, { value: ($event.target as HTMLSelectElement).value })"
            >
              <option v-for="p in specOf(track)!.spec.positions" :key="p.value" :value="p.value">
                {{ p.label }}
              </option>
            </select>
            <QuantityField
              v-else
              class="min-w-0 flex-1"
              hide-label
              :model-value="point.value"
              :quantity="specOf(track)!.spec.quantity"
              label="Value"
              @update:model-value="changePoint(i, k, { value: $event })"
            />
          </template>
          <ToolButton label="Delete this point" @click="removePoint(i, k)">
            <X :size="15" />
          </ToolButton>
        </div>
      </section>
      <select class="field mt-2" aria-label="Add a command or a fault" @change="addTrack">
        <option value="">Add a command or a fault …</option>
        <optgroup v-for="group in offers" :key="group.label" :label="group.label">
          <option
            v-for="c in group.list"
            :key="`${c.component.id}.${c.spec.name}`"
            :value="`${c.component.id}.${c.spec.name}`"
          >
            {{ words(c) }}
          </option>
        </optgroup>
      </select>
    </template>
  </aside>
</template>
