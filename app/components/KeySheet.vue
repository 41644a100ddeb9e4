<script setup lang="ts">
/** All keys of the sheet in one look. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const desk = useDesk()
const { commands } = useCommands()
const groups = computed(() =>
  (['Edit', 'Arrange', 'View'] as const).map((group) => ({
    group,
    list: commands.value.filter((c) => c.group === group && c.keys),
  })),
)
/** Keys that depend on what is being done. */
const others = [
  ['/', 'Type a word to place a component'],
  ['Arrows', 'Move what is selected, or what is being placed, by a module'],
  ['Enter', 'Place; choose what has the focus'],
  ['C, arrows, Enter', 'Lay a pipe: go to a port, start there, go on, end there'],
  ['Shift drag', 'Select all within a frame'],
  ['Esc', 'Give up; select nothing'],
] as const
</script>

<template>
  <Dialog :open="desk.showingKeys" class="relative z-40" @close="desk.showingKeys = false">
    <div class="fixed inset-0 bg-black/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-center justify-center p-4">
      <DialogPanel
        class="max-h-full w-full max-w-3xl overflow-auto rounded border border-rule bg-paper p-5 shadow-xl"
        data-testid="key-sheet"
      >
        <DialogTitle class="mb-3 font-lettering text-xl">Keys at the sheet</DialogTitle>
        <div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
          <section v-for="{ group, list } in groups" :key="group">
            <h3 class="heading mb-1 border-b border-rule">{{ group }}</h3>
            <dl>
              <div v-for="c in list" :key="c.name" class="flex justify-between gap-4 py-0.5">
                <dt>{{ c.label }}</dt>
                <dd>
                  <kbd class="font-lettering">{{ c.keys }}</kbd>
                </dd>
              </div>
            </dl>
          </section>
          <section>
            <h3 class="heading mb-1 border-b border-rule">While drawing</h3>
            <dl>
              <div v-for="[keys, words] in others" :key="keys" class="flex justify-between gap-4 py-0.5">
                <dt>{{ words }}</dt>
                <dd class="shrink-0">
                  <kbd class="font-lettering">{{ keys }}</kbd>
                </dd>
              </div>
            </dl>
          </section>
        </div>
        <button class="button mt-4" @click="desk.showingKeys = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
