import { computed, type WritableComputedRef } from 'vue'
import { useEditorUi, type SheetDialog } from '../stores/editorUi'

/** Whether a dialog of the sheet is open; setting it opens or closes the dialog. */
export function useDialog(name: SheetDialog): WritableComputedRef<boolean> {
  const editor = useEditorUi()
  return computed({
    get: () => editor.dialog === name,
    set: (open) => {
      if (open) editor.dialog = name
      else if (editor.dialog === name) editor.dialog = undefined
    },
  })
}
