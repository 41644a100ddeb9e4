<script setup lang="ts">
/** The motions of the machine, and files of them. */
import { FileDown, FileUp, Plus } from 'lucide-vue-next'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { actuators, type ActuatorName } from '@oar-bench/core/size/brief/brief'
import { addMotion } from '@oar-bench/core/size/brief/edit'

defineProps<{ selected?: string }>()
const emit = defineEmits<{ select: [id: string] }>()
const sheetDocument = useSheetDocument()
const { csvFile, download } = useFiles()
const names = Object.keys(actuators) as ActuatorName[]
function add(actuator: ActuatorName) {
  const { brief, id } = addMotion(sheetDocument.brief, actuator)
  sheetDocument.setBrief(brief)
  emit('select', id)
}
const problem = ref('')
async function read(file: File) {
  const { readBriefCsv } = await import('@oar-bench/core/formats/brief-csv')
  const found = readBriefCsv(await file.text(), sheetDocument.brief)
  problem.value = 'message' in found ? found.message : ''
  if ('brief' in found) sheetDocument.setBrief(found.brief)
}
async function write() {
  const { briefRows } = await import('@oar-bench/core/formats/brief-csv')
  download(await csvFile(briefRows(sheetDocument.brief)), '-motions.csv')
}
</script>

<template>
  <div class="mt-4 flex flex-wrap items-center gap-1 border-b border-rule">
    <h2 class="heading mr-2">Motions</h2>
    <button
      v-for="m in sheetDocument.brief.motions"
      :key="m.id"
      class="-mb-px border-b-2 px-2.5 py-1"
      :class="m.id === selected ? 'border-accent text-accent' : 'border-transparent hover:text-accent'"
      :aria-pressed="m.id === selected"
      :data-testid="`motion-${m.id}`"
      @click="emit('select', m.id)"
    >
      {{ m.name }}
    </button>
    <Menu as="div" class="relative">
      <MenuButton class="button !py-0.5" data-testid="add-motion"><Plus :size="15" />Add a motion</MenuButton>
      <MenuItems class="menu absolute left-0 top-full mt-1 w-64">
        <MenuItem v-for="name in names" :key="name">
          <button class="menu-item" @click="add(name)">{{ actuators[name].label }}</button>
        </MenuItem>
      </MenuItems>
    </Menu>
    <span class="ml-auto flex">
      <FileButton
        label="Motions and cycle from a CSV file"
        accept=".csv,.txt"
        testid="brief-csv"
        @file="read"
      >
        <FileUp :size="16" />
      </FileButton>
      <ToolButton
        label="Motions and cycle as a CSV file"
        :disabled="!sheetDocument.brief.motions.length"
        @click="write"
      >
        <FileDown :size="16" />
      </ToolButton>
    </span>
  </div>
  <p v-if="problem" class="mt-1 text-error" role="alert">Nothing was changed. {{ problem }}</p>
</template>
