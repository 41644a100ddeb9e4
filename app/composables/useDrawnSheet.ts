/** What of a sheet is on the screen: an entry that has not changed stays the same object, and its part of the page is left alone. */
import { findKind } from '@oar-bench/core/catalogue'
import type { Finding } from '@oar-bench/core/sheet/finding'
import {
  drawnAt,
  outline,
  placedPorts,
  polyline,
  symbolOf,
  type Rect,
  type XY,
} from '@oar-bench/core/sheet/geometry'
import { letterings, type Lettered } from '@oar-bench/core/sheet/lettering'
import type { Pipe, Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'

export interface DrawnComponent {
  component: SheetComponent
  symbol: NonNullable<ReturnType<typeof symbolOf>>
  rect: ReturnType<typeof outline>
  ports: ReturnType<typeof placedPorts>
  /** What is written beside it; words on the sheet have none. */
  caption?: Lettered
  /** All round, where it is only a frame. */
  frame?: Rect
  label: string
}
export interface DrawnPipe {
  pipe: Pipe
  points: XY[]
  path: string
  arrow: ReturnType<typeof arrowPlace>
}
/** Middle of the longest straight part, and the angle along the pipe there. */
function arrowPlace(points: readonly XY[]) {
  let best = { length: 0, x: 0, y: 0, angle: 0 }
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [points[i], points[i + 1]]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (length > best.length)
      best = {
        length,
        x: (a[0] + b[0]) / 2,
        y: (a[1] + b[1]) / 2,
        angle: (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI,
      }
  }
  return best.length >= 1.5 ? best : undefined
}

const sameWords = (a: Lettered | undefined, b: Lettered | undefined) =>
  a === b ||
  (!!a &&
    !!b &&
    a.x === b.x &&
    a.y === b.y &&
    a.anchor === b.anchor &&
    a.designation === b.designation &&
    a.lines.join() === b.lines.join())

/** @param shown the sheet with the move that is under way */
export function useDrawnSheet(shown: Ref<Sheet>) {
  const drawing = useDrawing()
  const desk = useDesk()
  const { show } = useUnits()
  /** Lettering of the sheet as it was before a move; it goes along with what moves, and finds its place when that is let go. */
  const words = computed(() => letterings(drawing.sheet, show))
  const settled = computed(() => new Map(drawing.sheet.components.map((c) => [c.id, c])))
  function captionOf(component: SheetComponent): Lettered | undefined {
    const caption = words.value.get(component.id)
    if (!caption) return undefined
    const before = settled.value.get(component.id)!
    const [dx, dy] = [component.x - before.x, component.y - before.y]
    return dx || dy ? { ...caption, x: caption.x + dx, y: caption.y + dy } : caption
  }
  /** What was drawn last. */
  let drawnComponents = new Map<string, DrawnComponent>()
  let drawnPipes = new Map<string, DrawnPipe>()
  const components = computed<DrawnComponent[]>(() => {
    const list = shown.value.components.flatMap((component) => {
      const kind = findKind(component.kind)
      const symbol = symbolOf(component)
      if (!kind || !symbol) return []
      const caption = captionOf(component)
      const last = drawnComponents.get(component.id)
      if (last && last.component === component && sameWords(last.caption, caption)) return [last]
      const rect = outline(component)
      const ports = placedPorts(component)
      const label = kind.unnamed
        ? `${kind.label}: ${component.parameters.text ?? ''}`
        : `${component.designation ?? component.id}, ${kind.label}`
      const frame = kind.traits?.frames ? drawnAt(component) : undefined
      return [{ component, symbol, rect, ports, caption, frame, label }]
    })
    drawnComponents = new Map(list.map((d) => [d.component.id, d]))
    return list
  })
  const shownLines = (d: DrawnComponent) => (desk.settings ? (d.caption?.lines ?? []) : [])
  const pipes = computed<DrawnPipe[]>(() => {
    const list = shown.value.pipes.map((pipe) => {
      const points = polyline(shown.value, pipe)
      const path = points.map((p) => p.join()).join(' ')
      const last = drawnPipes.get(pipe.id)
      return last && last.pipe === pipe && last.path === path
        ? last
        : { pipe, points, path, arrow: arrowPlace(points) }
    })
    drawnPipes = new Map(list.map((d) => [d.pipe.id, d]))
    return list
  })
  /** The worst finding at each component, pipe or joint. */
  const marks = computed(() => {
    const result = new Map<string, Finding>()
    for (const finding of drawing.findings) {
      const { component, pipe, joint } = finding.place
      for (const id of [component, pipe, joint])
        if (id && (!result.has(id) || finding.severity === 'error')) result.set(id, finding)
    }
    return result
  })
  const markClass = (id: string) => {
    const mark = marks.value.get(id)
    return mark ? `marked-${mark.severity}` : ''
  }
  /** Where an error is on the sheet, for its sign. */
  const signs = computed(() =>
    components.value.flatMap(({ component, rect, ports }) => {
      const mark = marks.value.get(component.id)
      if (!mark) return []
      const port = ports.find((p) => p.port === mark.place.port)
      const at: XY = port ? port.at : [rect.x - 0.8, rect.y - 0.4]
      return [{ id: component.id, mark, at }]
    }),
  )
  return { components, pipes, marks, markClass, signs, shownLines }
}
