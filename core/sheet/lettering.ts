/** What is written beside a symbol, and where: the same on the screen and in every drawing format. */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { LETTER_WIDTH } from '../catalogue/symbol'
import { outline, placedPorts, polyline, symbolOf, valuesToDraw, type Rect } from './geometry'
import type { Sheet, SheetComponent } from './schema'

/** Height of the lettering and distance from line to line, in modules. */
export const LETTERING = 1.2
export const LETTERING_LINE = 1.35

export interface Lettered {
  /** Baseline of the designation, which stands above the lines. */
  readonly x: number
  readonly y: number
  readonly anchor: 'start' | 'middle' | 'end'
  readonly designation: string
  /** Settings and ratings. */
  readonly lines: readonly string[]
}

/** Width of a text, roughly, for a narrow face. */
export const textWidth = (text: string, size: number) => text.length * size * LETTER_WIDTH

/** The rectangle that a lettering covers. */
export function lettersBox({ x, y, anchor, designation, lines }: Lettered): Rect {
  const w = Math.max(...[designation, ...lines].map((text) => textWidth(text, LETTERING)))
  const left = x - (anchor === 'start' ? 0 : anchor === 'middle' ? w / 2 : w)
  return { x: left, y: y - LETTERING, w, h: LETTERING + LETTERING_LINE * lines.length }
}

/** Module squares through which pipes run or on which symbols lie. */
type Taken = Set<number>
const cell = (x: number, y: number) => (x + 8192) * 16384 + (y + 8192)

function takenCells(sheet: Sheet): Taken {
  const taken = new Set<number>()
  for (const component of sheet.components) {
    const { x, y, w, h } = outline(component)
    for (let i = Math.floor(x); i < x + w; i++)
      for (let j = Math.floor(y); j < y + h; j++) taken.add(cell(i, j))
  }
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    for (let k = 0; k + 1 < points.length; k++) {
      const [[ax, ay], [bx, by]] = [points[k], points[k + 1]]
      const steps = Math.max(Math.abs(bx - ax), Math.abs(by - ay))
      for (let i = 0; i <= steps; i++) {
        const x = Math.round(ax + ((bx - ax) * i) / Math.max(steps, 1))
        const y = Math.round(ay + ((by - ay) * i) / Math.max(steps, 1))
        // a line lies on the edge of the squares at both its sides
        for (const dx of [-1, 0]) for (const dy of [-1, 0]) taken.add(cell(x + dx, y + dy))
      }
    }
  }
  return taken
}

type Place = Pick<Lettered, 'x' | 'y' | 'anchor'>

/** What is written beside every component, by its id: each at the first of its usual places with least under it. */
export function letterings(sheet: Sheet, show: Show): Map<string, Lettered> {
  const taken = takenCells(sheet)
  const all = new Map<string, Lettered>()
  for (const component of sheet.components) {
    const written = lettering(component, show, taken)
    if (written) all.set(component.id, written)
  }
  return all
}

/** @param taken where other things are; the squares of what is placed are added */
function lettering(component: SheetComponent, show: Show, taken: Taken): Lettered | undefined {
  const kind = findKind(component.kind)
  const symbol = symbolOf(component)
  if (!kind || !symbol || kind.unnamed) return undefined
  const designation = component.designation ?? component.id
  const lines = kind.caption?.(valuesToDraw(kind, component), show) ?? []
  const box = outline(component)
  const over = box.y - 0.6 - LETTERING_LINE * lines.length
  const right: Place = { x: box.x + box.w + 0.6, y: box.y + 0.9, anchor: 'start' }
  const above: Place = { x: box.x, y: over, anchor: 'start' }
  const left: Place = { x: box.x - 0.6, y: box.y + 0.9, anchor: 'end' }
  const below: Place = { x: box.x, y: box.y + box.h + 0.4 + LETTERING, anchor: 'start' }
  const aboveRight: Place = { x: box.x + box.w / 2 + 0.6, y: over, anchor: 'start' }
  const belowRight: Place = { ...below, x: box.x + box.w / 2 + 0.6 }
  const own = component.rotation === 0 ? symbol.captionAt : undefined
  // a line that leaves to the right has no room for words there
  const sideways = placedPorts(component).some((p) => p.side === 'right')
  const places: Place[] = own
    ? [
        {
          x: component.mirrored && own.anchor === 'start' ? box.x : component.x + own.x,
          y: component.y + own.y,
          anchor: own.anchor,
        },
        above,
        right,
        below,
      ]
    : sideways
      ? [above, aboveRight, below, belowRight]
      : [right, left, above, aboveRight, below, belowRight]
  const width = Math.max(...[designation, ...lines].map((text) => textWidth(text, LETTERING)))
  const cells = (place: Place) => {
    const start = place.x - (place.anchor === 'start' ? 0 : place.anchor === 'middle' ? width / 2 : width)
    const bottom = place.y + LETTERING_LINE * lines.length
    const list: number[] = []
    for (let i = Math.floor(start + 0.2); i < start + width - 0.2; i++)
      for (let j = Math.floor(place.y - LETTERING + 0.4); j < bottom; j++) list.push(cell(i, j))
    return list
  }
  let best = { place: places[0], cells: cells(places[0]), covered: Infinity }
  for (const place of places) {
    const squares = cells(place)
    const covered = squares.filter((square) => taken.has(square)).length
    if (covered < best.covered) best = { place, cells: squares, covered }
    if (covered === 0) break
  }
  for (const square of best.cells) taken.add(square)
  return { designation, lines, ...best.place }
}

export interface LineName {
  readonly pipe: string
  readonly text: string
  readonly x: number
  readonly y: number
  readonly anchor: 'start' | 'middle'
}
/** The names that lines were given, each over or beside the longest straight part of its pipe. */
export function lineNames(sheet: Sheet): LineName[] {
  return sheet.pipes.flatMap((pipe) => {
    if (!pipe.name) return []
    const points = polyline(sheet, pipe)
    let best: { x: number; y: number; length: number; level: boolean } | undefined
    for (let i = 0; i + 1 < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i], points[i + 1]]
      const length = Math.abs(bx - ax) + Math.abs(by - ay)
      if (!best || length > best.length)
        best = { x: (ax + bx) / 2, y: (ay + by) / 2, length, level: ay === by }
    }
    if (!best) return []
    const { x, y, level } = best
    return [
      {
        pipe: pipe.id,
        text: pipe.name,
        ...(level
          ? { x, y: y - 0.4, anchor: 'middle' as const }
          : { x: x + 0.5, y: y + 0.35 * LETTERING, anchor: 'start' as const }),
      },
    ]
  })
}
