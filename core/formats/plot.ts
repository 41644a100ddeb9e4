/**
 * A sheet as strokes and letters, ready for any drawing format: symbols as they lie on the sheet, pipes by line kind,
 * junctions, lettering. Coordinates in modules of 2.5 mm, y down.
 */
import type { Show } from '../catalogue/kind'
import type { Shape } from '../catalogue/symbol'
import { boundsOnSheet, transformPoint, polyline, symbolOf, type Rect, type XY } from '../sheet/geometry'
import { DOT_RADIUS } from '../catalogue/symbol-elements'
import { branches, branchingJunctions } from '../sheet/branches'
import { hoseOf } from '../sheet/hose'
import {
  annotationBox,
  fluidText,
  LETTERING,
  rotationArrows,
  smallLetters,
  type Annotation,
} from '../sheet/annotations'
import { plotControl } from './control-plot'
import { sheetLettering, LETTERING_LINE } from '../sheet/lettering'
import { BADGE, legendText, LEGEND_ROW, penStrokes } from '../sheet/pens'
import type { Pipe, Sheet, SheetComponent } from '../sheet/schema'

/** Millimetres to a module. */
export const MODULE = 2.5

export const layers = [
  'pens',
  'working',
  'pilot',
  'drain',
  'hose',
  'shaft',
  'rod',
  'symbols',
  'lettering',
] as const
export type Layer = (typeof layers)[number]

/** Line width in modules: 0.25 mm. */
export const THIN = 0.1
/** Lengths of marks and gaps, in modules. */
export const dashes: Readonly<Record<'pilot' | 'drain' | 'chain', readonly number[]>> = {
  pilot: [1, 0.4],
  drain: [0.3, 0.3],
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
  /** Ink of a pen; black where none is given. */
  readonly colour?: string
}

/** A symbol as drawn, to be put at (x, y): one of a kind, values, turn and mirroring is one block. */
export interface PlotSymbol {
  readonly component: string
  readonly block: string
  readonly x: number
  readonly y: number
  /** Its designation among the strokes. */
  readonly designation?: Letters
}

export interface Plot {
  readonly title: string
  readonly blocks: ReadonlyMap<string, readonly DrawnShape[]>
  readonly symbols: readonly PlotSymbol[]
  readonly strokes: readonly Stroke[]
  /** Around each symbol, each straight part of a line and each lettering. */
  readonly boxes: readonly Rect[]
  /** Around all of them. */
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
  line === 'pilot' || line === 'drain' ? line : line === 'rod' ? 'chain' : undefined

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
  if (hose)
    return [
      ...hose.shapes.map((ink) => ({ layer, width: THIN, ink })),
      ...hose.ends.map((at) => ({
        layer,
        width: THIN,
        ink: { shape: 'circle', at, r: DOT_RADIUS, fill: 'ink' } as const,
      })),
    ]
  if (pipe.lineType === 'shaft') return [stroke(beside(points, 0.25)), stroke(beside(points, -0.25))]
  return [stroke(points)]
}

/** Room between the drawing and the legend of the pens, modules. */
const LEGEND_GAP = 3
/** Length of the stroke in the legend. */
const LEGEND_STROKE = 4

/** Strokes of pens with their numbers, and their legend below the drawing. */
function penPlot(sheet: Sheet): Stroke[] {
  const pens = penStrokes(sheet)
  if (!pens.length) return []
  const { x, y, h } = around([
    ...sheet.components.map(boundsOnSheet),
    ...pens.flatMap((p) => p.lines.flatMap((l) => l.points.map(pointBox))),
  ])
  return pens.flatMap((pen, i): Stroke[] => {
    const row: XY = [x, y + h + LEGEND_GAP + i * LEGEND_ROW]
    const letters = (at: XY, text: string, anchor: Letters['anchor'], on: Letters['on']): Stroke => ({
      layer: 'lettering',
      width: THIN,
      ink: { shape: 'letters', at, text, size: LETTERING, anchor, on },
    })
    const stroke = (points: readonly XY[], width: number): Stroke => ({
      layer: 'pens',
      width,
      colour: pen.ink,
      ink: { shape: 'line', points },
    })
    return [
      ...pen.lines.map(({ points, width }) => stroke(points, width)),
      ...(pen.badge
        ? [
            {
              layer: 'pens' as const,
              width: THIN,
              colour: pen.ink,
              ink: { shape: 'circle' as const, at: pen.badge, r: BADGE, fill: 'paper' as const },
            },
            letters(pen.badge, String(pen.number), 'middle', 'middle'),
          ]
        : []),
      stroke([row, [row[0] + LEGEND_STROKE, row[1]]], 0.5),
      letters([row[0] + LEGEND_STROKE + 1, row[1]], legendText(pen), 'start', 'middle'),
    ]
  })
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
  /** What is drawn: the circuit where nothing is said, or its control. */
  readonly subject?: 'circuit' | 'control'
}

export function plotSheet(sheet: Sheet, show: Show, options: PlotOptions = {}): Plot {
  if (options.subject === 'control') return plotControl(sheet)
  const blocks = new Map<string, DrawnShape[]>()
  const names = new Map<string, string>()
  const symbols: PlotSymbol[] = []
  const strokes: Stroke[] = []
  strokes.push(...penPlot(sheet))
  const { labels: words, lines } = sheetLettering(sheet, show, { names: !!options.lineNames })
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    if (points.length > 1) strokes.push(...pipeStrokes(points, pipe))
  }
  const dots = [
    ...branchingJunctions(sheet).map(({ x, y }): XY => [x, y]),
    ...branches(sheet).map(({ at }) => at),
  ]
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
    const place = { component: component.id, block, x: component.x, y: component.y }
    const written = words.get(component.id)
    if (!written) {
      symbols.push(place)
      continue
    }
    const rows = [written.designation, ...(options.settings === false ? [] : written.lines)]
    const letters = rows.map((text, i): Letters => ({
      shape: 'letters',
      at: [written.x, written.y + i * LETTERING_LINE],
      text,
      size: LETTERING,
      anchor: written.anchor,
      on: 'baseline',
    }))
    symbols.push({ ...place, ...(written.designation ? { designation: letters[0] } : {}) })
    for (const ink of letters) if (ink.text) strokes.push({ layer: 'lettering', width: THIN, ink })
  }
  for (const { shapes } of rotationArrows(sheet))
    for (const ink of shapes) strokes.push({ layer: 'symbols', width: THIN, ink })
  const beside = [...smallLetters(sheet), ...lines, ...fluidText(sheet, show)]
  for (const annotation of beside) strokes.push(lettersOf(annotation))
  const boxes = boxesOf(sheet, strokes)
  return { title: sheet.title, blocks, symbols, strokes, boxes, bounds: around(boxes) }
}

const lettersOf = ({ x, y, text, size, anchor }: Annotation): Stroke => ({
  layer: 'lettering',
  width: THIN,
  ink: { shape: 'letters', at: [x, y], text, size, anchor, on: 'baseline' },
})

function boxesOf(sheet: Sheet, strokes: readonly Stroke[]): Rect[] {
  const boxes: Rect[] = sheet.components.map(boundsOnSheet)
  for (const { ink } of strokes) {
    if (ink.shape === 'letters') boxes.push(annotationBox({ ...ink, x: ink.at[0], y: ink.at[1] }))
    else if (ink.shape === 'line' || ink.shape === 'polygon')
      for (let k = 0; k + 1 < ink.points.length; k++)
        boxes.push(around([pointBox(ink.points[k]), pointBox(ink.points[k + 1])]))
  }
  return boxes.length ? boxes : [{ x: 0, y: 0, w: 10, h: 10 }]
}
const pointBox = ([x, y]: XY): Rect => ({ x, y, w: 0, h: 0 })

/** The rectangle around boxes, a module wide and high at least. */
export function around(boxes: readonly Rect[]): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { x, y, w, h } of boxes) {
    left = Math.min(left, x)
    top = Math.min(top, y)
    right = Math.max(right, x + w)
    bottom = Math.max(bottom, y + h)
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
