/** The state of the editor beside the sheet: the tool, what is being placed, which panes and dialogs are open. */
import { acceptHMRUpdate, defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { ClipboardContent } from '@oar-bench/core/sheet/arrange'
import type { XY } from '@oar-bench/core/sheet/geometry'
import type { Pipe, SheetComponent } from '@oar-bench/core/sheet/schema'
import { useSetting } from '../composables/useSetting'

export interface Placement {
  readonly kind: string
  readonly rotation: SheetComponent['rotation']
  readonly mirrored: boolean
}
/** A line that is drawn as a pipe by hand; shafts and rods follow from the ports. */
export type OilLineType = Exclude<Pipe['lineType'], 'shaft' | 'rod'>

/** What the sheet on the screen offers to commands. */
export interface SheetView {
  fit(): void
  zoomBy(factor: number): void
  reveal(id: string): void
  /** Gives the sheet the keyboard focus. */
  focus(): void
  /** Where the pointer was last seen on the sheet, modules. */
  pointer(): XY
}
export type SheetDialog = 'search' | 'keys' | 'revisions' | 'contents' | 'print'

export const useEditorUi = defineStore('editorUi', () => {
  const tool = ref<'select' | 'connect'>('select')
  const lineType = ref<OilLineType>('working')
  const placing = shallowRef<Placement>()
  /** Why something could not be done; empty where there is nothing to say. */
  const message = ref('')
  /** The dialog that is open over the sheet. */
  const dialog = ref<SheetDialog>()
  const view = shallowRef<SheetView>()

  const palette = useSetting('palette', true)
  const inspector = useSetting('inspector', true)
  const runInspector = useSetting('run-inspector', false)
  /** Settings and sizes beside the symbols. */
  const settings = useSetting('settings', true)
  const lineNames = useSetting('line-names', false)
  const overview = useSetting('overview', false)
  const portLetters = useSetting('port-letters', false)
  const tapeHeight = useSetting('tape', 272)
  /** What was copied, for this sheet and others; other tabs see it too. It goes into sheets and to workers: not deeply reactive. */
  const clipboard = useSetting<ClipboardContent>(
    'clipboard',
    { components: [], junctions: [], pipes: [] },
    true,
  )

  function startPlacing(kind: string): void {
    tool.value = 'select'
    placing.value = { kind, rotation: 0, mirrored: false }
  }
  function rotatePlacing(): void {
    const p = placing.value
    if (p) placing.value = { ...p, rotation: ((p.rotation + 1) % 4) as SheetComponent['rotation'] }
  }
  function mirrorPlacing(): void {
    const p = placing.value
    if (p) placing.value = { ...p, mirrored: !p.mirrored }
  }
  return {
    tool,
    lineType,
    placing,
    message,
    dialog,
    palette,
    inspector,
    runInspector,
    settings,
    portLetters,
    overview,
    lineNames,
    clipboard,
    view,
    tapeHeight,
    showMessage: (text: string) => (message.value = text),
    startPlacing,
    rotatePlacing,
    mirrorPlacing,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useEditorUi, import.meta.hot))
