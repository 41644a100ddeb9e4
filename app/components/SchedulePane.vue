<script setup lang="ts">
/** The schedules of the sheet: commands and faults over time. */
import { FileDown, FileUp, Plus, Trash2, X } from 'lucide-vue-next'
import { findKind } from '@oar-bench/core/catalogue'
import { valuesOrDefaults } from '@oar-bench/core/sheet/geometry'
import { commandableOf, type FaultForm, type InputSpec } from '@oar-bench/core/catalogue/kind'
import { devicesOf } from '@oar-bench/core/control/run'
import {
  nameOf,
  scheduleSchema,
  type Schedule,
  type SheetComponent,
  type Track,
} from '@oar-bench/core/sheet/schema'
import { quantityText } from '@oar-bench/core/units/text'
import { shownUnit } from '@oar-bench/core/units/quantities'

defineEmits<{ close: [] }>()
const sheetDocument = useSheetDocument()
const checks = useSheetChecks()
const schedule = computed(() => sheetDocument.schedule)

interface Commandable {
  /** What is commanded: a component, or a device of the control. */
  component: Pick<SheetComponent, 'id' | 'designation'> & { kind?: string }
  spec: InputSpec & { form?: FaultForm }
}
const commandable = computed<Commandable[]>(() => [
  ...sheetDocument.sheet.components.flatMap((component) =>
    commandableOf(findKind(component.kind) ?? {}).map((spec) => ({ component, spec })),
  ),
  ...devicesOf(sheetDocument.sheet).flatMap((device) =>
    commandableOf(device).map((spec) => ({
      component: { id: device.id, designation: device.name },
      spec,
    })),
  ),
])
/** What a component as it is set does not have: a coil of a lever valve. */
const isIdle = ({ component, spec }: Commandable) =>
  'parameters' in component
    ? (findKind((component as SheetComponent).kind)
        ?.idleInputs?.(valuesOrDefaults(component as SheetComponent))
        .includes(spec.name) ?? false)
    : false
const specOf = (track: Track) =>
  commandable.value.find((c) => c.component.id === track.component && c.spec.name === track.input)
const labelOf = (track: Track) => {
  const known = specOf(track)
  return known ? words(known) : `${track.component}.${track.input}`
}
const name = (c: Commandable) => nameOf(c.component)
const words = (c: Commandable) => `${nameOf(c.component)} ${c.spec.label}`
const free = computed(() =>
  commandable.value.filter(
    (c) =>
      !isIdle(c) &&
      !schedule.value?.tracks.some((t) => t.component === c.component.id && t.input === c.spec.name),
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
      <ScheduleSettings :schedule="schedule" @change="change" />
      <ul v-if="problems.length" class="mb-2">
        <li v-for="p in problems" :key="p.message" class="text-[13px] text-error">{{ p.message }}</li>
      </ul>
      <ScheduleTrack
        v-for="(track, i) in schedule.tracks"
        :key="`${track.component}.${track.input}`"
        :track="track"
        :label="labelOf(track)"
        :spec="specOf(track)?.spec"
        @change="changeTrack(i, $event)"
      />
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
      <ScheduleActions :schedule="schedule" :sheet="sheetDocument.sheet" @change="change" />
    </template>
  </aside>
</template>
