import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { commandFor, isEnabled } from '../commands/command'
import { sheetCommands } from '../commands/sheetCommands'
import { useEditorUi } from '../stores/editorUi'
import { useSelection } from '../stores/selection'
import { useSheetDocument } from '../stores/sheetDocument'
import { useFiles } from './useFiles'
import { useUnits } from './useUnits'

/** The commands of the sheet, made once for all that use them. */
export const useCommands = createSharedComposable(() => {
  const { exportSheet } = useFiles()
  const commands = sheetCommands({
    sheetDocument: useSheetDocument(),
    selection: useSelection(),
    editor: useEditorUi(),
    show: useUnits().show,
    exportAs: (format) => void exportSheet(format),
  })
  const enabled = computed(() => commands.filter(isEnabled))
  /** Runs the command of a key. @returns whether there is one */
  function press(event: KeyboardEvent): boolean {
    const command = commandFor(commands, event)
    command?.run()
    return !!command
  }
  return { commands, enabled, press }
})
