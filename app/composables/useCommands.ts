/** What can be done at the sheet: one list from which keys, menus and the command search are made. */
import {
  align,
  copy,
  distribute,
  edges,
  paste,
  removeAndReconnect,
  type Edge,
} from '@oar-bench/core/sheet/arrange'
import { kindInRole } from '@oar-bench/core/catalogue'
import { swapPorts, reroute, mirror, rotate, splitPipe } from '@oar-bench/core/sheet/edit'
import { extent, polyline } from '@oar-bench/core/sheet/geometry'
import {
  crossingOf,
  encloseComponents,
  connectCrossing,
  disconnectCrossing,
} from '@oar-bench/core/sheet/shape'
import { exportFormats, type ExportFormat } from './useFiles'

export interface Command {
  readonly name: string
  readonly label: string
  readonly group: 'Edit' | 'Arrange' | 'View' | 'Files'
  /** As written for people: "Ctrl C", "Shift R", "R". */
  readonly keys?: string
  /** What some are used to instead. */
  readonly otherKeys?: string
  readonly enabled: boolean
  readonly run: () => void
}

/** Where a copy lands beside what it was copied from, modules. */
const BESIDE = 4

export function useCommands() {
  const drawing = useDrawing()
  const desk = useDesk()
  const { save } = useFiles()
  const { show } = useUnits()

  const parts = computed(() =>
    drawing.sheet.components.filter((c) => drawing.selection.has(c.id)).map((c) => c.id),
  )
  const chosen = computed(() => [...drawing.selection])
  const put = (result: { sheet: typeof drawing.sheet; ids: string[] }) => {
    drawing.apply(result.sheet)
    drawing.select(result.ids)
  }
  const chosenPipes = computed(() => drawing.sheet.pipes.filter((p) => drawing.selection.has(p.id)))
  const crossing = computed(() => {
    const [a, b] = chosenPipes.value
    return a && b && chosenPipes.value.length === 2 ? crossingOf(drawing.sheet, a, b) : undefined
  })
  const chosenJunction = computed(() =>
    chosen.value.length === 1 ? drawing.sheet.junctions.find((j) => j.id === chosen.value[0]) : undefined,
  )
  /** A junction on the chosen pipe, where the pointer is or else at its middle corner. */
  function junctionOnPipe() {
    const [pipe] = chosenPipes.value
    const points = polyline(drawing.sheet, pipe)
    const near = desk.view?.pointer() ?? points[Math.floor(points.length / 2)]
    const { sheet, junction } = splitPipe(drawing.sheet, pipe.id, near)
    drawing.apply(sheet)
    drawing.select([junction])
  }
  function frame() {
    const framed = encloseComponents(drawing.sheet, parts.value, show)
    if (framed) put({ sheet: framed.sheet, ids: [framed.id] })
  }
  function pasteClip() {
    const { clip } = desk
    const box = extent({
      ...drawing.sheet,
      ...clip,
      components: [...clip.components],
      junctions: [],
      pipes: [],
    })
    const at = desk.view?.pointer() ?? [box.x + BESIDE, box.y + BESIDE]
    put(
      paste(
        drawing.sheet,
        clip,
        Math.round(at[0] - box.x - box.w / 2),
        Math.round(at[1] - box.y - box.h / 2),
      ),
    )
  }

  const commands = computed<Command[]>(() => {
    const some = chosen.value.length > 0
    const components = parts.value.length
    const list: (Omit<Command, 'enabled'> & { enabled?: boolean })[] = [
      {
        name: 'undo',
        label: 'Undo',
        group: 'Edit',
        keys: 'Ctrl Z',
        enabled: drawing.past.length > 0,
        run: drawing.undo,
      },
      {
        name: 'redo',
        label: 'Redo',
        group: 'Edit',
        keys: 'Ctrl Shift Z',
        otherKeys: 'Ctrl Y',
        enabled: drawing.future.length > 0,
        run: drawing.redo,
      },
      {
        name: 'copy',
        label: 'Copy',
        group: 'Edit',
        keys: 'Ctrl C',
        enabled: some,
        run: () => (desk.clip = copy(drawing.sheet, chosen.value)),
      },
      {
        name: 'cut',
        label: 'Cut',
        group: 'Edit',
        keys: 'Ctrl X',
        enabled: some,
        run: () => {
          desk.clip = copy(drawing.sheet, chosen.value)
          drawing.apply(removeAndReconnect(drawing.sheet, chosen.value))
        },
      },
      {
        name: 'paste',
        label: 'Paste',
        group: 'Edit',
        keys: 'Ctrl V',
        enabled: desk.clip.components.length + desk.clip.junctions.length > 0,
        run: pasteClip,
      },
      {
        name: 'duplicate',
        label: 'Duplicate',
        group: 'Edit',
        keys: 'Ctrl D',
        enabled: components > 0,
        run: () => put(paste(drawing.sheet, copy(drawing.sheet, chosen.value), BESIDE, BESIDE)),
      },
      {
        name: 'delete',
        label: 'Delete',
        group: 'Edit',
        keys: 'Delete',
        enabled: some,
        run: () => drawing.apply(removeAndReconnect(drawing.sheet, chosen.value)),
      },
      {
        name: 'properties',
        label: 'Go to its properties; Escape comes back',
        group: 'Edit',
        keys: 'Enter',
        enabled: chosen.value.length === 1,
        run: () => {
          desk.inspector = true
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
        keys: 'Ctrl A',
        run: () =>
          drawing.select([...drawing.sheet.components, ...drawing.sheet.junctions].map((item) => item.id)),
      },
      {
        name: 'rotate',
        label: 'Rotate',
        group: 'Arrange',
        keys: 'R',
        enabled: components > 0,
        run: () => drawing.apply(rotate(drawing.sheet, parts.value)),
      },
      {
        name: 'mirror',
        label: 'Mirror',
        group: 'Arrange',
        keys: 'M',
        enabled: components > 0,
        run: () => drawing.apply(mirror(drawing.sheet, parts.value)),
      },
      {
        name: 'turnRound',
        label: 'Turn round: exchange its two ports',
        group: 'Arrange',
        keys: 'X',
        enabled: components === 1 && swapPorts(drawing.sheet, parts.value[0]) !== drawing.sheet,
        run: () => drawing.apply(swapPorts(drawing.sheet, parts.value[0])),
      },
      {
        name: 'frame',
        label: 'Draw a frame round it: a manifold or a group',
        group: 'Arrange',
        keys: 'G',
        enabled: components > 0,
        run: frame,
      },
      {
        name: 'junction',
        label: 'Put a junction on the pipe',
        group: 'Arrange',
        keys: 'J',
        enabled: chosenPipes.value.length === 1 && chosen.value.length === 1,
        run: junctionOnPipe,
      },
      {
        name: 'joinCrossing',
        label: 'Join the two lines where they cross',
        group: 'Arrange',
        enabled: !!crossing.value,
        run: () => {
          const [a, b] = chosenPipes.value
          drawing.apply(connectCrossing(drawing.sheet, a.id, b.id))
        },
      },
      {
        name: 'partCrossing',
        label: 'Let the two lines cross unjoined',
        group: 'Arrange',
        enabled:
          !!chosenJunction.value &&
          disconnectCrossing(drawing.sheet, chosenJunction.value.id) !== drawing.sheet,
        run: () => drawing.apply(disconnectCrossing(drawing.sheet, chosenJunction.value!.id)),
      },
      {
        name: 'layAnew',
        label: 'Lay the pipe anew',
        group: 'Arrange',
        enabled: chosenPipes.value.some((p) => p.manualRoute),
        run: () => drawing.apply(reroute(drawing.sheet, new Set(chosenPipes.value.map((p) => p.id)))),
      },
      {
        name: 'words',
        label: 'Write on the sheet',
        group: 'Edit',
        keys: 'W',
        run: () => desk.startPlacing(kindInRole('text').name),
      },
      ...(Object.keys(edges) as Edge[]).map((edge) => ({
        name: `align-${edge}`,
        label: `Align ${edges[edge].label}`,
        group: 'Arrange' as const,
        enabled: components > 1,
        run: () => drawing.apply(align(drawing.sheet, parts.value, edge)),
      })),
      ...(['x', 'y'] as const).map((axis) => ({
        name: `distribute-${axis}`,
        label: axis === 'x' ? 'Equal distances from left to right' : 'Equal distances from top to bottom',
        group: 'Arrange' as const,
        enabled: components > 2,
        run: () => drawing.apply(distribute(drawing.sheet, parts.value, axis)),
      })),
      {
        name: 'connect',
        label: 'Lay pipes',
        group: 'View',
        keys: 'C',
        run: () => (desk.tool = desk.tool === 'connect' ? 'select' : 'connect'),
      },
      { name: 'fit', label: 'Fit to window', group: 'View', keys: 'F', run: () => desk.view?.fit() },
      { name: 'nearer', label: 'Nearer', group: 'View', keys: '+', run: () => desk.view?.zoomBy(1.25) },
      { name: 'farther', label: 'Farther', group: 'View', keys: '-', run: () => desk.view?.zoomBy(0.8) },
      {
        name: 'settings',
        label: desk.settings ? 'Hide settings beside the symbols' : 'Show settings beside the symbols',
        group: 'View',
        run: () => (desk.settings = !desk.settings),
      },
      {
        name: 'letters',
        label: desk.portLetters ? 'Hide port letters' : 'Show port letters',
        group: 'View',
        keys: 'L',
        run: () => (desk.portLetters = !desk.portLetters),
      },
      {
        name: 'lineNames',
        label: desk.lineNames ? 'Hide the names of lines' : 'Show the names of lines',
        group: 'View',
        keys: 'N',
        run: () => (desk.lineNames = !desk.lineNames),
      },
      {
        name: 'overview',
        label: desk.overview ? 'Hide the overview' : 'Show the overview',
        group: 'View',
        keys: 'O',
        run: () => (desk.overview = !desk.overview),
      },
      {
        name: 'search',
        label: 'Find a component or a command',
        group: 'View',
        keys: 'Ctrl K',
        run: () => (desk.searching = true),
      },
      {
        name: 'revisions',
        label: 'Revisions: keep, compare, put back',
        group: 'Files',
        run: () => (desk.revisions = true),
      },
      {
        name: 'print',
        label: 'Print: look at the page first',
        group: 'Files',
        keys: 'Ctrl P',
        run: () => (desk.printing = true),
      },
      {
        name: 'contents',
        label: 'The sheet as a list',
        group: 'View',
        keys: 'T',
        run: () => (desk.contents = true),
      },
      { name: 'keys', label: 'All keys', group: 'View', keys: '?', run: () => (desk.showingKeys = true) },
      ...(Object.keys(exportFormats) as ExportFormat[]).map((format) => ({
        name: `export-${format}`,
        label: `Save as ${exportFormats[format].label}`,
        group: 'Files' as const,
        run: () => void save(format),
      })),
    ]
    return list.map((command) => ({ enabled: true, ...command }))
  })

  /** Does what a key stands for. @returns whether it stood for something */
  function press(event: KeyboardEvent): boolean {
    const means = (keys?: string) => !!keys && matches(event, keys)
    const command = commands.value.find((c) => c.enabled && (means(c.keys) || means(c.otherKeys)))
    command?.run()
    return !!command
  }
  const named = (name: string) => commands.value.find((c) => c.name === name)!
  return { commands, press, named }
}

/** Other keys that do the same. */
const alike: Readonly<Record<string, string>> = { backspace: 'delete', '=': '+' }

function matches(event: KeyboardEvent, keys: string): boolean {
  const wanted = keys.toLowerCase().split(' ')
  const key = wanted.pop()!
  if ((event.ctrlKey || event.metaKey) !== wanted.includes('ctrl') || event.altKey) return false
  // signs need Shift on some keyboards
  if (/^[a-z]$|^delete$/.test(key) && event.shiftKey !== wanted.includes('shift')) return false
  const pressed = event.key.toLowerCase()
  if (key === 'z' && event.shiftKey && !wanted.includes('shift')) return false
  return pressed === key || alike[pressed] === key
}
