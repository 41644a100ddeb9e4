<script setup lang="ts">
/** Asks for the name of a new machine, or of a copy of one. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { MachineRow } from '#shared/api'

const open = defineModel<boolean>('open', { required: true })
const props = defineProps<{
  /** The machine to copy; none for an empty one. */
  source?: MachineRow
}>()
const name = ref('')
const summary = ref('')
const { problem, attempt } = useAttempt()
watch(open, () => {
  problem.value = ''
  name.value = props.source ? `${props.source.name}, copy`.slice(0, 80) : ''
  summary.value = ''
})
const create = () =>
  attempt(async () => {
    if (!name.value.trim()) throw new Error('Give the machine a name.')
    const [url, body, step] = props.source
      ? [`/api/machines/${props.source.id}/copy`, { name: name.value }, 'sheet']
      : ['/api/machines', { name: name.value, summary: summary.value }, 'brief']
    const { id } = await $fetch<{ id: string }>(url, { method: 'POST', body })
    await navigateTo(`/machines/${id}/${step}`)
  })
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-ink/30 dark:bg-black/50" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="w-full max-w-md rounded bg-paper p-5 shadow-xl">
        <DialogTitle class="mb-3 font-lettering text-xl">{{
          source ? `Duplicate ${source.name}` : 'New machine'
        }}</DialogTitle>
        <form class="space-y-3" @submit.prevent="create">
          <label class="block">
            <span class="mb-0.5 block text-[13px] text-soft">Name</span>
            <input
              v-model="name"
              class="field"
              maxlength="80"
              :aria-invalid="!!problem"
              data-testid="machine-name-field"
            />
          </label>
          <p v-if="problem" class="text-[13px] text-error" role="alert">{{ problem }}</p>
          <label v-if="!source" class="block">
            <span class="mb-0.5 block text-[13px] text-soft">Short description</span>
            <input v-model="summary" class="field" maxlength="400" />
          </label>
          <p v-else class="text-[13px] text-soft">
            Brief and sheets of all variants are copied; revisions and saved runs are not.
          </p>
          <div class="flex justify-end gap-2 pt-1">
            <button type="button" class="button" @click="open = false">Cancel</button>
            <button class="button-main">{{ source ? 'Duplicate' : 'Create' }}</button>
          </div>
        </form>
      </DialogPanel>
    </div>
  </Dialog>
</template>
