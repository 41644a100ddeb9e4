<script setup lang="ts">
/** A box over the page with its title and a way to close it. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const open = defineModel<boolean>('open', { required: true })
defineProps<{ title: string; testid: string; width: string }>()
</script>

<template>
  <Dialog :open="open" class="relative z-40" @close="open = false">
    <div class="fixed inset-0 bg-black/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel
        class="flex max-h-full w-full flex-col overflow-auto rounded border border-rule bg-paper p-5 shadow-xl"
        :class="width"
        :data-testid="testid"
      >
        <div class="mb-3 flex items-center gap-3">
          <slot name="before" />
          <DialogTitle class="font-lettering text-xl">{{ title }}</DialogTitle>
          <span class="ml-auto flex gap-2">
            <slot name="actions" />
            <button class="button" @click="open = false">Close</button>
          </span>
        </div>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
