/** Opens the step in which the control is drawn, at one of its views. */
import { useControlUi, type ControlView } from '../stores/controlUi'
import { useSheetDocument } from '../stores/sheetDocument'

export function useGoToControl() {
  const route = useRoute()
  const ui = useControlUi()
  const sheetDocument = useSheetDocument()
  return async (view: ControlView, select: () => void): Promise<void> => {
    ui.view = view
    if (route.params.step !== 'control')
      await navigateTo({ path: `/machines/${sheetDocument.machine!.id}/control`, query: route.query })
    select()
  }
}
