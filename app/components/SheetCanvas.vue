<script setup lang="ts">
/** The sheet: one SVG in modules, with drawing by pointer and keyboard, and a run shown on it. */
import { useResizeObserver } from '@vueuse/core'
import { select } from 'd3-selection'
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomTransform } from 'd3-zoom'
import { findKind } from '@oar-bench/core/catalogue'
import { splice } from '@oar-bench/core/sheet/arrange'
import { addComponent, connect, move, movePipeEnd, type Target } from '@oar-bench/core/sheet/edit'
import {
  extent,
  outline,
  place as placePoint,
  placedPorts,
  polyline,
  symbolOf,
  type XY,
} from '@oar-bench/core/sheet/geometry'
import { placeText, type Finding } from '@oar-bench/core/sheet/finding'
import { letterings, LETTERING_LINE, type Lettered } from '@oar-bench/core/sheet/lettering'
import { lineDomain } from '@oar-bench/core/sheet/netlist'
import type { Pipe, PipeEnd, Sheet, SheetComponent } from '@oar-bench/core/sheet/schema'

const props = defineProps<{ running: boolean }>()
const drawing = useDrawing()
const run = useRun()
const desk = useDesk()
const { show } = useUnits()
const { dark } = useTheme()

const host = useTemplateRef<HTMLDivElement>('host')
const svg = useTemplateRef<SVGSVGElement>('svg')
const layer = useTemplateRef<SVGGElement>('layer')

// ---- view ---------------------------------------------------------------------------------
let view: ZoomTransform = zoomIdentity
const scale = ref(10)
/** Pixels to a module below which the grid is not shown: its dots would be dust. */
const GRID_FROM = 6
const zoomer = zoom<SVGSVGElement, unknown>()
  .scaleExtent([2, 60])
  .filter((event: Event) => {
    const e = event as MouseEvent
    if (e.type === 'wheel') return true
    return e.button === 1 || (e.button === 0 && !e.shiftKey && !(e.target as Element).closest('[data-item]'))
  })
  .on('zoom', (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
    if (event.sourceEvent) untouched = false
    view = event.transform
    scale.value = view.k
    layer.value!.style.transform = `translate(${view.x}px, ${view.y}px) scale(${view.k})`
  })

function fit() {
  const element = svg.value
  if (!element) return
  untouched = true
  const { width, height } = element.getBoundingClientRect()
  if (!width || !height) return
  const drawn = extent(drawing.sheet)
  let [left, top, right, bottom] = [drawn.x, drawn.y, drawn.x + drawn.w, drawn.y + drawn.h]
  for (const { caption } of components.value) {
    const { lines } = caption
    const longest = Math.max(caption.designation.length + 8, ...lines.map((l) => l.length)) * 0.56
    const start = caption.anchor === 'middle' ? caption.x - longest / 2 : caption.x
    left = Math.min(left, start)
    right = Math.max(right, start + longest)
    top = Math.min(top, caption.y - LETTERING_LINE)
    bottom = Math.max(bottom, caption.y + LETTERING_LINE * lines.length)
  }
  const [w, h] = [right - left, bottom - top]
  // the pressure scale stands at the right edge during a run
  const free = width - (props.running ? 72 : 0)
  const k = Math.min(16, (free - 24) / w, (height - 28) / h)
  const to = zoomIdentity
    .translate(free / 2, height / 2)
    .scale(k)
    .translate(-(left + w / 2), -(top + h / 2))
  select(element).call(zoomer.transform, to)
}
const zoomBy = (factor: number) => select(svg.value!).call(zoomer.scaleBy, factor)
function centre(at: XY) {
  const { width, height } = svg.value!.getBoundingClientRect()
  select(svg.value!).call(
    zoomer.transform,
    zoomIdentity
      .translate(width / 2, height / 2)
      .scale(view.k)
      .translate(-at[0], -at[1]),
  )
}
/** Until the user pans or zooms, the drawing stays fitted to the window. */
let untouched = true
onMounted(() => {
  select(svg.value!).call(zoomer).on('dblclick.zoom', null)
})
useResizeObserver(host, () => {
  if (untouched) fit()
})
watch(
  () => [drawing.machine?.id, props.running],
  () => {
    untouched = true
    void nextTick(fit)
  },
)
const toSheet = (event: { clientX: number; clientY: number }): XY => {
  const box = svg.value!.getBoundingClientRect()
  return [(event.clientX - box.left - view.x) / view.k, (event.clientY - box.top - view.y) / view.k]
}
const toGrid = (at: XY): [number, number] => [Math.round(at[0]), Math.round(at[1])]

// ---- what is drawn ------------------------------------------------------------------------
/** The sheet with the move that is under way. */
const preview = shallowRef<Sheet>()
const shownSheet = computed(() => preview.value ?? drawing.sheet)

interface DrawnComponent {
  component: SheetComponent
  symbol: NonNullable<ReturnType<typeof symbolOf>>
  rect: ReturnType<typeof outline>
  ports: ReturnType<typeof placedPorts>
  caption: Lettered
  label: string
  /** Lead lines from a port to the body of the symbol, which carry that port's oil. */
  leads: { port: string; path: string }[]
}
function leadsOf(
  component: SheetComponent,
  symbol: DrawnComponent['symbol'],
  ports: DrawnComponent['ports'],
) {
  return symbol.shapes.flatMap((shape) => {
    if (shape.shape !== 'line' || shape.part || shape.dash) return []
    const points = shape.points.map((p) => placePoint(p, component))
    const at = (p: XY) => ports.find((port) => port.at[0] === p[0] && port.at[1] === p[1])
    const ends = [at(points[0]), at(points[points.length - 1])].filter((port) => port !== undefined)
    // a line from port to port carries two pressures
    return ends.length === 1 ? [{ port: ends[0].port, path: points.map((p) => p.join()).join(' ') }] : []
  })
}
/** Lettering of the sheet as it was before a move; it goes along with what moves, and finds its place when that is let go. */
const words = computed(() => letterings(drawing.sheet, show))
const settled = computed(() => new Map(drawing.sheet.components.map((c) => [c.id, c])))
function captionOf(component: SheetComponent): Lettered {
  const caption = words.value.get(component.id)!
  const before = settled.value.get(component.id)!
  const [dx, dy] = [component.x - before.x, component.y - before.y]
  return dx || dy ? { ...caption, x: caption.x + dx, y: caption.y + dy } : caption
}
const sameWords = (a: Lettered, b: Lettered) =>
  a.x === b.x &&
  a.y === b.y &&
  a.anchor === b.anchor &&
  a.designation === b.designation &&
  a.lines.join() === b.lines.join()
/** What was drawn last: an entry that has not changed stays the same object, and its part of the page is left alone. */
let drawnComponents = new Map<string, DrawnComponent>()
let drawnPipes = new Map<string, DrawnPipe>()
const components = computed<DrawnComponent[]>(() => {
  const list = shownSheet.value.components.flatMap((component) => {
    const kind = findKind(component.kind)
    const symbol = symbolOf(component)
    if (!kind || !symbol) return []
    const caption = captionOf(component)
    const last = drawnComponents.get(component.id)
    if (last && last.component === component && sameWords(last.caption, caption)) return [last]
    const rect = outline(component)
    const ports = placedPorts(component)
    const label = `${component.designation ?? component.id}, ${kind.label}`
    return [{ component, symbol, rect, ports, caption, label, leads: leadsOf(component, symbol, ports) }]
  })
  drawnComponents = new Map(list.map((d) => [d.component.id, d]))
  return list
})
const shownLines = (d: DrawnComponent) => (desk.settings ? d.caption.lines : [])
interface DrawnPipe {
  pipe: Pipe
  points: XY[]
  path: string
  arrow: ReturnType<typeof arrowPlace>
}
const pipes = computed<DrawnPipe[]>(() => {
  const list = shownSheet.value.pipes.map((pipe) => {
    const points = polyline(shownSheet.value, pipe)
    const path = points.map((p) => p.join()).join(' ')
    const last = drawnPipes.get(pipe.id)
    return last && last.pipe === pipe && last.path === path
      ? last
      : { pipe, points, path, arrow: arrowPlace(points) }
  })
  drawnPipes = new Map(list.map((d) => [d.pipe.id, d]))
  return list
})
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

// ---- tools --------------------------------------------------------------------------------
const pointer = shallowRef<XY>([0, 0])
const connecting = shallowRef<{ from: Target; at: XY; pipe?: string; which?: 'from' | 'to' }>()
const marquee = shallowRef<{ from: XY; to: XY }>()
let drag: { ids: string[]; from: XY; moved: [number, number]; started: boolean } | undefined

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
  drawing.apply(splice(sheet, id))
  drawing.select([id])
  desk.placing = undefined
  desk.say('')
  host.value?.focus()
}
function reveal(id: string) {
  const found = components.value.find((c) => c.component.id === id)
  if (found) return centre([found.component.x, found.component.y])
  const pipe = pipes.value.find((p) => p.pipe.id === id)
  if (pipe?.arrow) return centre([pipe.arrow.x, pipe.arrow.y])
  const joint = drawing.sheet.joints.find((j) => j.id === id)
  if (joint) centre([joint.x, joint.y])
}
defineExpose({
  fit,
  placeInMiddle: () => {
    const { width, height } = svg.value!.getBoundingClientRect()
    const middle: XY = [(width / 2 - view.x) / view.k, (height / 2 - view.y) / view.k]
    pointer.value = middle
  },
  reveal,
})
onMounted(() => {
  desk.view = { fit, zoomBy, reveal, pointer: () => pointer.value }
})

/** What a pipe could start from or end at under the pointer. */
function targetAt(event: PointerEvent): Target | undefined {
  const element = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-item]')
  const item = element?.getAttribute('data-item')
  if (!item) return undefined
  if (item.startsWith('port:')) {
    const [, component, port] = item.split(':')
    return { component, port }
  }
  if (item.startsWith('joint:')) return { joint: item.slice(6) }
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
  if ('joint' in target) {
    const joint = drawing.sheet.joints.find((j) => j.id === target.joint)!
    return [joint.x, joint.y]
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
    drag = { ids, from: pointer.value, moved: [0, 0], started: false }
    svg.value!.setPointerCapture(event.pointerId)
    return
  }
  if (event.shiftKey) {
    marquee.value = { from: pointer.value, to: pointer.value }
    svg.value!.setPointerCapture(event.pointerId)
  } else drawing.select([])
}
let pressedAt: XY = [0, 0]
function onPointerMove(event: PointerEvent) {
  pointer.value = toSheet(event)
  if (marquee.value) marquee.value = { ...marquee.value, to: pointer.value }
  if (!drag) return
  const by = toGrid([pointer.value[0] - drag.from[0], pointer.value[1] - drag.from[1]])
  if (by[0] === drag.moved[0] && by[1] === drag.moved[1]) return
  drag.moved = by
  drag.started = true
  preview.value = move(drawing.sheet, drag.ids, by[0], by[1])
}
function onPointerUp(event: PointerEvent) {
  if (drag) {
    const moved = preview.value
    preview.value = undefined
    if (moved && drag.started && (drag.moved[0] || drag.moved[1]))
      drawing.apply(drag.ids.length === 1 ? splice(moved, drag.ids[0]) : moved)
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
      ...drawing.sheet.joints.filter((j) => inside(j.x, j.y)).map((j) => j.id),
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
  if (!ids.length && (event.key === 'Enter' || event.key === ' ')) {
    // an item that only has the keyboard's focus is chosen with enter or space
    const focused = target.closest?.('[data-item]')?.getAttribute('data-item')?.split(':')[1]
    if (focused) drawing.select([focused])
    return !!focused
  }
  if (steps && ids.length) return (drawing.apply(move(drawing.sheet, ids, ...steps)), true)
  return press(event)
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
    const { width, height } = svg.value!.getBoundingClientRect()
    const middle: XY = [(width / 2 - view.x) / view.k, (height / 2 - view.y) / view.k]
    const far = ({ at }: { at: XY }) => Math.hypot(at[0] - middle[0], at[1] - middle[1])
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
const arrows: Record<string, [number, number] | undefined> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

const menuAt = ref<{ x: number; y: number }>()
function openMenu(event: MouseEvent) {
  if (props.running) return
  pointer.value = toSheet(event)
  const id = (event.target as Element).closest('[data-item]')?.getAttribute('data-item')?.split(':')[1]
  if (id && !drawing.selection.has(id)) drawing.select([id])
  menuAt.value = { x: event.clientX, y: event.clientY }
}

const selectedPipe = computed<Pipe | undefined>(() => {
  const [id] = drawing.selection
  return drawing.selection.size === 1 ? drawing.sheet.pipes.find((p) => p.id === id) : undefined
})
const pipeEnds = computed(() => {
  const pipe = selectedPipe.value
  if (!pipe || props.running) return []
  return (['from', 'to'] as const).map((which) => ({
    which,
    at: placeOf(pipe[which] as PipeEnd),
    pipe: pipe.id,
  }))
})

// ---- the run on the sheet -----------------------------------------------------------------
let painter: ((t: number) => void) | undefined
const shownRun = computed(() => (props.running && !run.outdated ? run.shown : undefined))
function repaint() {
  if (!svg.value) return
  if (painter) clearFrame(svg.value, drawing.sheet)
  const shown = shownRun.value
  painter =
    shown &&
    framePainter(svg.value, drawing.sheet, shown.result, {
      colours: rampColours(dark.value),
      full: desk.fullPressure,
      show: (si, signal) => show(si, shown.result.signals[signal].quantity, 3),
    })
  painter?.(run.time)
}
onMounted(repaint)
watch([shownRun, () => drawing.sheet, dark, () => desk.fullPressure, useUnits().system, preview], repaint, {
  flush: 'post',
})
watch(
  () => run.time,
  (t) => painter?.(t),
)

const line = (pipe: Pipe) => `line-${pipe.line}`
const describe = (pipe: Pipe) => {
  const end = (e: PipeEnd) =>
    'joint' in e ? `joint ${e.joint}` : placeText({ component: e.component, port: e.port })
  return `${pipe.name ?? 'Pipe'}, ${pipe.line} line from ${end(pipe.from)} to ${end(pipe.to)}`
}
</script>

<template>
  <div
    ref="host"
    class="sheet relative h-full w-full overflow-hidden bg-paper"
    :class="[{ running: !!shownRun }, desk.tool === 'connect' || desk.placing ? 'cursor-crosshair' : '']"
    tabindex="0"
    role="application"
    aria-label="Sheet"
    data-testid="sheet"
    @keydown="onKey"
  >
    <svg
      ref="svg"
      class="absolute inset-0 h-full w-full touch-none select-none"
      @pointerdown="onPointerDown"
      @pointermove="onPointerMove"
      @pointerup="onPointerUp"
      @pointercancel="onPointerUp"
      @contextmenu.prevent="openMenu"
    >
      <defs>
        <pattern id="module-grid" width="2" height="2" patternUnits="userSpaceOnUse">
          <circle cx="0" cy="0" r="0.07" class="grid-dot" />
        </pattern>
      </defs>
      <g ref="layer" class="layer">
        <rect
          v-if="!shownRun && scale >= GRID_FROM"
          x="-500"
          y="-500"
          width="1000"
          height="1000"
          fill="url(#module-grid)"
          pointer-events="none"
        />
        <g>
          <polyline
            v-for="d in pipes"
            :key="d.pipe.id"
            v-memo="[d]"
            :points="d.path"
            class="oil-pipe"
            :data-oil-pipe="d.pipe.id"
          />
          <g v-for="d in components" :key="d.component.id" v-memo="[d]">
            <polyline
              v-for="lead in d.leads"
              :key="lead.path"
              :points="lead.path"
              class="oil-pipe"
              :data-oil-lead="`${d.component.id}.${lead.port}`"
            />
          </g>
        </g>
        <g
          v-for="d in pipes"
          :key="d.pipe.id"
          v-memo="[d, marks.get(d.pipe.id)?.message, drawing.selection.has(d.pipe.id)]"
          :data-item="`pipe:${d.pipe.id}`"
          :data-pipe="d.pipe.id"
          class="pipe"
          :class="[line(d.pipe), markClass(d.pipe.id), { selected: drawing.selection.has(d.pipe.id) }]"
          role="button"
          tabindex="0"
          :aria-label="describe(d.pipe)"
        >
          <polyline :points="d.path" class="pipe-reach" />
          <polyline :points="d.path" class="pipe-line" />
          <polyline v-if="d.pipe.line === 'shaft'" :points="d.path" class="shaft-core" />
          <polyline v-if="d.pipe.line === 'hose'" :points="d.path" class="hose-mark" />
          <title>{{ marks.get(d.pipe.id)?.message ?? describe(d.pipe) }}</title>
        </g>
        <g
          v-for="joint in shownSheet.joints"
          :key="joint.id"
          :data-item="`joint:${joint.id}`"
          class="joint"
          :class="[markClass(joint.id), { selected: drawing.selection.has(joint.id) }]"
        >
          <circle :cx="joint.x" :cy="joint.y" r="0.9" class="joint-reach" />
          <circle :cx="joint.x" :cy="joint.y" r="0.375" class="joint-dot" />
        </g>
        <g v-for="d in pipes" :key="d.pipe.id" v-memo="[d]">
          <path
            v-if="d.arrow && lineDomain(d.pipe.line) === 'oil'"
            d="M-0.45 -0.5 L0.6 0 L-0.45 0.5 Z"
            class="flow-arrow"
            :data-flow="d.pipe.id"
            :style="{ '--x': `${d.arrow.x}px`, '--y': `${d.arrow.y}px`, '--turn': `${d.arrow.angle}deg` }"
          />
        </g>
        <g
          v-for="d in components"
          :key="d.component.id"
          v-memo="[
            d,
            marks.get(d.component.id)?.message,
            drawing.selection.has(d.component.id),
            !!shownRun,
            desk.settings,
            desk.portLetters,
          ]"
          :data-item="`component:${d.component.id}`"
          :data-component="d.component.id"
          :data-kind="d.component.kind"
          class="component"
          :class="[markClass(d.component.id), { selected: drawing.selection.has(d.component.id) }]"
          role="button"
          tabindex="0"
          :aria-label="d.label"
        >
          <title>{{ marks.get(d.component.id)?.message ?? d.label }}</title>
          <rect
            :x="d.rect.x - 0.5"
            :y="d.rect.y - 0.5"
            :width="d.rect.w + 1"
            :height="d.rect.h + 1"
            rx="0.3"
            class="component-reach"
          />
          <g :transform="`translate(${d.component.x} ${d.component.y})`">
            <SymbolShapes
              :drawing="d.symbol"
              :rotation="d.component.rotation"
              :mirrored="d.component.mirrored"
            />
          </g>
          <text :x="d.caption.x" :y="d.caption.y" :text-anchor="d.caption.anchor" class="caption">
            <tspan class="designation">{{ d.caption.designation }}</tspan>
            <tspan v-if="d.symbol.reading" dx="0.8" class="reading" data-reading="" />
            <tspan v-for="text in shownLines(d)" :key="text" :x="d.caption.x" :dy="LETTERING_LINE">
              {{ text }}
            </tspan>
          </text>
          <g v-if="!shownRun">
            <g
              v-for="port in d.ports"
              :key="port.port"
              :data-item="`port:${d.component.id}:${port.port}`"
              class="port"
            >
              <circle :cx="port.at[0]" :cy="port.at[1]" r="0.8" class="port-reach" />
              <circle :cx="port.at[0]" :cy="port.at[1]" r="0.35" class="port-dot" />
              <title>{{ d.component.designation ?? d.component.id }} port {{ port.port }}</title>
              <text
                v-if="desk.portLetters"
                class="port-letter"
                :x="port.at[0] + (port.side === 'left' ? -0.5 : 0.5)"
                :y="port.at[1] + (port.side === 'down' ? 1.1 : -0.4)"
                :text-anchor="port.side === 'left' ? 'end' : 'start'"
              >
                {{ port.port }}
              </text>
            </g>
          </g>
        </g>
        <g
          v-for="{ which, at, pipe } in pipeEnds"
          :key="which"
          :data-item="`end:${pipe}:${which}`"
          class="pipe-end"
        >
          <rect :x="at[0] - 0.5" :y="at[1] - 0.5" width="1" height="1" />
          <title>Drag to lead this end elsewhere</title>
        </g>
        <g
          v-for="{ id, mark, at } in signs"
          :key="id"
          class="sign"
          :class="mark.severity"
          pointer-events="none"
        >
          <circle :cx="at[0]" :cy="at[1]" r="0.85" />
          <text :x="at[0]" :y="at[1] + 0.05">!</text>
        </g>
        <g v-if="ghost" class="ghost" :transform="`translate(${ghost.component.x} ${ghost.component.y})`">
          <SymbolShapes
            :drawing="ghost.symbol"
            :rotation="ghost.component.rotation"
            :mirrored="ghost.component.mirrored"
          />
        </g>
        <circle v-if="cursor" class="port-cursor" :cx="cursor.at[0]" :cy="cursor.at[1]" r="0.9" />
        <line
          v-if="connecting"
          class="rubber"
          :x1="connecting.at[0]"
          :y1="connecting.at[1]"
          :x2="pointer[0]"
          :y2="pointer[1]"
        />
        <rect
          v-if="marquee"
          class="marquee"
          :x="Math.min(marquee.from[0], marquee.to[0])"
          :y="Math.min(marquee.from[1], marquee.to[1])"
          :width="Math.abs(marquee.to[0] - marquee.from[0])"
          :height="Math.abs(marquee.to[1] - marquee.from[1])"
        />
      </g>
    </svg>
    <SheetMenu v-if="menuAt" :at="menuAt" @close="((menuAt = undefined), host?.focus())" />
    <p class="sr-only" role="status">{{ cursorWords }}</p>
    <slot />
  </div>
</template>

<style>
.sheet .layer {
  transform-origin: 0 0;
}
.sheet .grid-dot {
  fill: var(--rule);
}
.component-reach,
.pipe-reach,
.joint-reach,
.port-reach {
  fill: transparent;
  stroke: none;
}
.component {
  outline: none;
  cursor: move;
}
.component:focus-visible > .component-reach,
.component:hover > .component-reach {
  stroke: var(--rule);
  stroke-width: 0.12;
}
.component:focus-visible > .component-reach {
  stroke: var(--accent);
}
.component.selected > .component-reach {
  fill: var(--accent-paper);
  stroke: var(--accent);
  stroke-width: 0.12;
  fill-opacity: 0.6;
}
.running .component {
  cursor: pointer;
}
.caption {
  font-family: var(--font-lettering);
  font-size: 1.2px;
  fill: var(--soft);
}
.caption .designation {
  fill: var(--ink);
  font-weight: 500;
}
.caption .reading {
  fill: var(--accent);
  font-weight: 500;
}
.pipe {
  outline: none;
  cursor: pointer;
}
.pipe-reach {
  stroke: transparent !important;
  stroke-width: 1.1 !important;
  fill: none !important;
  pointer-events: stroke;
}
.pipe-line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.12;
  pointer-events: none;
}
.line-pilot .pipe-line,
.line-drain .pipe-line {
  stroke-dasharray: 0.6 0.35;
  stroke-width: 0.1;
}
/* a flexible hose: the working line with the swell of a hose beside it */
.hose-mark {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.1;
  stroke-dasharray: 0.2 0.6;
  transform: translate(0.35px, 0.35px);
  pointer-events: none;
}
.line-rod .pipe-line {
  stroke-dasharray: 1.1 0.3 0.25 0.3;
  stroke-width: 0.14;
}
.line-shaft .pipe-line {
  stroke-width: 0.62;
}
.shaft-core {
  fill: none;
  stroke: var(--paper);
  stroke-width: 0.4;
  pointer-events: none;
}
.line-shaft .pipe-reach {
  stroke-width: 1.4 !important;
}
.pipe:hover .pipe-line,
.pipe:focus-visible .pipe-line {
  stroke: var(--accent);
}
.pipe.selected .pipe-line {
  stroke: var(--accent);
  stroke-width: 0.28;
}
.oil-pipe {
  fill: none;
  stroke: var(--oil, transparent);
  stroke-width: 0.62;
  stroke-linejoin: round;
  pointer-events: none;
}
.oil-pipe.starved {
  stroke-dasharray: 0.5 0.5;
  stroke: var(--caution);
}
.symbol .oil.starved {
  fill: none;
  stroke: var(--caution);
  stroke-dasharray: 0.4 0.4;
}
.joint-dot {
  fill: var(--ink);
}
.joint.selected .joint-dot {
  fill: var(--accent);
}
.joint-reach:hover + .joint-dot {
  fill: var(--accent);
}
.port {
  cursor: crosshair;
}
.port-dot {
  fill: var(--paper);
  stroke: var(--accent);
  stroke-width: 0.14;
  opacity: 0;
}
.component:hover .port-dot,
.component.selected .port-dot,
.component:focus-visible .port-dot,
.cursor-crosshair .port-dot {
  opacity: 1;
}
.port:hover .port-dot {
  fill: var(--accent);
}
.port-letter {
  font-family: var(--font-lettering);
  font-size: 1px;
  fill: var(--soft);
  pointer-events: none;
}
.port-cursor {
  fill: none;
  stroke: var(--accent);
  stroke-width: 0.25;
  pointer-events: none;
}
.pipe-end rect {
  fill: var(--paper);
  stroke: var(--accent);
  stroke-width: 0.16;
  cursor: grab;
}
.marked-error > .component-reach {
  stroke: var(--error);
  stroke-width: 0.2;
}
.marked-warning > .component-reach {
  stroke: var(--caution);
  stroke-width: 0.16;
  stroke-dasharray: 0.8 0.5;
}
.pipe.marked-error .pipe-line {
  stroke: var(--error);
  stroke-width: 0.3;
}
.pipe.marked-warning .pipe-line {
  stroke: var(--caution);
}
.joint.marked-error .joint-dot {
  fill: var(--error);
}
.sign circle {
  fill: var(--error);
}
.sign.warning circle {
  fill: var(--caution);
}
.sign text {
  fill: var(--paper);
  font-size: 1.35px;
  font-weight: 600;
  text-anchor: middle;
  dominant-baseline: central;
}
.ghost {
  opacity: 0.55;
  pointer-events: none;
}
.ghost .symbol {
  stroke: var(--accent);
}
.rubber {
  stroke: var(--accent);
  stroke-width: 0.2;
  stroke-dasharray: 0.7 0.4;
  pointer-events: none;
}
.marquee {
  fill: var(--accent);
  fill-opacity: 0.08;
  stroke: var(--accent);
  stroke-width: 0.1;
}
.flow-arrow {
  fill: var(--ink);
  stroke: var(--paper);
  stroke-width: 0.16;
  visibility: hidden;
  pointer-events: none;
  transform: translate(var(--x), var(--y)) rotate(var(--turn));
}
.flow-arrow[data-way='1'] {
  visibility: visible;
}
.flow-arrow[data-way='-1'] {
  visibility: visible;
  transform: translate(var(--x), var(--y)) rotate(var(--turn)) rotate(180deg);
}
</style>
