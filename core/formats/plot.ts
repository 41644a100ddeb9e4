/**
 * A sheet as strokes and letters, ready for any drawing format: symbols as they lie on the sheet, pipes by line kind,
 * junctions, lettering. Coordinates in modules of 2.5 mm, y down.
 */
import type { Show } from '../catalogue/kind'
import type { Shape } from '../catalogue/symbol'
import { extent, transformPoint, polyline, symbolOf, type Rect, type XY } from '../sheet/geometry'
import { DOT_RADIUS } from '../catalogue/symbol-elements'
import { branches } from '../sheet/branches'
import { hoseOf } from '../sheet/hose'
import { labels, LETTERING, LETTERING_LINE, lineNames, textWidth } from '../sheet/lettering'
import type { Pipe, Sheet, SheetComponent } from '../sheet/schema'

/** Millimetres to a module. */
export const MODULE = 2.5

export const layers = ['working', 'pilot', 'drain', 'hose', 'shaft', 'rod', 'symbols', 'lettering'] as const
export type Layer = (typeof layers)[number]

/** Line width in modules: 0.25 mm. */
export const THIN = 0.1
/** Lengths of marks and gaps, in modules. */
export const dashes: Readonly<Record<'pilot' | 'chain', readonly number[]>> = {
  pilot: [0.6, 0.35],
  chain: [1.4, 0.3, 0.2, 0.3],
}

/** Letters with their anchor; those of symbols are centred. */
export interface Letters {
  readonly shape: 'letters'
  readonly at: XY
  readonly text: string
  readonly size: number
  readonly anchor: 'start' | 'middle' | 'end'
  /** Whether `at` is on the baseline or at half the height. */
  readonly on: 'baseline' | 'middle'
}
export type DrawnShape = Exclude<Shape, { shape: 'text' } | { shape: 'oil' }> | Letters
export interface Stroke {
  readonly layer: Layer
  readonly ink: DrawnShape
  readonly width: number
}

/** A symbol as drawn, to be put at (x, y): one of a kind, values, turn and mirroring is one block. */
export interface PlotSymbol {
  readonly component: string
  readonly block: string
  readonly x: number
  readonly y: number
}

export interface Plot {
  readonly title: string
  readonly blocks: ReadonlyMap<string, readonly DrawnShape[]>
  readonly symbols: readonly PlotSymbol[]
  readonly strokes: readonly Stroke[]
  /** Around all that is drawn, lettering estimated. */
  readonly bounds: Rect
}

/** Shapes of an unplaced symbol as they lie turned and mirrored, round (0, 0); text upright. */
function turned(component: SheetComponent, shapes: readonly Shape[]): DrawnShape[] {
  const at = { x: 0, y: 0, rotation: component.rotation, mirrored: component.mirrored }
  const put = (p: XY) => transformPoint(p, at)
  return shapes.flatMap((shape): DrawnShape[] => {
    switch (shape.shape) {
      case 'line':
      case 'polygon':
        return [{ ...shape, points: shape.points.map(put) }]
      case 'circle':
        return [{ ...shape, at: put(shape.at) }]
      case 'arc': {
        const turn = 90 * component.rotation
        const [from, to] = component.mirrored ? [180 - shape.to, 180 - shape.from] : [shape.from, shape.to]
        return [{ ...shape, at: put(shape.at), from: from + turn, to: to + turn }]
      }
      case 'text':
        return [
          {
            shape: 'letters',
            at: put(shape.at),
            text: shape.text,
            size: shape.size,
            anchor: 'middle',
            on: 'middle',
          },
        ]
      case 'oil':
        return []
    }
  })
}

const dashOf = (line: Pipe['lineType']) =>
  line === 'pilot' || line === 'drain' ? 'pilot' : line === 'rod' ? 'chain' : undefined

/** The strokes of a pipe: a shaft is two lines beside each other, a hose hangs through. */
function pipeStrokes(points: readonly XY[], pipe: Pipe): Stroke[] {
  const layer = pipe.lineType
  const dash = dashOf(pipe.lineType)
  const stroke = (inked: readonly XY[]): Stroke => ({
    layer,
    width: THIN,
    ink: { shape: 'line', points: inked, ...(dash ? { dash } : {}) },
  })
  const hose = pipe.lineType === 'hose' ? hoseOf(points) : undefined
  if (hose) return hose.shapes.map((ink) => ({ layer, width: THIN, ink }))
  if (pipe.lineType === 'shaft') return [stroke(beside(points, 0.25)), stroke(beside(points, -0.25))]
  return [stroke(points)]
}

/** A polyline moved to its left by d; its parts are at right angles. */
function beside(points: readonly XY[], d: number): XY[] {
  const normal = (i: number): XY => {
    const [a, b] = [points[i], points[i + 1]]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1
    return [((b[1] - a[1]) / length) * d, (-(b[0] - a[0]) / length) * d]
  }
  return points.map(([x, y], i): XY => {
    const before = normal(Math.max(0, i - 1))
    const after = normal(Math.min(points.length - 2, i))
    const straight = before[0] === after[0] && before[1] === after[1]
    return straight ? [x + after[0], y + after[1]] : [x + before[0] + after[0], y + before[1] + after[1]]
  })
}

/** What is written: settings beside the symbols (unless false), names of lines (where true). */
export interface PlotOptions {
  readonly settings?: boolean
  readonly lineNames?: boolean
}

export function plotSheet(sheet: Sheet, show: Show, options: PlotOptions = {}): Plot {
  const blocks = new Map<string, DrawnShape[]>()
  const names = new Map<string, string>()
  const symbols: PlotSymbol[] = []
  const strokes: Stroke[] = []
  const words = labels(sheet, show)
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    if (points.length > 1) strokes.push(...pipeStrokes(points, pipe))
  }
  const dots = [...sheet.junctions.map(({ x, y }): XY => [x, y]), ...branches(sheet).map(({ at }) => at)]
  for (const at of dots)
    strokes.push({
      layer: 'working',
      width: THIN,
      ink: { shape: 'circle', at, r: DOT_RADIUS, fill: 'ink' },
    })
  for (const component of sheet.components) {
    const symbol = symbolOf(component)
    if (!symbol) continue
    const inked = turned(component, symbol.shapes)
    const key = JSON.stringify(inked)
    let block = names.get(key)
    if (!block) {
      const same = [...names.values()].filter((name) => name.startsWith(`${component.kind}-`)).length
      block = `${component.kind}-${same + 1}`
      names.set(key, block)
      blocks.set(block, inked)
    }
    symbols.push({ component: component.id, block, x: component.x, y: component.y })
    const written = words.get(component.id)
    if (!written) continue
    const lines = [written.designation, ...(options.settings === false ? [] : written.lines)]
    lines.forEach((text, i) =>
      strokes.push({
        layer: 'lettering',
        width: THIN,
        ink: {
          shape: 'letters',
          at: [written.x, written.y + i * LETTERING_LINE],
          text,
          size: LETTERING,
          anchor: written.anchor,
          on: 'baseline',
        },
      }),
    )
  }
  for (const { text, x, y, anchor } of options.lineNames ? lineNames(sheet) : [])
    strokes.push({
      layer: 'lettering',
      width: THIN,
      ink: { shape: 'letters', at: [x, y], text, size: LETTERING, anchor, on: 'baseline' },
    })
  return { title: sheet.title, blocks, symbols, strokes, bounds: boundsOf(sheet, strokes) }
}

function boundsOf(sheet: Sheet, strokes: readonly Stroke[]): Rect {
  const drawn = extent(sheet)
  let [left, top, right, bottom] = [drawn.x, drawn.y, drawn.x + drawn.w, drawn.y + drawn.h]
  for (const { ink } of strokes) {
    if (ink.shape !== 'letters') continue
    const width = textWidth(ink.text, ink.size)
    const start = ink.at[0] - (ink.anchor === 'start' ? 0 : ink.anchor === 'middle' ? width / 2 : width)
    left = Math.min(left, start)
    right = Math.max(right, start + width)
    top = Math.min(top, ink.at[1] - ink.size)
    bottom = Math.max(bottom, ink.at[1] + 0.3 * ink.size)
  }
  return { x: left, y: top, w: right - left, h: bottom - top }
}

/** All strokes in sheet coordinates, symbols among them: for formats without blocks. */
export function allStrokes(plot: Plot): Stroke[] {
  const moved = (ink: DrawnShape, dx: number, dy: number): DrawnShape =>
    ink.shape === 'line' || ink.shape === 'polygon'
      ? { ...ink, points: ink.points.map(([x, y]): XY => [x + dx, y + dy]) }
      : { ...ink, at: [ink.at[0] + dx, ink.at[1] + dy] }
  const symbols = plot.symbols.flatMap(({ block, x, y }) =>
    plot.blocks.get(block)!.map((ink): Stroke => ({ layer: 'symbols', width: THIN, ink: moved(ink, x, y) })),
  )
  // lettering last: nothing covers it
  const isText = (stroke: Stroke) => stroke.layer === 'lettering'
  return [...plot.strokes.filter((s) => !isText(s)), ...symbols, ...plot.strokes.filter(isText)]
}
