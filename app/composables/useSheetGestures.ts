/** What the pointer and the keyboard do on the sheet: choose, move, place, lay pipes. */
import { routeAround, insertInPipe } from '@oar-bench/core/sheet/arrange'
import { addComponent, connect, move, movePipeEnd, type Target } from '@oar-bench/core/sheet/edit'
import {
  alongPolyline,
  nearestOn,
  polyline,
  polylineLength,
  symbolOf,
  type XY,
} from '@oar-bench/core/sheet/geometry'
import type { Pipe, Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'
import { moveSegment, segmentAcross } from '@oar-bench/core/sheet/shape'
import type { DrawnComponent } from './useDrawnSheet'

interface Surface {
  readonly host: Readonly<Ref<HTMLElement | null>>
  readonly svg: Readonly<Ref<SVGSVGElement | null>>
  readonly components: Readonly<Ref<DrawnComponent[]>>
  /** Takes the sheet with a move that is under way. */
  readonly preview: Ref<Sheet | undefined>
  readonly toSheet: (event: { clientX: number; clientY: number }) => XY
  /** The middle of what is to be seen. */
  readonly middle: () => XY
  readonly running: () => boolean
}

/** How far from its end a chosen pipe has the handle of that end, modules. */
const HANDLE_AT = 1.2
/** Nearer than this it would lie on the port. */
const HANDLE_FROM = 0.6
const toGrid = (at: XY): [number, number] => [Math.round(at[0]), Math.round(at[1])]
const arrows: Record<string, [number, number] | undefined> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

export function useSheetGestures({ host, svg, components, preview, toSheet, middle, running }: Surface) {
  const drawing = useDrawing()
  const desk = useDesk()
  const pointer = shallowRef<XY>([0, 0])
  const connecting = shallowRef<{ from: Target; at: XY; pipe?: string; which?: 'from' | 'to' }>()
  const marquee = shallowRef<{ from: XY; to: XY }>()
  /** What is being moved: parts, or a straight piece of a pipe. */
  let drag: { ids: string[]; from: XY; moved: [number, number]; segment?: number } | undefined

  const ghost = computed(() => {
    const placing = desk.placing
    if (!placing) return undefined
    const [x, y] = toGrid(pointer.value)
    const component: SheetComponent = {
      id: 'ghost',
      kind: placing.kind,
      x,
      y,
      rotation: placing.rotation,
      mirrored: placing.mirrored,
      parameters: {},
    }
    const symbol = symbolOf(component)
    return symbol && { component, symbol }
  })

  function place(at: XY) {
    const placing = desk.placing
    if (!placing) return
    const [x, y] = toGrid(at)
    const { sheet, id } = addComponent(drawing.sheet, placing.kind, {
      x,
      y,
      rotation: placing.rotation,
      mirrored: placing.mirrored,
    })
    drawing.apply(routeAround(insertInPipe(sheet, id), [id], drawing.sheet))
    drawing.select([id])
    desk.placing = undefined
    desk.say('')
    host.value?.focus()
  }
  /** What a pipe could start from or end at under the pointer. */
  function targetAt(event: PointerEvent): Target | undefined {
    const element = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-item]')
    const item = element?.getAttribute('data-item')
    if (!item) return undefined
    if (item.startsWith('port:')) {
      const [, component, port] = item.split(':')
      return { component, port }
    }
    if (item.startsWith('junction:')) return { junction: item.slice(6) }
    // the handle at the end of a selected pipe stands for what lies under it
    if (item.startsWith('end:')) {
      const [, pipe, which] = item.split(':') as [string, string, 'from' | 'to']
      return drawing.sheet.pipes.find((p) => p.id === pipe)?.[which]
    }
    if (item.startsWith('pipe:')) return { pipe: item.slice(5), at: toGrid(toSheet(event)) }
    return undefined
  }
  const placeOf = (target: Target): XY => {
    if ('pipe' in target) return target.at
    if ('junction' in target) {
      const junction = drawing.sheet.junctions.find((j) => j.id === target.junction)!
      return [junction.x, junction.y]
    }
    return components.value
      .find((c) => c.component.id === target.component)!
      .ports.find((p) => p.port === target.port)!.at
  }
  function finishConnection(to: Target | undefined) {
    const start = connecting.value
    connecting.value = undefined
    if (!start || !to) return
    const laid =
      start.pipe && start.which
        ? movePipeEnd(drawing.sheet, start.pipe, start.which, to)
        : connect(drawing.sheet, start.from, to, desk.lineKind)
    if ('problem' in laid) return desk.say(laid.problem)
    desk.say('')
    drawing.apply(laid.sheet)
    drawing.select([laid.id])
  }

  function onPointerDown(event: PointerEvent) {
    if (event.button !== 0) return
    // a second finger: the sheet is looked at from nearer or farther, and nothing on it is moved
    if (!event.isPrimary) return giveUp()
    host.value?.focus({ preventScroll: true })
    pointer.value = toSheet(event)
    if (desk.placing) return place(pointer.value)
    const element = (event.target as Element).closest('[data-item]')
    const item = element?.getAttribute('data-item') ?? ''
    const target = targetAt(event)
    if (connecting.value) {
      // the second click of click and click
      if (target) finishConnection(target)
      else connecting.value = undefined
      return
    }
    if (item.startsWith('end:')) {
      const [, pipe, which] = item.split(':') as [string, string, 'from' | 'to']
      const other = drawing.sheet.pipes.find((p) => p.id === pipe)![which === 'from' ? 'to' : 'from']
      connecting.value = { from: other, at: placeOf(other), pipe, which }
      svg.value!.setPointerCapture(event.pointerId)
      return
    }
    if (target && (desk.tool === 'connect' || item.startsWith('port:'))) {
      connecting.value = { from: target, at: placeOf(target) }
      svg.value!.setPointerCapture(event.pointerId)
      return
    }
    const id = item.split(':')[1]
    if (id) {
      const ids: string[] = drawing.selection.has(id)
        ? event.shiftKey
          ? [...drawing.selection].filter((s) => s !== id)
          : [...drawing.selection]
        : event.shiftKey
          ? [...drawing.selection, id]
          : [id]
      drawing.select(ids)
      const pipe = ids.length === 1 ? drawing.sheet.pipes.find((p) => p.id === id) : undefined
      drag = {
        ids,
        from: pointer.value,
        moved: [0, 0],
        segment: pipe && nearestOn(polyline(drawing.sheet, pipe), pointer.value).segment,
      }
      svg.value!.setPointerCapture(event.pointerId)
      return
    }
    if (event.shiftKey) {
      marquee.value = { from: pointer.value, to: pointer.value }
      svg.value!.setPointerCapture(event.pointerId)
    } else drawing.select([])
  }
  /** Ends what goes on, with the sheet as it was. */
  function giveUp() {
    preview.value = drag = marquee.value = connecting.value = undefined
  }
  let pressedAt: XY = [0, 0]
  function onPointerMove(event: PointerEvent) {
    if (!event.isPrimary) return
    pointer.value = toSheet(event)
    if (marquee.value) marquee.value = { ...marquee.value, to: pointer.value }
    if (!drag) return
    const by = toGrid([pointer.value[0] - drag.from[0], pointer.value[1] - drag.from[1]])
    if (by[0] === drag.moved[0] && by[1] === drag.moved[1]) return
    drag.moved = by
    preview.value = moved('rough')
  }
  /** The sheet as it is with the move under way. */
  function moved(laying: 'rough' | 'routed'): Sheet {
    const { ids, from, moved: by, segment } = drag!
    return segment === undefined
      ? move(drawing.sheet, ids, by[0], by[1], laying)
      : moveSegment(drawing.sheet, ids[0], segment, toGrid([from[0] + by[0], from[1] + by[1]]))
  }
  function onPointerUp(event: PointerEvent) {
    if (event.type === 'pointercancel') return giveUp()
    if (drag) {
      preview.value = undefined
      if (drag.moved[0] || drag.moved[1]) {
        const sheet = moved('routed')
        const put = drag.ids.length === 1 ? insertInPipe(sheet, drag.ids[0]) : sheet
        drawing.apply(routeAround(put, drag.ids, drawing.sheet))
      }
      drag = undefined
    }
    if (marquee.value) {
      const { from, to } = marquee.value
      marquee.value = undefined
      const [x1, x2] = [Math.min(from[0], to[0]), Math.max(from[0], to[0])]
      const [y1, y2] = [Math.min(from[1], to[1]), Math.max(from[1], to[1])]
      const inside = (x: number, y: number) => x >= x1 && x <= x2 && y >= y1 && y <= y2
      drawing.select([
        ...drawing.sheet.components.filter((c) => inside(c.x, c.y)).map((c) => c.id),
        ...drawing.sheet.junctions.filter((j) => inside(j.x, j.y)).map((j) => j.id),
      ])
    }
    if (connecting.value) {
      const target = targetAt(event)
      const at = connecting.value.at
      // pressed and let go at the same place: the second click ends the pipe
      const same = Math.hypot(pointer.value[0] - pressedAt[0], pointer.value[1] - pressedAt[1]) < 0.6
      if (same && !connecting.value.pipe) return
      if (target) {
        const end = placeOf(target)
        if (end[0] !== at[0] || end[1] !== at[1]) return finishConnection(target)
      }
      connecting.value = undefined
    }
  }
  watch(connecting, (value) => {
    if (value) pressedAt = pointer.value
  })

  const { press } = useCommands()
  function onKey(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    if (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return
    if (key(event, target)) event.preventDefault()
  }
  /** @returns whether the key stood for something */
  function key(event: KeyboardEvent, target: HTMLElement): boolean {
    const steps = event.ctrlKey || event.metaKey || event.altKey ? undefined : arrows[event.key]
    if (event.key === 'Escape') {
      const idle = !desk.placing && !connecting.value
      desk.placing = undefined
      connecting.value = undefined
      if (idle && desk.tool === 'connect') desk.tool = 'select'
      else if (idle) drawing.select([])
      return true
    }
    if (desk.placing) {
      if (event.key === 'r') desk.turnPlacing()
      else if (event.key === 'm') desk.mirrorPlacing()
      else if (event.key === 'Enter') place(pointer.value)
      else if (steps) pointer.value = [pointer.value[0] + steps[0], pointer.value[1] + steps[1]]
      else return false
      return true
    }
    if (desk.tool === 'connect' && cursor.value) {
      if (steps) return (moveCursor(steps), true)
      if (event.key === 'Enter') return (usePort(cursor.value), true)
    }
    const ids = [...drawing.selection]
    if (event.key === 'Enter' || event.key === ' ') {
      // an item that only has the keyboard's focus is chosen with enter or space
      const focused = target.closest?.('[data-item]')?.getAttribute('data-item')?.split(':')[1]
      if (focused && !drawing.selection.has(focused)) return (drawing.select([focused]), true)
    }
    if (steps && ids.length) return (drawing.apply(nudged(ids, steps)), true)
    return press(event)
  }

  /** A step by an arrow: parts are moved, a single pipe has its longest part across the arrow moved. */
  function nudged(ids: string[], [dx, dy]: [number, number]): Sheet {
    const pipe = ids.length === 1 ? drawing.sheet.pipes.find((p) => p.id === ids[0]) : undefined
    if (!pipe) return move(drawing.sheet, ids, dx, dy)
    const part = segmentAcross(drawing.sheet, pipe, [dx, dy])
    return part
      ? moveSegment(drawing.sheet, pipe.id, part.segment, [part.at[0] + dx, part.at[1] + dy])
      : drawing.sheet
  }

  // ---- pipes by keyboard ---------------------------------------------------------------------
  /** The port that the keyboard is at while pipes are laid. */
  const cursor = shallowRef<{ component: string; port: string; at: XY }>()
  const allPorts = () =>
    components.value.flatMap(({ component, ports }) =>
      ports.map(({ port, at }) => ({ component: component.id, port, at })),
    )
  watch(
    () => desk.tool,
    (tool) => {
      const ports = allPorts()
      const [chosen] = drawing.selection
      const at0 = middle()
      const far = ({ at }: { at: XY }) => Math.hypot(at[0] - at0[0], at[1] - at0[1])
      cursor.value =
        tool !== 'connect'
          ? undefined
          : (ports.find((p) => p.component === chosen) ?? [...ports].sort((a, b) => far(a) - far(b))[0])
    },
  )
  /** To the nearest port that lies rather in a direction than beside it. */
  function moveCursor([dx, dy]: [number, number]) {
    const from = cursor.value!
    let best: { far: number; port: typeof from } | undefined
    for (const port of allPorts()) {
      const [x, y] = [port.at[0] - from.at[0], port.at[1] - from.at[1]]
      const ahead = x * dx + y * dy
      const aside = Math.abs(x * dy) + Math.abs(y * dx)
      if (ahead <= 0 || aside > 2 * ahead) continue
      const far = ahead + 2 * aside
      if (!best || far < best.far) best = { far, port }
    }
    if (!best) return
    cursor.value = best.port
    pointer.value = best.port.at
  }
  function usePort(port: NonNullable<typeof cursor.value>) {
    const end = { component: port.component, port: port.port }
    if (!connecting.value) connecting.value = { from: end, at: port.at }
    else finishConnection(end)
  }
  const cursorWords = computed(() => {
    const at = cursor.value
    if (!at) return ''
    const named = drawing.sheet.components.find((c) => c.id === at.component)
    const where = `${named?.designation ?? at.component}, port ${at.port}`
    return connecting.value
      ? `Pipe to ${where}: Enter lays it`
      : `${where}: Enter starts a pipe, arrows go to other ports`
  })

  /** Handles at the ends of the pipe that is chosen. */
  const selectedPipe = computed<Pipe | undefined>(() => {
    const [id] = drawing.selection
    return drawing.selection.size === 1 ? drawing.sheet.pipes.find((p) => p.id === id) : undefined
  })
  const pipeEnds = computed(() => {
    const pipe = selectedPipe.value
    if (!pipe || running()) return []
    const points = polyline(drawing.sheet, pipe)
    // a step along the pipe: another pipe can still begin at the port itself
    const step = Math.min(HANDLE_AT, polylineLength(points) / 3)
    if (step < HANDLE_FROM) return []
    return (['from', 'to'] as const).map((which) => ({
      which,
      at: alongPolyline(which === 'from' ? points : [...points].reverse(), step),
      pipe: pipe.id,
    }))
  })
  return {
    pointer,
    connecting,
    marquee,
    ghost,
    cursor,
    cursorWords,
    pipeEnds,
    onPointerDown,
    onPointerMove,
    onPointerUp,
    onKey,
  }
}
