/** What of a sheet is on the screen: an entry that has not changed stays the same object, and its part of the page is left alone. */
import { findKind } from '@oar-bench/core/catalogue'
import { isOutline } from '@oar-bench/core/sheet/role'
import type { Finding } from '@oar-bench/core/sheet/finding'
import {
  boundsOnSheet,
  extent,
  longestPart,
  outline,
  placedPorts,
  polyline,
  symbolOf,
  type Rect,
  type XY,
} from '@oar-bench/core/sheet/geometry'
import { hoseOf } from '@oar-bench/core/sheet/hose'
import { sheetLettering, LETTERING_LINE, type Label } from '@oar-bench/core/sheet/lettering'
import {
  nameOf,
  type Junction,
  type Pipe,
  type Sheet,
  type SheetComponent,
} from '@oar-bench/core/sheet/schema'

export interface DrawnComponent {
  component: SheetComponent
  symbol: NonNullable<ReturnType<typeof symbolOf>>
  rect: ReturnType<typeof outline>
  ports: ReturnType<typeof placedPorts>
  /** What is written beside it; words on the sheet have none. */
  caption?: Label
  /** All round, where it is only a frame. */
  frame?: Rect
  label: string
}
export interface DrawnPipe {
  pipe: Pipe
  points: readonly XY[]
  path: string
  /** Path data as it is drawn: a hose hangs through. */
  d: string
  /** The ends of a hose. */
  dots: readonly XY[]
  arrow: ReturnType<typeof arrowPlace>
}
/** What a move that is under way has changed. */
export interface DraggedParts {
  components: DrawnComponent[]
  junctions: Junction[]
  pipes: DrawnPipe[]
  ids: ReadonlySet<string>
}
/** The place of an arrow, and its angle along the pipe there; none where there is no room for it. */
function arrowPlace(points: readonly XY[], lowest?: XY) {
  const longest = longestPart(points)
  if (!longest || longest.length < 1.5) return undefined
  const { a, b } = longest
  const [x, y] = lowest ?? [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  return { x, y, angle: (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI }
}

const sameWords = (a: Label | undefined, b: Label | undefined) =>
  a === b ||
  (!!a &&
    !!b &&
    a.x === b.x &&
    a.y === b.y &&
    a.anchor === b.anchor &&
    a.designation === b.designation &&
    a.lines.join() === b.lines.join())

function drawComponent(component: SheetComponent, caption: Label | undefined): DrawnComponent[] {
  const kind = findKind(component.kind)
  const symbol = symbolOf(component)
  if (!kind || !symbol) return []
  const rect = outline(component)
  const ports = placedPorts(component)
  const label =
    kind.role === 'text' || kind.role === 'enclosure'
      ? `${kind.label}: ${component.parameters.text ?? ''}`
      : `${nameOf(component)}, ${kind.label}`
  const frame = isOutline(component) ? boundsOnSheet(component) : undefined
  return [{ component, symbol, rect, ports, caption, frame, label }]
}
/** @param last what was drawn of it before; returned again where nothing has changed */
function drawPipe(sheet: Sheet, pipe: Pipe, last?: DrawnPipe): DrawnPipe {
  const points = polyline(sheet, pipe)
  if (last && last.pipe === pipe && last.points === points) return last
  const path = points.map((p) => p.join()).join(' ')
  const hose = pipe.lineType === 'hose' ? hoseOf(points) : undefined
  const d = hose ? hose.shapes.map(pathOf).join('') : `M${path}`
  return { pipe, points, path, d, dots: hose?.ends ?? [], arrow: arrowPlace(points, hose?.lowest) }
}

/** @param preview the sheet with the move that is under way @param running whether a run is shown, and not drawn */
export function useDrawnSheet(preview: Ref<Sheet | undefined>, running: () => boolean) {
  const sheetDocument = useSheetDocument()
  const checks = useSheetChecks()
  const editor = useEditorUi()
  const { show } = useUnits()
  const written = computed(() => sheetLettering(sheetDocument.sheet, show, { names: editor.lineNames }))
  const words = computed(() => written.value.labels)
  /** Names and sizes of lines. */
  const lineTexts = computed(() => written.value.lines)
  /** What was drawn last. */
  let drawnComponents = new Map<string, DrawnComponent>()
  let drawnPipes = new Map<string, DrawnPipe>()
  const components = computed<DrawnComponent[]>(() => {
    const list = sheetDocument.sheet.components.flatMap((component) => {
      const caption = words.value.get(component.id)
      const last = drawnComponents.get(component.id)
      return last && last.component === component && sameWords(last.caption, caption)
        ? [last]
        : drawComponent(component, caption)
    })
    drawnComponents = new Map(list.map((d) => [d.component.id, d]))
    return list
  })
  const pipes = computed<DrawnPipe[]>(() => {
    const list = sheetDocument.sheet.pipes.map((pipe) =>
      drawPipe(sheetDocument.sheet, pipe, drawnPipes.get(pipe.id)),
    )
    drawnPipes = new Map(list.map((d) => [d.pipe.id, d]))
    return list
  })
  /** It is drawn by itself over a sheet that lies still. */
  const dragged = computed<DraggedParts | undefined>(() => {
    const moving = preview.value
    if (!moving) return undefined
    const resting = sheetDocument.sheet
    const changed = <T>(list: readonly T[], rest: readonly T[]) => {
      const there = new Set(rest)
      return list.filter((item) => !there.has(item))
    }
    const before = new Map(resting.components.map((c) => [c.id, c]))
    const parts = changed(moving.components, resting.components)
    const junctions = changed(moving.junctions, resting.junctions)
    const lines = changed(moving.pipes, resting.pipes)
    return {
      components: parts.flatMap((component) => {
        // its label moves along, and is placed anew when it is released
        const caption = words.value.get(component.id)
        const { x, y } = before.get(component.id) ?? component
        const [dx, dy] = [component.x - x, component.y - y]
        return drawComponent(component, caption && { ...caption, x: caption.x + dx, y: caption.y + dy })
      }),
      junctions,
      pipes: lines.map((pipe) => drawPipe(moving, pipe)),
      ids: new Set([...parts, ...junctions, ...lines].map(({ id }) => id)),
    }
  })
  /** The same set as long as the move changes the same. */
  const draggedIds = computed<ReadonlySet<string>>((last) => {
    const ids = dragged.value?.ids ?? new Set()
    return last?.size === ids.size && [...ids].every((id) => last.has(id)) ? last : ids
  })
  /** The worst finding at each component, pipe or junction. */
  const marks = computed(() => {
    const result = new Map<string, Finding>()
    for (const finding of running() ? checks.findings : checks.faults) {
      const { component, pipe, junction } = finding.location
      for (const id of [component, pipe, junction])
        if (id && (!result.has(id) || finding.severity === 'error')) result.set(id, finding)
    }
    return result
  })
  /** Where an error is on the sheet, for its sign. */
  const signs = computed(() =>
    components.value.flatMap(({ component, rect, ports }) => {
      const mark = marks.value.get(component.id)
      if (!mark) return []
      const port = ports.find((p) => p.port === mark.location.port)
      const at: XY = port ? port.at : [rect.x - 0.8, rect.y - 0.4]
      return [{ id: component.id, mark, at }]
    }),
  )
  /** Ports that are not connected yet, while the sheet is being drawn. */
  const openPorts = computed(() => {
    if (running()) return []
    const drawn = new Map(components.value.map((d) => [d.component.id, d]))
    return checks.incomplete.flatMap(({ location: { component, port } }) => {
      const at = drawn.get(component ?? '')?.ports.find((p) => p.port === port)?.at
      return component && at ? [{ component, port, at }] : []
    })
  })
  /** All that is drawn, with the lettering. */
  function bounds(): Rect {
    const drawn = extent(sheetDocument.sheet)
    let [left, top, right, bottom] = [drawn.x, drawn.y, drawn.x + drawn.w, drawn.y + drawn.h]
    for (const { caption } of components.value) {
      if (!caption) continue
      const { lines } = caption
      const longest = Math.max(caption.designation.length + 8, ...lines.map((l) => l.length)) * 0.56
      const start = caption.anchor === 'middle' ? caption.x - longest / 2 : caption.x
      left = Math.min(left, start)
      right = Math.max(right, start + longest)
      top = Math.min(top, caption.y - LETTERING_LINE)
      bottom = Math.max(bottom, caption.y + LETTERING_LINE * lines.length)
    }
    return { x: left, y: top, w: right - left, h: bottom - top }
  }
  return { components, pipes, dragged, draggedIds, marks, signs, openPorts, bounds, lineTexts }
}
