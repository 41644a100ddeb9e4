<script setup lang="ts">
/** What paths are made of: devices of the control, and the switches and solenoids of the sheet. */
import { deviceTypes } from '@oar-bench/core/control/devices'
import { addDevice, editContact } from '@oar-bench/core/control/edit'
import { offeredCoils, offeredContacts, resolveDevice, type Offered } from '@oar-bench/core/control/terminals'

const sheetDocument = useSheetDocument()
const selection = useSelection()
const ui = useControlUi()
const search = ref('')
const types = computed(() => {
  const words = search.value.trim().toLowerCase()
  return deviceTypes.filter(
    (t) => !words || [t.label, ...t.searchTerms].some((term) => term.toLowerCase().includes(words)),
  )
})
function add(type: string) {
  const added = addDevice(sheetDocument.sheet, type)
  sheetDocument.apply(added.sheet)
  selection.select([added.id])
  search.value = ''
}
const own = computed(() => new Set(sheetDocument.sheet.control.devices.map((d) => d.id)))
const operators = computed(() => {
  const place = (id: string) => {
    const device = sheetDocument.sheet.control.devices.find((d) => d.id === id)
    return device && resolveDevice(device).resolved?.type.place
  }
  return sheetDocument.sheet.control.devices.map((d) => ({ ...d, place: place(d.id) }))
})
/** Switches and coils of the sheet, each once. */
const onSheet = computed(() => {
  const list = [...offeredContacts(sheetDocument.sheet), ...offeredCoils(sheetDocument.sheet)]
  return list.filter(
    (o, i) =>
      !own.value.has(o.owner) &&
      !sheetDocument.sheet.control.sequences.some((s) => s.id === o.owner) &&
      list.findIndex((other) => other.ref === o.ref) === i,
  )
})
const groups = computed(() => [
  {
    label: 'Operator devices',
    list: operators.value.filter((d) => d.place === 'operator').map(entry),
  },
  { label: 'In the cabinet', list: operators.value.filter((d) => d.place !== 'operator').map(entry) },
  {
    label: 'On the sheet',
    list: onSheet.value.map(({ owner, name, label, ref }) => ({ id: owner, name, label, ref })),
  },
])
const entry = (d: { id: string; designation?: string; label: string; type: string }) => ({
  id: d.id,
  name: d.designation ?? d.id,
  label: d.label || deviceTypes.find((t) => t.name === d.type)?.label || d.type,
  ref: d.id,
})
const contacts = computed(
  () => new Map(offeredContacts(sheetDocument.sheet).map((o): [string, Offered] => [o.ref, o])),
)
/** Puts a contact behind the chosen one, in series or parallel. */
function place(ref: string, does: 'series' | 'parallel') {
  const at = ui.contact ?? (ui.rung ? { rung: ui.rung, index: 0 } : undefined)
  if (at) sheetDocument.apply(editContact(sheetDocument.sheet, at.rung, at.index, { does, ref }))
}
</script>

<template>
  <aside
    class="flex h-full w-60 shrink-0 flex-col overflow-auto border-r border-rule bg-pane p-2"
    aria-label="Devices"
    data-testid="control-devices"
  >
    <input
      v-model="search"
      class="field"
      type="search"
      placeholder="Add: button, relay, timer …"
      aria-label="Add a device"
      data-testid="device-search"
      @keydown.enter.prevent="types[0] && add(types[0].name)"
    />
    <ul class="mt-1 flex flex-wrap gap-1" aria-label="Device types">
      <li v-for="t in types" :key="t.name">
        <button
          class="rounded border border-rule bg-paper px-1.5 py-0.5 text-[13px] hover:border-accent hover:text-accent"
          :title="t.description"
          :data-testid="`add-${t.name}`"
          @click="add(t.name)"
        >
          {{ t.label }}
        </button>
      </li>
    </ul>
    <section v-for="g in groups.filter((group) => group.list.length)" :key="g.label">
      <h3 class="heading mt-3 border-b border-rule">{{ g.label }}</h3>
      <ul>
        <li
          v-for="d in g.list"
          :key="d.ref"
          class="group flex items-center gap-1 rounded px-1 hover:bg-accent-paper"
          :class="{ 'bg-accent-paper': selection.ids.has(d.id) }"
        >
          <button
            class="flex min-w-0 flex-1 items-baseline gap-1.5 py-0.5 text-left"
            :data-testid="`device-${d.ref}`"
            @click="selection.select([d.id])"
          >
            <span class="font-lettering whitespace-nowrap">{{ d.name }}</span>
            <span class="truncate text-[13px] text-soft">{{ d.label }}</span>
          </button>
          <template v-if="(ui.contact || ui.rung) && contacts.has(d.ref)">
            <button
              class="icon-button !size-6"
              :title="`${d.name} in series with the chosen contact`"
              :aria-label="`${d.name} in series`"
              @click="place(d.ref, 'series')"
            >
              ·
            </button>
            <button
              class="icon-button !size-6"
              :title="`${d.name} parallel to the chosen contact`"
              :aria-label="`${d.name} parallel`"
              @click="place(d.ref, 'parallel')"
            >
              +
            </button>
          </template>
        </li>
      </ul>
    </section>
  </aside>
</template>
