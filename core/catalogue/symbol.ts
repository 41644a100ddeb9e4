/**
 * Symbol geometry as data, in modules (M = 2.5 mm), y downwards, origin at the symbol's
 * centre. One description serves the screen and every drawing format.
 */
export type Side = 'left' | 'right' | 'up' | 'down'

interface Stroke {
  readonly dash?: 'pilot' | 'drain' | 'chain'
  /** Name of a moving part; the part's movement is in SymbolDrawing.parts. */
  readonly part?: string
  /** Keeps its direction round this point however the symbol is turned or mirrored: an adjusting arrow. */
  readonly upright?: Point
}
export interface Polyline extends Stroke {
  readonly shape: 'line'
  readonly points: readonly (readonly [number, number])[]
}
export interface Polygon extends Stroke {
  readonly shape: 'polygon'
  readonly points: readonly (readonly [number, number])[]
  readonly fill: 'ink' | 'paper' | 'none'
}
export interface Circle extends Stroke {
  readonly shape: 'circle'
  readonly at: readonly [number, number]
  readonly r: number
  readonly fill: 'ink' | 'paper' | 'none'
}
export interface Arc extends Stroke {
  readonly shape: 'arc'
  readonly at: readonly [number, number]
  readonly r: number
  /** Degrees, clockwise from the right, as seen on the sheet. */
  readonly from: number
  readonly to: number
}
export interface Lettering extends Stroke {
  readonly shape: 'text'
  readonly at: readonly [number, number]
  readonly text: string
  readonly size: number
}
/** An oil-filled area of the symbol, coloured by the pressure of a port's line. */
export interface OilArea extends Stroke {
  readonly shape: 'oil'
  readonly port: string
  readonly at: readonly [number, number]
  readonly size: readonly [number, number]
  /** Which way it grows or shrinks with the part's movement. */
  readonly stretch?: { readonly part: string; readonly edge: 'left' | 'right' }
}
export type Shape = Polyline | Polygon | Circle | Arc | Lettering | OilArea

/** A part that moves along x with a recorded signal of the component. */
export interface MovingPart {
  readonly signal: string
  /** M of movement at signal value 0 and at `full`. */
  readonly zero: number
  readonly travel: number
  readonly full: number
  /** It is stretched between the end that moves and one that does not, x at rest: a spring. Without it the part moves as it is. */
  readonly between?: { readonly moving: number; readonly fixed: number }
}

export interface SymbolDrawing {
  readonly shapes: readonly Shape[]
  /** Whole-module positions at which lines meet the symbol, and the side they leave to. */
  readonly ports: Readonly<Record<string, { x: number; y: number; side: Side }>>
  /** Outline kept free by the router. */
  readonly box: { x: number; y: number; w: number; h: number }
  readonly parts?: Readonly<Record<string, MovingPart>>
  /** Where designation and captions start on an unturned symbol; else beside the outline. */
  readonly captionAt?: { readonly x: number; readonly y: number; readonly anchor: 'start' | 'middle' | 'end' }
  /** Where the letters of coils are written. */
  readonly coils?: Readonly<Partial<Record<'a' | 'b', { readonly x: number; readonly y: number }>>>
  /** State or output whose value is shown beside the symbol during a run. */
  readonly reading?: string
}

/** An arc as SVG path data. @param number writes a number */
export function arcData({ at, r, from, to }: Arc, number: (x: number) => string = String): string {
  const end = (degrees: number) => {
    const a = (degrees * Math.PI) / 180
    return `${number(at[0] + r * Math.cos(a))},${number(at[1] + r * Math.sin(a))}`
  }
  const large = Math.abs(to - from) > 180 ? 1 : 0
  return `M${end(from)} A${number(r)},${number(r)} 0 ${large} ${to > from ? 1 : 0} ${end(to)}`
}

export type Point = readonly [number, number]
export const line = (...points: Point[]): Polyline => ({ shape: 'line', points })
export const dashed = (...points: Point[]): Polyline => ({ shape: 'line', points, dash: 'pilot' })
/** A drain line within a symbol. */
export const drained = (...points: Point[]): Polyline => ({ shape: 'line', points, dash: 'drain' })
export const polygon = (fill: Polygon['fill'], ...points: Point[]): Polygon => ({
  shape: 'polygon',
  points,
  fill,
})
export const rectangle = (
  x: number,
  y: number,
  w: number,
  h: number,
  fill: Polygon['fill'] = 'paper',
): Polygon => polygon(fill, [x, y], [x + w, y], [x + w, y + h], [x, y + h])
export const circle = (x: number, y: number, r: number, fill: Circle['fill'] = 'paper'): Circle => ({
  shape: 'circle',
  at: [x, y],
  r,
  fill,
})
export const text = (x: number, y: number, value: string, size = 1): Lettering => ({
  shape: 'text',
  at: [x, y],
  text: value,
  size,
})

/** A filled arrow head whose tip is at (x, y), pointing along (dx, dy). */
export function arrowHead(x: number, y: number, dx: number, dy: number, size = 0.9): Polygon {
  const length = Math.hypot(dx, dy)
  const [ux, uy] = [dx / length, dy / length]
  const [bx, by] = [x - ux * size, y - uy * size]
  const half = size * 0.32
  return polygon('ink', [x, y], [bx - uy * half, by + ux * half], [bx + uy * half, by - ux * half])
}
/** A line with an arrow head at its last point. */
export function arrow(...points: Point[]): Shape[] {
  const [a, b] = points.slice(-2)
  return [line(...points), arrowHead(b[0], b[1], b[0] - a[0], b[1] - a[1])]
}
/** Moves shapes by (dx, dy). */
export function shifted(shapes: readonly Shape[], dx: number, dy: number): Shape[] {
  const move = (p: Point): Point => [p[0] + dx, p[1] + dy]
  return shapes.map((s) =>
    s.shape === 'line' || s.shape === 'polygon'
      ? { ...s, points: s.points.map(move), ...(s.upright ? { upright: move(s.upright) } : {}) }
      : { ...s, at: move(s.at) },
  )
}
/** Mirrors shapes left and right about x = 0; arcs as well. */
export function mirroredShapes(shapes: readonly Shape[]): Shape[] {
  const mirror = (p: Point): Point => [-p[0], p[1]]
  return shapes.map((s) =>
    s.shape === 'line' || s.shape === 'polygon'
      ? { ...s, points: s.points.map(mirror), ...(s.upright ? { upright: mirror(s.upright) } : {}) }
      : s.shape === 'arc'
        ? { ...s, at: mirror(s.at), from: 180 - s.to, to: 180 - s.from }
        : { ...s, at: mirror(s.at) },
  )
}
/** Marks shapes as belonging to a moving part. */
export const partOf = (part: string, shapes: readonly Shape[]): Shape[] => shapes.map((s) => ({ ...s, part }))
