/** What can be done at the sheet. */
import { nextTick } from 'vue'
import { kindInRole } from '@oar-bench/core/catalogue'
import {
  align,
  copy,
  distribute,
  edges,
  paste,
  removeAndReconnect,
  type ClipboardContent,
  type Edge,
} from '@oar-bench/core/sheet/arrange'
import { canSwapPorts, mirror, reroute, rotate, splitPipe, swapPorts } from '@oar-bench/core/sheet/edit'
import { extent, polyline, type XY } from '@oar-bench/core/sheet/geometry'
import type { Junction, Pipe, Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'
import {
  canDisconnectCrossing,
  connectCrossing,
  crossingOf,
  disconnectCrossing,
  encloseComponents,
} from '@oar-bench/core/sheet/shape'
import type { Show } from '@oar-bench/core/catalogue/kind'
import type { Command } from './command'
import { annotationSwitches, type AnnotationSwitch } from '../utils/annotationSwitches'
import { exportFormats, type ExportFormat } from '@oar-bench/core/formats/registry'
import type { SheetDialog, SheetView, SidePane } from '../stores/editorUi'

/** What the commands work on; the stores of the application have it. */
export interface CommandContext {
  readonly sheetDocument: {
    readonly sheet: Sheet
    readonly canUndo: boolean
    readonly canRedo: boolean
    apply(sheet: Sheet): void
    undo(): void
    redo(): void
  }
  readonly selection: {
    readonly ids: ReadonlySet<string>
    readonly components: readonly SheetComponent[]
    readonly pipes: readonly Pipe[]
    readonly junctions: readonly Junction[]
    select(ids: Iterable<string>): void
  }
  readonly editor: {
    clipboard: ClipboardContent
    tool: 'select' | 'connect'
    dialog: SheetDialog | undefined
    settings: boolean
    lineNames: boolean
    overview: boolean
    readonly view: SheetView | undefined
    setPane(pane: SidePane, open: boolean): void
    startPlacing(kind: string): void
  }
  readonly show: Show
  readonly exportAs: (format: ExportFormat) => void
}

/** Distance of a copy from what it was copied from, modules. */
const COPY_OFFSET = 4

const editCommands = ({ sheetDocument, selection, editor }: CommandContext): Command[] => {
  const some = () => selection.ids.size > 0
  const put = (result: { sheet: Sheet; ids: string[] }) => {
    sheetDocument.apply(result.sheet)
    selection.select(result.ids)
  }
  const copySelection = () => copy(sheetDocument.sheet, selection.ids)
  const removeSelection = () =>
    sheetDocument.apply(removeAndReconnect(sheetDocument.sheet, [...selection.ids]))
  function pasteClipboard() {
    const { clipboard, view } = editor
    const box = extent({
      ...sheetDocument.sheet,
      components: [...clipboard.components],
      junctions: [...clipboard.junctions],
      pipes: [],
    })
    const at: XY = view?.pointer() ?? [box.x + COPY_OFFSET, box.y + COPY_OFFSET]
    const by = (to: number, from: number, size: number) => Math.round(to - from - size / 2)
    put(paste(sheetDocument.sheet, clipboard, by(at[0], box.x, box.w), by(at[1], box.y, box.h)))
  }
  return [
    {
      name: 'undo',
      label: 'Undo',
      group: 'Edit',
      keys: ['$mod+z'],
      enabled: () => sheetDocument.canUndo,
      run: () => sheetDocument.undo(),
    },
    {
      name: 'redo',
      label: 'Redo',
      group: 'Edit',
      keys: ['$mod+Shift+z', '$mod+y'],
      enabled: () => sheetDocument.canRedo,
      run: () => sheetDocument.redo(),
    },
    {
      name: 'copy',
      label: 'Copy',
      group: 'Edit',
      keys: ['$mod+c'],
      enabled: some,
      run: () => (editor.clipboard = copySelection()),
    },
    {
      name: 'cut',
      label: 'Cut',
      group: 'Edit',
      keys: ['$mod+x'],
      enabled: some,
      run: () => {
        editor.clipboard = copySelection()
        removeSelection()
      },
    },
    {
      name: 'paste',
      label: 'Paste',
      group: 'Edit',
      keys: ['$mod+v'],
      enabled: () => editor.clipboard.components.length + editor.clipboard.junctions.length > 0,
      run: pasteClipboard,
    },
    {
      name: 'duplicate',
      label: 'Duplicate',
      group: 'Edit',
      keys: ['$mod+d'],
      enabled: () => selection.components.length > 0,
      run: () => put(paste(sheetDocument.sheet, copySelection(), COPY_OFFSET, COPY_OFFSET)),
    },
    {
      name: 'delete',
      label: 'Delete',
      group: 'Edit',
      keys: ['Delete', 'Backspace'],
      enabled: some,
      run: removeSelection,
    },
    {
      name: 'properties',
      label: 'Go to its properties; Escape comes back',
      group: 'Edit',
      keys: ['Enter'],
      enabled: () => selection.ids.size === 1,
      run: () => {
        editor.setPane('properties', true)
        void nextTick(() =>
          document
            .querySelector<HTMLElement>('[data-testid="properties"] :is(input, select, textarea)')
            ?.focus(),
        )
      },
    },
    {
      name: 'all',
      label: 'Select all',
      group: 'Edit',
      keys: ['$mod+a'],
      run: () => {
        const { components, junctions } = sheetDocument.sheet
        selection.select([...components, ...junctions].map((item) => item.id))
      },
    },
    {
      name: 'text',
      label: 'Write a text on the sheet',
      group: 'Edit',
      keys: ['w'],
      run: () => editor.startPlacing(kindInRole('text').name),
    },
  ]
}

const arrangeCommands = ({ sheetDocument, selection, editor, show }: CommandContext): Command[] => {
  const components = () => selection.components.map((c) => c.id)
  const atLeast = (n: number) => () => selection.components.length >= n
  const only = <T>(list: readonly T[]) => (selection.ids.size === 1 ? list[0] : undefined)
  const apply = (sheet: Sheet) => sheetDocument.apply(sheet)
  const crossing = () => {
    const [a, b] = selection.pipes
    return selection.pipes.length === 2 ? crossingOf(sheetDocument.sheet, a, b) : undefined
  }
  return [
    {
      name: 'rotate',
      label: 'Rotate',
      group: 'Arrange',
      keys: ['r'],
      enabled: atLeast(1),
      run: () => apply(rotate(sheetDocument.sheet, components())),
    },
    {
      name: 'mirror',
      label: 'Mirror',
      group: 'Arrange',
      keys: ['m'],
      enabled: atLeast(1),
      run: () => apply(mirror(sheetDocument.sheet, components())),
    },
    {
      name: 'swapPorts',
      label: 'Swap ports',
      group: 'Arrange',
      keys: ['x'],
      enabled: () =>
        selection.components.length === 1 && canSwapPorts(sheetDocument.sheet, selection.components[0].id),
      run: () => apply(swapPorts(sheetDocument.sheet, selection.components[0].id)),
    },
    {
      name: 'enclose',
      label: 'Enclose: a manifold or a group',
      group: 'Arrange',
      keys: ['g'],
      enabled: atLeast(1),
      run: () => {
        const enclosed = encloseComponents(sheetDocument.sheet, components(), show)
        if (!enclosed) return
        apply(enclosed.sheet)
        selection.select([enclosed.id])
      },
    },
    {
      name: 'junction',
      label: 'Add a junction to the pipe',
      group: 'Arrange',
      keys: ['j'],
      enabled: () => !!only(selection.pipes),
      // where the pointer is, else at the middle corner
      run: () => {
        const [pipe] = selection.pipes
        const points = polyline(sheetDocument.sheet, pipe)
        const near = editor.view?.pointer() ?? points[Math.floor(points.length / 2)]
        const { sheet, junction } = splitPipe(sheetDocument.sheet, pipe.id, near)
        apply(sheet)
        selection.select([junction])
      },
    },
    {
      name: 'connectCrossing',
      label: 'Connect the two lines where they cross',
      group: 'Arrange',
      enabled: () => !!crossing(),
      run: () => apply(connectCrossing(sheetDocument.sheet, selection.pipes[0].id, selection.pipes[1].id)),
    },
    {
      name: 'disconnectCrossing',
      label: 'Let the two lines cross without connection',
      group: 'Arrange',
      enabled: () => {
        const junction = only(selection.junctions)
        return !!junction && canDisconnectCrossing(sheetDocument.sheet, junction.id)
      },
      run: () => apply(disconnectCrossing(sheetDocument.sheet, selection.junctions[0].id)),
    },
    {
      name: 'reroute',
      label: 'Reroute the pipe',
      group: 'Arrange',
      enabled: () => selection.pipes.some((p) => p.manualRoute),
      run: () => apply(reroute(sheetDocument.sheet, new Set(selection.pipes.map((p) => p.id)))),
    },
    ...(Object.keys(edges) as Edge[]).map((edge): Command => ({
      name: `align-${edge}`,
      label: `Align ${edges[edge].label}`,
      group: 'Arrange',
      enabled: atLeast(2),
      run: () => apply(align(sheetDocument.sheet, components(), edge)),
    })),
    ...(['x', 'y'] as const).map((axis): Command => ({
      name: `distribute-${axis}`,
      label: axis === 'x' ? 'Distribute from left to right' : 'Distribute from top to bottom',
      group: 'Arrange',
      enabled: atLeast(3),
      run: () => apply(distribute(sheetDocument.sheet, components(), axis)),
    })),
  ]
}

const viewCommands = ({ editor, sheetDocument }: CommandContext): Command[] => {
  const toggle = (
    name: string,
    option: 'settings' | 'lineNames' | 'overview',
    what: string,
    keys?: readonly string[],
  ): Command => ({
    name,
    label: () => `${editor[option] ? 'Hide' : 'Show'} ${what}`,
    group: 'View',
    keys,
    run: () => (editor[option] = !editor[option]),
  })
  /** What the sheet itself shows, on the screen and on paper. */
  const annotation = (option: AnnotationSwitch, keys?: readonly string[]): Command => ({
    name: `annotation-${option}`,
    label: () =>
      `${sheetDocument.sheet.annotations[option] ? 'Hide' : 'Show'} ${annotationSwitches[option].toLowerCase()}`,
    group: 'View',
    keys,
    run() {
      const { sheet } = sheetDocument
      sheetDocument.apply({
        ...sheet,
        annotations: { ...sheet.annotations, [option]: !sheet.annotations[option] },
      })
    },
  })
  const dialog = (name: SheetDialog, label: string, keys: readonly string[]): Command => ({
    name,
    label,
    group: 'View',
    keys,
    run: () => (editor.dialog = name),
  })
  return [
    {
      name: 'connect',
      label: 'Connect: draw pipes from port to port',
      group: 'View',
      keys: ['c'],
      run: () => (editor.tool = editor.tool === 'connect' ? 'select' : 'connect'),
    },
    { name: 'fit', label: 'Fit to window', group: 'View', keys: ['f'], run: () => editor.view?.fit() },
    {
      name: 'zoomIn',
      label: 'Zoom in',
      group: 'View',
      keys: ['Shift++', '+', '='],
      run: () => editor.view?.zoomBy(1.25),
    },
    { name: 'zoomOut', label: 'Zoom out', group: 'View', keys: ['-'], run: () => editor.view?.zoomBy(0.8) },
    toggle('settings', 'settings', 'settings beside the symbols'),
    annotation('ports', ['l']),
    ...(['coils', 'pipes', 'rotation', 'fluid'] as const).map((option) => annotation(option)),
    toggle('lineNames', 'lineNames', 'the names of lines', ['n']),
    toggle('overview', 'overview', 'the overview', ['o']),
    dialog('search', 'Find a component or a command', ['$mod+k']),
    dialog('contents', 'The sheet as a list', ['t']),
    dialog('keys', 'Keyboard shortcuts', ['Shift+?', '?']),
  ]
}

const fileCommands = ({ editor, exportAs }: CommandContext): Command[] => [
  {
    name: 'revisions',
    label: 'Revisions: keep, compare, restore',
    group: 'Files',
    run: () => (editor.dialog = 'revisions'),
  },
  {
    name: 'print',
    label: 'Print preview',
    group: 'Files',
    keys: ['$mod+p'],
    run: () => (editor.dialog = 'print'),
  },
  ...exportFormats.map((format): Command => ({
    name: `export-${format.name}`,
    label: `Export as ${format.label}`,
    group: 'Files',
    run: () => exportAs(format),
  })),
]

/** All commands of the sheet, in the order of the menus. */
export const sheetCommands = (context: CommandContext): readonly Command[] => [
  ...editCommands(context),
  ...arrangeCommands(context),
  ...viewCommands(context),
  ...fileCommands(context),
]
