<script setup lang="ts">
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'
import { Download, Plus, Trash2, Upload } from 'lucide-vue-next'
import type { MachineRow } from '#shared/api'

useHead({ title: 'Machines · Oar Bench' })
const machines = ref<MachineRow[]>()
const problem = ref('')
async function load() {
  try {
    machines.value = await $fetch<MachineRow[]>('/api/machines')
    problem.value = ''
  } catch (error) {
    problem.value = failureMessage(error)
  }
}
onMounted(load)

const adding = ref(false)
const name = ref('')
const summary = ref('')
const nameProblem = ref('')
async function add() {
  nameProblem.value = name.value.trim() ? '' : 'Give the machine a name.'
  if (nameProblem.value) return
  try {
    const { id } = await $fetch<{ id: string }>('/api/machines', {
      method: 'POST',
      body: { name: name.value, summary: summary.value },
    })
    await navigateTo(`/machines/${id}/brief`)
  } catch (error) {
    nameProblem.value = failureMessage(error)
  }
}
const told = ref('')
/** Adds the machines of an archive to those that are here. */
async function bringIn(event: Event) {
  const input = event.target as HTMLInputElement
  const [file] = input.files ?? []
  input.value = ''
  if (!file) return
  told.value = problem.value = ''
  try {
    const { machines: added } = await $fetch<{ machines: number }>('/api/workspace', {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/zip' },
    })
    await load()
    told.value = `${added} ${added === 1 ? 'machine was' : 'machines were'} added.`
  } catch (error) {
    problem.value = `Nothing was changed. ${failureMessage(error)}`
  }
}
const doomed = shallowRef<MachineRow>()
async function remove() {
  const row = doomed.value!
  try {
    await $fetch(`/api/machines/${row.id}`, { method: 'DELETE' })
    doomed.value = undefined
    await load()
  } catch (error) {
    doomed.value = undefined
    problem.value = failureMessage(error)
  }
}
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <div class="flex h-full flex-col">
    <AppHeader />
    <main class="min-h-0 flex-1 overflow-auto bg-paper" tabindex="0" aria-label="Machines">
      <div class="mx-auto max-w-4xl px-6 py-6">
        <div class="mb-4 flex items-baseline">
          <h1 class="font-lettering text-2xl font-medium">Machines</h1>
          <NuxtLink to="/symbols" class="ml-auto self-center px-3 hover:text-accent">Symbols</NuxtLink>
          <a
            href="/api/workspace"
            download
            class="button mr-2 self-center"
            title="All machines with their variants, revisions and kept runs, in one archive"
            data-testid="save-all"
          >
            <Download :size="15" aria-hidden="true" />Export
          </a>
          <label
            class="button mr-2 cursor-pointer self-center"
            title="Import the machines of an archive, beside these"
          >
            <Upload :size="15" aria-hidden="true" />Import
            <input
              type="file"
              accept=".zip"
              class="sr-only"
              aria-label="Import machines from an archive"
              data-testid="bring-in"
              @change="bringIn"
            />
          </label>
          <button class="button-main self-center" data-testid="new-machine" @click="adding = true">
            <Plus :size="16" aria-hidden="true" />New machine
          </button>
        </div>
        <p v-if="problem" class="mb-4 text-error" role="alert">
          {{ problem }} <button class="button ml-2" @click="load">Try again</button>
        </p>
        <p v-if="told" class="mb-4 text-good" role="status">{{ told }}</p>
        <p v-if="machines && !machines.length" class="text-soft">
          There is no machine yet. Start one with a name, say what it must do, then draw its circuit from the
          tank up.
        </p>
        <table v-if="machines?.length" class="w-full border-collapse text-left">
          <thead class="border-b border-rule text-[13px] text-soft">
            <tr>
              <th class="py-1.5 font-normal">Machine</th>
              <th class="py-1.5 font-normal">On the sheet</th>
              <th class="py-1.5 pr-4 font-normal whitespace-nowrap">Kept runs</th>
              <th class="py-1.5 font-normal">Last changed</th>
              <th class="w-8"><span class="sr-only">Delete</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="m in machines" :key="m.id" class="border-b border-rule align-top hover:bg-pane">
              <td class="py-2 pr-4">
                <NuxtLink
                  :to="`/machines/${m.id}/${m.components ? 'sheet' : 'brief'}`"
                  class="font-semibold text-accent hover:underline"
                  >{{ m.name }}</NuxtLink
                >
                <span class="block max-w-md text-soft">{{ m.summary }}</span>
              </td>
              <td class="py-2 pr-4 whitespace-nowrap">
                {{ m.components ? `${m.components} components` : 'not drawn yet'
                }}{{ m.variants > 1 ? `, ${m.variants} variants` : '' }}
              </td>
              <td class="py-2 pr-4">{{ m.runs || '–' }}</td>
              <td class="py-2 pr-4 whitespace-nowrap text-soft">{{ when.format(m.updatedAt) }}</td>
              <td class="py-1.5">
                <ToolButton :label="`Delete ${m.name}`" hint="Delete" @click="doomed = m">
                  <Trash2 :size="16" />
                </ToolButton>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </main>

    <Dialog :open="adding" class="relative z-40" @close="adding = false">
      <div class="fixed inset-0 bg-ink/30 dark:bg-black/50" aria-hidden="true" />
      <div class="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel class="w-full max-w-md rounded bg-paper p-5 shadow-xl">
          <DialogTitle class="mb-3 font-lettering text-xl">New machine</DialogTitle>
          <form class="space-y-3" @submit.prevent="add">
            <label class="block">
              <span class="mb-0.5 block text-[13px] text-soft">Name</span>
              <input
                v-model="name"
                class="field"
                maxlength="80"
                :aria-invalid="!!nameProblem"
                data-testid="machine-name-field"
              />
            </label>
            <p v-if="nameProblem" class="text-[13px] text-error" role="alert">{{ nameProblem }}</p>
            <label class="block">
              <span class="mb-0.5 block text-[13px] text-soft">Short description</span>
              <input v-model="summary" class="field" maxlength="400" />
            </label>
            <div class="flex justify-end gap-2 pt-1">
              <button type="button" class="button" @click="adding = false">Cancel</button>
              <button class="button-main">Create</button>
            </div>
          </form>
        </DialogPanel>
      </div>
    </Dialog>
    <Dialog :open="!!doomed" class="relative z-40" @close="doomed = undefined">
      <div class="fixed inset-0 bg-ink/30 dark:bg-black/50" aria-hidden="true" />
      <div class="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel class="w-full max-w-md rounded bg-paper p-5 shadow-xl">
          <DialogTitle class="mb-2 font-lettering text-xl">Delete {{ doomed?.name }}?</DialogTitle>
          <DialogDescription class="mb-4 text-soft"
            >Its sheet, its brief and its kept runs go with it. This cannot be undone.</DialogDescription
          >
          <div class="flex justify-end gap-2">
            <button class="button" @click="doomed = undefined">Keep it</button>
            <button class="button-main !bg-error" @click="remove">Delete</button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  </div>
</template>
