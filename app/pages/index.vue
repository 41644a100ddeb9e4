<script setup lang="ts">
/** The machines, with the state of the work on each. */
import { useTimeoutFn } from '@vueuse/core'
import { Download, Plus, Upload } from 'lucide-vue-next'
import type { MachineRow } from '#shared/api'

useHead({ title: 'Machines · Oar Bench' })
const machines = shallowRef<MachineRow[]>()
const problem = ref('')
/** Ids of machines with edits in this browser that the server does not have. */
const unsaved = shallowRef<ReadonlySet<string>>(new Set<string>())
async function load() {
  try {
    machines.value = await $fetch<MachineRow[]>('/api/machines')
    problem.value = ''
    // what is worked out in the background is there a moment later
    if (machines.value.some((m) => !m.sheet)) summariesSoon()
  } catch (error) {
    problem.value = failureMessage(error)
  }
}
const { start: summariesSoon } = useTimeoutFn(load, 1500, { immediate: false })
onMounted(async () => {
  await load()
  unsaved.value = new Set((await abandonedDrafts()).map((draft) => draft.machineId))
})

const search = ref('')
const order = useSetting<MachineOrder>('machine-order', 'name')
const shown = computed(() => shownMachines(machines.value ?? [], search.value, order.value))

const creating = ref(false)
const source = shallowRef<MachineRow>()
function create(from?: MachineRow) {
  source.value = from
  creating.value = true
}
const message = ref('')
const importing = ref(false)
/** Adds the machines of an archive to those that are here. */
async function importMachines(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  message.value = problem.value = ''
  importing.value = true
  try {
    const { machines: added } = await $fetch<{ machines: number }>('/api/workspace', {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/zip' },
    })
    await load()
    message.value = `${added} ${added === 1 ? 'machine was' : 'machines were'} added.`
  } catch (error) {
    problem.value = `Nothing was changed. ${failureMessage(error)}`
  } finally {
    importing.value = false
  }
}
const removing = shallowRef<MachineRow>()
async function remove() {
  const row = removing.value!
  removing.value = undefined
  try {
    await $fetch(`/api/machines/${row.id}`, { method: 'DELETE' })
    await load()
  } catch (error) {
    problem.value = failureMessage(error)
  }
}
</script>

<template>
  <div class="flex h-full flex-col">
    <AppHeader />
    <main class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Machines">
      <div class="mx-auto max-w-5xl px-6 py-5">
        <div class="mb-3 flex flex-wrap items-center gap-2">
          <h1 class="mr-auto font-lettering text-2xl font-medium">Machines</h1>
          <NuxtLink to="/symbols" class="px-2 hover:text-accent">Symbols</NuxtLink>
          <a
            href="/api/workspace"
            download
            class="button"
            title="All machines with their variants, revisions and saved runs, in one archive"
            data-testid="export-workspace"
          >
            <Download :size="15" aria-hidden="true" />Export
          </a>
          <label class="button cursor-pointer" title="Import the machines of an archive, beside these">
            <Upload :size="15" aria-hidden="true" />{{ importing ? 'Importing …' : 'Import' }}
            <input
              type="file"
              accept=".zip"
              class="sr-only"
              aria-label="Import machines from an archive"
              data-testid="import-workspace"
              :disabled="importing"
              @change="importMachines"
            />
          </label>
          <button class="button-main" data-testid="new-machine" @click="create()">
            <Plus :size="16" aria-hidden="true" />New machine
          </button>
        </div>
        <div v-if="machines?.length" class="mb-2 flex flex-wrap items-center gap-2">
          <input
            v-model="search"
            type="search"
            class="field !w-72"
            placeholder="Search by name or description"
            aria-label="Search machines"
            data-testid="machine-search"
          />
          <label class="flex items-center gap-1.5 text-[13px] text-soft">
            Sort by
            <select v-model="order" class="field !w-auto" data-testid="machine-order">
              <option v-for="(label, key) in machineOrders" :key="key" :value="key">{{ label }}</option>
            </select>
          </label>
          <span class="ml-auto text-[13px] text-soft">{{ shown.length }} of {{ machines.length }}</span>
        </div>
        <p v-if="problem" class="mb-3 text-error" role="alert">
          {{ problem }} <button class="button ml-2" @click="load">Try again</button>
        </p>
        <p v-if="message" class="mb-3 text-good" role="status">{{ message }}</p>
        <p v-if="machines && !machines.length" class="text-soft">
          There is no machine yet. Start one with a name, say what it must do, then draw its circuit from the
          tank up.
        </p>
        <p v-else-if="machines && !shown.length" class="text-soft">No machine matches.</p>
        <ul class="border-t border-rule" :class="{ hidden: !shown.length }">
          <MachineListRow
            v-for="m in shown"
            :key="m.id"
            :machine="m"
            :unsaved="unsaved.has(m.id)"
            @duplicate="create(m)"
            @remove="removing = m"
          />
        </ul>
      </div>
    </main>
    <NewMachineDialog v-model:open="creating" :source="source" />
    <ConfirmDialog
      :open="!!removing"
      :title="`Delete ${removing?.name}?`"
      confirm="Delete"
      cancel="Cancel"
      testid="delete-machine"
      destructive
      @confirm="remove"
      @cancel="removing = undefined"
    >
      Its sheets, its brief and its saved runs are deleted with it. This cannot be undone.
    </ConfirmDialog>
  </div>
</template>
