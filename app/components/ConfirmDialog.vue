<script setup lang="ts">
/** Asks before something is done. */
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{
  open: boolean
  title: string
  /** Labels of the two buttons. */
  confirm: string
  cancel: string
  testid: string
  /** What is confirmed cannot be undone. */
  destructive?: boolean
}>()
const emit = defineEmits<{ confirm: []; cancel: [] }>()
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="emit('cancel')">
    <div class="fixed inset-0 bg-ink/30 dark:bg-black/50" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel class="w-full max-w-md rounded bg-paper p-5 shadow-xl" :data-testid="testid">
        <DialogTitle class="mb-2 font-lettering text-xl">{{ title }}</DialogTitle>
        <DialogDescription class="mb-4 text-soft"><slot /></DialogDescription>
        <div class="flex justify-end gap-2">
          <button class="button" @click="emit('cancel')">{{ cancel }}</button>
          <button class="button-main" :class="destructive ? '!bg-error' : ''" @click="emit('confirm')">
            {{ confirm }}
          </button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>
