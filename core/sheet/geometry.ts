/** Where things are on the sheet: placed ports, outlines, pipe polylines. Modules, y down. */
import { findKind } from '../catalogue'
import type { Parameter } from '../catalogue/kind'
import type { Side, SymbolDrawing } from '../catalogue/symbol'
import { memoized } from './memoized'
import { readParameter, type Value } from './resolve'
import type { Pipe, PipeEnd, Sheet, SheetComponent } from './schema'

export type XY = readonly [number, number]
export interface Rect {
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
}

type Placement = Pick<SheetComponent, 'x' | 'y' | 'rotation' | 'mirrored'>

const CLOCKWISE: readonly Side[] = ['right', 'down', 'left', 'up']
export const sideVector: Readonly<Record<Side, XY>> = {
  right: [1, 0],
  down: [0, 1],
  left: [-1, 0],
  up: [0, -1],
}

/** A point of the symbol as it lies on the sheet: mirrored, turned, moved. */
export function transformPoint(point: XY, at: Placement): XY {
  let [x, y] = point
  if (at.mirrored) x = -x
  for (let i = 0; i < at.rotation; i++) [x, y] = [-y, x]
  return [x + at.x, y + at.y]
}

export function transformSide(side: Side, at: Placement): Side {
  const mirrored = at.mirrored && (side === 'left' || side === 'right')
  const own = mirrored ? (side === 'left' ? 'right' : 'left') : side
  return CLOCKWISE[(CLOCKWISE.indexOf(own) + at.rotation) % 4]
}

export function transformRect(rect: Rect, at: Placement): Rect {
  const [x1, y1] = transformPoint([rect.x, rect.y], at)
  const [x2, y2] = transformPoint([rect.x + rect.w, rect.y + rect.h], at)
  return { x: Math.min(x1, x2), y: Math.min(y1, y2), w: Math.abs(x2 - x1), h: Math.abs(y2 - y1) }
}

/** Parameter values for drawing and captions: one that does not read counts as its default. */
export const valuesOrDefaults = memoized((component: SheetComponent): Readonly<Record<string, Value>> => {
  const values: Record<string, Value> = {}
  const parameters: Readonly<Record<string, Parameter>> = findKind(component.kind)?.parameters ?? {}
  for (const [name, parameter] of Object.entries(parameters)) {
    const own = readParameter(parameter, component.parameters[name])
    const read = 'value' in own ? own : readParameter(parameter, undefined)
    if ('value' in read) values[name] = read.value
  }
  return values
})

/** Symbols by what they depend on: components that only moved, or came as a copy, keep the symbol that was computed. */
const drawings = new Map<string, SymbolDrawing>()
const MOST_DRAWINGS = 3000

/** The symbol of a component; values that do not read fall back to their defaults. */
export const symbolOf = memoized((component: SheetComponent): SymbolDrawing | undefined => {
  const kind = findKind(component.kind)
  if (!kind) return undefined
  const { form = 'simplified', rotation, mirrored, parameters } = component
  const key = JSON.stringify([component.kind, form, rotation, mirrored, parameters])
  let drawing = drawings.get(key)
  if (!drawing) {
    drawing = withUprightShapes(kind.symbol(valuesOrDefaults(component), form), component)
    if (drawings.size >= MOST_DRAWINGS) drawings.clear()
    drawings.set(key, drawing)
  }
  return drawing
})

/** What keeps its direction is turned back beforehand, so that it is right where the symbol is drawn turned. */
function withUprightShapes(
  drawing: SymbolDrawing,
  at: Pick<Placement, 'rotation' | 'mirrored'>,
): SymbolDrawing {
  if (!at.rotation && !at.mirrored) return drawing
  const turnedBack = ([x, y]: XY, [px, py]: XY): XY => {
    const back = { x: 0, y: 0, rotation: ((4 - at.rotation) % 4) as Placement['rotation'], mirrored: false }
    const [dx, dy] = transformPoint([x - px, y - py], back)
    return [px + (at.mirrored ? -dx : dx), py + dy]
  }
  const shapes = drawing.shapes.map((shape) =>
    (shape.shape === 'line' || shape.shape === 'polygon') && shape.upright
      ? { ...shape, points: shape.points.map((point) => turnedBack(point, shape.upright!)) }
      : shape,
  )
  return { ...drawing, shapes }
}

export interface PlacedPort {
  readonly port: string
  readonly at: XY
  readonly side: Side
}
export const placedPorts = memoized((component: SheetComponent): readonly PlacedPort[] =>
  Object.entries(symbolOf(component)?.ports ?? {}).map(([port, p]) => ({
    port,
    at: transformPoint([p.x, p.y], component),
    side: transformSide(p.side, component),
  })),
)

export const outline = memoized((component: SheetComponent): Rect =>
  transformRect(symbolOf(component)?.box ?? { x: -2, y: -2, w: 4, h: 4 }, component),
)

const byId = memoized(
  <T extends { id: string }>(list: readonly T[]): ReadonlyMap<string, T> =>
    new Map(list.map((item) => [item.id, item])),
) as <T extends { id: string }>(list: readonly T[]) => ReadonlyMap<string, T>

const junctionOrComponent = (sheet: Sheet, end: PipeEnd) =>
  'junction' in end ? byId(sheet.junctions).get(end.junction) : byId(sheet.components).get(end.component)

/** Where an end of a pipe is, and to which side a line leaves it (none for a junction). */
export function endAt(sheet: Sheet, end: PipeEnd): { at: XY; side?: Side } | undefined {
  if ('junction' in end) {
    const junction = byId(sheet.junctions).get(end.junction)
    return junction && { at: [junction.x, junction.y] }
  }
  const component = byId(sheet.components).get(end.component)
  const port = component && placedPorts(component).find((p) => p.port === end.port)
  return port && { at: port.at, side: port.side }
}

/** The points of each pipe with what they were computed from; they are valid as long as that is the same. */
const knownPolylines = new WeakMap<Pipe, { from: unknown; to: unknown; points: readonly XY[] }>()

/** All corners of a pipe, ends included. */
export function polyline(sheet: Sheet, pipe: Pipe): readonly XY[] {
  const from = junctionOrComponent(sheet, pipe.from)
  const to = junctionOrComponent(sheet, pipe.to)
  const known = knownPolylines.get(pipe)
  if (known && known.from === from && known.to === to) return known.points
  const [start, goal] = [endAt(sheet, pipe.from), endAt(sheet, pipe.to)]
  const points = [...(start ? [start.at] : []), ...pipe.route, ...(goal ? [goal.at] : [])]
  knownPolylines.set(pipe, { from, to, points })
  return points
}

export const polylineLength = (points: readonly XY[]) =>
  points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - points[i][0], p[1] - points[i][1]), 0)

/** The point so far along a polyline; its end where it is shorter. */
export function alongPolyline(points: readonly XY[], far: number): XY {
  let left = far
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [points[i], points[i + 1]]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (length > 0 && length >= left)
      return [a[0] + ((b[0] - a[0]) * left) / length, a[1] + ((b[1] - a[1]) * left) / length]
    left -= length
  }
  return points[points.length - 1]
}

/** The longest straight part of a polyline, from the corner of an index to the next; none where it has no length. */
export function longestPart(points: readonly XY[]) {
  let best: { a: XY; b: XY; length: number; index: number } | undefined
  for (let index = 0; index + 1 < points.length; index++) {
    const [a, b] = [points[index], points[index + 1]]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1])
    if (length > (best?.length ?? 0)) best = { a, b, length, index }
  }
  return best
}

/** Drops corners that are no corners. */
export function simplify(points: readonly XY[]): XY[] {
  const result: XY[] = []
  for (const p of points) {
    const last = result[result.length - 1]
    if (last && last[0] === p[0] && last[1] === p[1]) continue
    const before = result[result.length - 2]
    if (
      last &&
      before &&
      ((before[0] === last[0] && last[0] === p[0] && (last[1] - before[1]) * (p[1] - last[1]) > 0) ||
        (before[1] === last[1] && last[1] === p[1] && (last[0] - before[0]) * (p[0] - last[0]) > 0))
    )
      result.pop()
    result.push(p)
  }
  return result
}

/** The point of a polyline nearest to a given one, on the grid, and the segment it lies on. */
export function nearestOn(points: readonly XY[], to: XY): { at: XY; segment: number; distance: number } {
  let best = { at: points[0], segment: 0, distance: Infinity }
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [points[i], points[i + 1]]
    const clamp = (v: number, m: number, n: number) => Math.min(Math.max(v, Math.min(m, n)), Math.max(m, n))
    const at: XY = [clamp(Math.round(to[0]), a[0], b[0]), clamp(Math.round(to[1]), a[1], b[1])]
    const distance = Math.hypot(at[0] - to[0], at[1] - to[1])
    if (distance < best.distance) best = { at, segment: i, distance }
  }
  return best
}

/** The rectangle around everything drawn. */
export function extent(sheet: Sheet): Rect {
  const xs: number[] = []
  const ys: number[] = []
  for (const c of sheet.components) {
    const r = outline(c)
    xs.push(r.x, r.x + r.w)
    ys.push(r.y, r.y + r.h)
    for (const p of placedPorts(c)) {
      xs.push(p.at[0])
      ys.push(p.at[1])
    }
  }
  for (const p of sheet.pipes)
    for (const [x, y] of polyline(sheet, p)) {
      xs.push(x)
      ys.push(y)
    }
  if (!xs.length) return { x: -40, y: -25, w: 80, h: 50 }
  const x = Math.min(...xs)
  const y = Math.min(...ys)
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y }
}

/** The rectangle around all that a symbol draws, unturned. */
export function symbolBounds(symbol: SymbolDrawing): Rect {
  const xs = [symbol.box.x, symbol.box.x + symbol.box.w]
  const ys = [symbol.box.y, symbol.box.y + symbol.box.h]
  for (const shape of symbol.shapes) {
    const points = 'points' in shape ? shape.points : [shape.at]
    const reach = shape.shape === 'circle' || shape.shape === 'arc' ? shape.r : 0
    for (const [x, y] of points) {
      xs.push(x - reach, x + reach)
      ys.push(y - reach, y + reach)
    }
  }
  const [x, y] = [Math.min(...xs), Math.min(...ys)]
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y }
}

/** A rectangle around each straight part, circle, arc and area that a component draws, as it lies on the sheet. */
export const drawnBoxes = memoized((component: SheetComponent): readonly Rect[] => {
  const along = (points: readonly XY[]) =>
    points.slice(1).map(([x, y], i): Rect => {
      const [a, b] = points[i]
      return { x: Math.min(a, x), y: Math.min(b, y), w: Math.abs(x - a), h: Math.abs(y - b) }
    })
  const boxes = (symbolOf(component)?.shapes ?? []).flatMap((shape): Rect[] => {
    switch (shape.shape) {
      case 'line':
        return along(shape.points)
      case 'polygon': {
        if (shape.fill === 'none') return along([...shape.points, shape.points[0]])
        const [xs, ys] = [0, 1].map((k) => shape.points.map((p) => p[k]))
        const [x, y] = [Math.min(...xs), Math.min(...ys)]
        return [{ x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y }]
      }
      case 'circle':
      case 'arc': {
        const { at, r } = shape
        return [{ x: at[0] - r, y: at[1] - r, w: 2 * r, h: 2 * r }]
      }
      case 'text':
      case 'oil':
        return []
    }
  })
  return boxes.map((rect) => transformRect(rect, component))
})

/** The rectangle around all that a component draws, as it lies on the sheet. */
export const boundsOnSheet = memoized((component: SheetComponent): Rect => {
  const symbol = symbolOf(component)
  return symbol ? transformRect(symbolBounds(symbol), component) : outline(component)
})

interface End {
  readonly at: XY
  readonly side?: Side
}
/**
 * The corners of a pipe whose ends have moved, its shape kept: the parts next to the ends are stretched.
 * @param points the pipe before, ends included
 * @returns none where that would make a slanting part, or lead through the symbol at an end
 */
export function stretchRoute(points: readonly XY[], from: End, to: End): XY[] | undefined {
  const moved = points.map((p): XY => p)
  const last = points.length - 1
  const pull = (end: number, next: number, at: XY) => {
    const level = points[end][1] === points[next][1]
    moved[end] = at
    if (next !== 0 && next !== last) moved[next] = level ? [moved[next][0], at[1]] : [at[0], moved[next][1]]
  }
  pull(0, 1, from.at)
  pull(last, last - 1, to.at)
  const straight = moved.every((p, i) => i === 0 || p[0] === moved[i - 1][0] || p[1] === moved[i - 1][1])
  const leaves = (end: End, next: XY) => {
    if (!end.side) return true
    const [x, y] = sideVector[end.side]
    return (next[0] - end.at[0]) * x + (next[1] - end.at[1]) * y > 0
  }
  if (!straight || !leaves(from, moved[1]) || !leaves(to, moved[last - 1])) return undefined
  return simplify(moved).slice(1, -1)
}
