/** The state of the editor beside the sheet: the tool, what is being placed, which panes and dialogs are open. */
import { useMediaQuery } from '@vueuse/core'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { ref, shallowRef, type Ref } from 'vue'
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
/** Panes beside the sheet. */
export type SidePane =
  'palette' | 'properties' | 'runProperties' | 'answers' | 'walkthrough' | 'schedule' | 'console' | 'paths'
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

  /** The panes as they are kept for a wide window. */
  const widePanes: Record<SidePane, Ref<boolean>> = {
    palette: useSetting('palette', true),
    properties: useSetting('inspector', true),
    runProperties: useSetting('run-inspector', false),
    answers: useSetting('run-answers', false),
    walkthrough: useSetting('run-walkthrough', false),
    schedule: ref(false),
    console: useSetting('console', true),
    paths: useSetting('run-paths', false),
  }
  const isNarrow = useMediaQuery('(max-width: 1023px)')
  /** In a narrow window one pane at most is open, and none at first: the sheet needs the room. */
  const narrowPane = ref<SidePane>()
  const isPaneOpen = (pane: SidePane) => (isNarrow.value ? narrowPane.value === pane : widePanes[pane].value)
  function setPane(pane: SidePane, open: boolean): void {
    if (!isNarrow.value) widePanes[pane].value = open
    else if (open) narrowPane.value = pane
    else if (narrowPane.value === pane) narrowPane.value = undefined
  }
  const togglePane = (pane: SidePane) => setPane(pane, !isPaneOpen(pane))
  /** Settings and sizes beside the symbols. */
  const settings = useSetting('settings', true)
  const lineNames = useSetting('line-names', false)
  /** Lines are coloured by what they are for. */
  const lineRoles = useSetting('line-roles', false)
  const overview = useSetting('overview', false)
  const tapeHeight = useSetting('tape', 300)
  /** What was copied, for this sheet and others; other tabs see it too. It goes into sheets and to workers: not deeply reactive. */
  const clipboard = useSetting<ClipboardContent>(
    'clipboard',
    { components: [], junctions: [], pipes: [] },
    true,
  )

  function startPlacing(kind: string): void {
    tool.value = 'select'
    if (isNarrow.value) narrowPane.value = undefined
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
    isPaneOpen,
    setPane,
    togglePane,
    settings,
    overview,
    lineNames,
    lineRoles,
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
