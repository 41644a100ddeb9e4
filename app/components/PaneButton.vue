<script setup lang="ts">
/** A button that opens and closes a pane of the sheet. */
import type { SidePane } from '../stores/editorUi'

defineProps<{ pane: SidePane; hint?: string }>()
const editor = useEditorUi()
</script>

<template>
  <button
    type="button"
    class="px-2 py-1 hover:text-accent aria-pressed:text-accent"
    :aria-pressed="editor.isPaneOpen(pane)"
    :title="hint"
    @click="editor.togglePane(pane)"
  >
    <slot />
  </button>
</template>
