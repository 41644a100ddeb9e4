<script setup lang="ts">
/** The properties of what is selected; those of the sheet where nothing is. */
import { keyTexts, labelOf } from '../commands/command'

const selection = useSelection()
const editor = useEditorUi()
const component = computed(() => (selection.onlyId ? selection.components[0] : undefined))
const pipe = computed(() => (selection.onlyId ? selection.pipes[0] : undefined))
const { enabled } = useCommands()
const arranging = computed(() => enabled.value.filter((c) => c.group === 'Arrange'))
</script>

<template>
  <aside
    class="flex h-full w-64 flex-col overflow-auto border-l border-rule bg-pane p-3"
    aria-label="Properties"
    data-testid="properties"
    @keydown.escape="editor.view?.focus()"
  >
    <ComponentProperties v-if="component" :component="component" />
    <PipeProperties v-else-if="pipe" :pipe="pipe" />
    <template v-else-if="selection.ids.size > 1">
      <h2 class="heading">{{ selection.ids.size }} selected</h2>
      <p class="text-[13px] text-soft">
        Move them together with the arrows; copy with Ctrl C, delete with Del.
      </p>
      <ul class="mt-2">
        <li v-for="c in arranging" :key="c.name">
          <button class="menu-item justify-between rounded !px-2" :data-testid="c.name" @click="c.run()">
            {{ labelOf(c) }} <kbd class="text-[12px] text-soft">{{ keyTexts(c)[0] }}</kbd>
          </button>
        </li>
      </ul>
    </template>
    <template v-else>
      <FluidFields />
      <PageFields />
    </template>
  </aside>
</template>
