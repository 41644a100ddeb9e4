<script setup lang="ts">
/** All keys of the sheet at a glance. */
import { commandGroups, keyTexts, labelOf } from '../commands/command'

const open = useDialog('keys')
const { commands } = useCommands()
const groups = computed(() =>
  commandGroups.map((group) => ({ group, list: commands.filter((c) => c.group === group && c.keys) })),
)
/** Keys that depend on what is being done. */
const others = [
  ['/', 'Type a word to place a component'],
  ['Arrows', 'Move the selection, or what is being placed, by a module; reroute a selected pipe'],
  ['Enter', 'Place; select what has the focus'],
  ['C, arrows, Enter', 'Draw a pipe: go to a port, start, go to another port, connect'],
  ['Shift drag', 'Select all within a rectangle'],
  ['Wheel, two fingers', 'Zoom'],
  ['Esc', 'Cancel; clear the selection'],
] as const
</script>

<template>
  <DialogBox v-model:open="open" title="Keyboard shortcuts" testid="key-sheet" width="max-w-3xl">
    <div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
      <section v-for="{ group, list } in groups" :key="group">
        <h3 class="heading mb-1 border-b border-rule">{{ group }}</h3>
        <dl>
          <div v-for="c in list" :key="c.name" class="flex justify-between gap-4 py-0.5">
            <dt>{{ labelOf(c) }}</dt>
            <dd>
              <kbd class="font-lettering">{{ keyTexts(c).join(' or ') }}</kbd>
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
  </DialogBox>
</template>
