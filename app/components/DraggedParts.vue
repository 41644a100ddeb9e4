<script setup lang="ts">
/** What is being moved on the sheet, as it is seen while the move goes on. */
import { DOT_RADIUS } from '@oar-bench/core/catalogue/symbol-elements'
import type { DraggedParts } from '~/composables/useDrawnSheet'

// asked for here, so that a step of the move draws only this anew and not the sheet under it
const props = defineProps<{ dragged: () => DraggedParts | undefined }>()
const selection = useSelection()
const editor = useEditorUi()
const moving = computed(() => props.dragged())
</script>

<template>
  <template v-if="moving">
    <SheetPipe
      v-for="d in moving.pipes"
      :key="d.pipe.id"
      :drawn="d"
      :selected="selection.ids.has(d.pipe.id)"
    />
    <circle
      v-for="junction in moving.junctions"
      :key="junction.id"
      :cx="junction.x"
      :cy="junction.y"
      :r="DOT_RADIUS"
      class="junction-dot"
    />
    <SheetPart
      v-for="d in moving.components"
      :key="d.component.id"
      :drawn="d"
      :settings="editor.settings"
      selected
    />
  </template>
</template>
