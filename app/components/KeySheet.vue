<script setup lang="ts">
/** All keys of the sheet in one look. */
const desk = useDesk()
const { commands } = useCommands()
const groups = computed(() =>
  (['Edit', 'Arrange', 'View', 'Files'] as const).map((group) => ({
    group,
    list: commands.value.filter((c) => c.group === group && c.keys),
  })),
)
/** Keys that depend on what is being done. */
const others = [
  ['/', 'Type a word to place a component'],
  ['Arrows', 'Move what is selected, or what is being placed, by a module; shape a chosen pipe'],
  ['Enter', 'Place; choose what has the focus'],
  ['C, arrows, Enter', 'Lay a pipe: go to a port, start there, go on, end there'],
  ['Shift drag', 'Select all within a frame'],
  ['Wheel, two fingers', 'Look from nearer or farther'],
  ['Esc', 'Give up; select nothing'],
] as const
</script>

<template>
  <DialogBox v-model:open="desk.showingKeys" title="Keys at the sheet" testid="key-sheet" width="max-w-3xl">
    <div class="grid gap-x-8 gap-y-4 sm:grid-cols-2">
      <section v-for="{ group, list } in groups" :key="group">
        <h3 class="heading mb-1 border-b border-rule">{{ group }}</h3>
        <dl>
          <div v-for="c in list" :key="c.name" class="flex justify-between gap-4 py-0.5">
            <dt>{{ c.label }}</dt>
            <dd>
              <kbd class="font-lettering">{{ [c.keys, c.otherKeys].filter(Boolean).join(' or ') }}</kbd>
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
