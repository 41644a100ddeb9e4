/** What is written beside a symbol, and where: the same on the screen and in every drawing format. */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { LETTER_WIDTH } from '../catalogue/symbol'
import {
  extent,
  longestPart,
  outline,
  placedPorts,
  transformRect,
  polyline,
  symbolOf,
  valuesOrDefaults,
  type Rect,
} from './geometry'
import { hoseOf } from './hose'
import { nameOf, type Sheet, type SheetComponent } from './schema'

/** Height of the lettering and distance from line to line, in modules. */
export const LETTERING = 1.2
export const LETTERING_LINE = 1.35

export interface Label {
  /** Baseline of the designation, which is written above the lines. */
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
export function lettersBox({ x, y, anchor, designation, lines }: Label): Rect {
  const w = Math.max(...[designation, ...lines].map((text) => textWidth(text, LETTERING)))
  const left = x - (anchor === 'start' ? 0 : anchor === 'middle' ? w / 2 : w)
  return { x: left, y: y - LETTERING, w, h: LETTERING + LETTERING_LINE * lines.length }
}

/** As long as a reading may be. */
const READING = '-123.4 rpm'
/** How far around all that is drawn lettering is kept from lettering, modules. */
const ROOM = 40

/** Module squares through which pipes run, on which symbols lie or where something is written. */
class Taken {
  private readonly area: Rect
  private readonly squares: Uint8Array

  constructor({ x, y, w, h }: Rect) {
    this.area = {
      x: Math.floor(x) - ROOM,
      y: Math.floor(y) - ROOM,
      w: Math.ceil(w) + 2 * ROOM,
      h: Math.ceil(h) + 2 * ROOM,
    }
    this.squares = new Uint8Array(this.area.w * this.area.h)
  }

  /** How many squares of a rectangle are taken. */
  count(rect: Rect): number {
    const { squares, area } = this
    const { first, last, top, bottom } = this.within(rect)
    let sum = 0
    for (let j = top; j < bottom; j++) for (let i = first; i < last; i++) sum += squares[j * area.w + i]
    return sum
  }
  take(rect: Rect): void {
    const { squares, area } = this
    const { first, last, top, bottom } = this.within(rect)
    for (let j = top; j < bottom; j++) for (let i = first; i < last; i++) squares[j * area.w + i] = 1
  }
  /** Columns and rows of the squares that a rectangle touches, as far as they lie in the area. */
  private within({ x, y, w, h }: Rect) {
    const { area } = this
    return {
      first: Math.max(Math.floor(x) - area.x, 0),
      last: Math.min(Math.ceil(x + w) - area.x, area.w),
      top: Math.max(Math.floor(y) - area.y, 0),
      bottom: Math.min(Math.ceil(y + h) - area.y, area.h),
    }
  }
}

/** The outline of a component with all that its moving parts pass over during a run. */
function swept(component: SheetComponent): Rect {
  const symbol = symbolOf(component)
  if (!symbol) return outline(component)
  const { x, y, w, h } = symbol.box
  const travel = Math.max(0, ...Object.values(symbol.parts ?? {}).map((part) => Math.abs(part.travel)))
  return transformRect({ x: x - travel, y, w: w + 2 * travel, h }, component)
}

function takenBy(sheet: Sheet): Taken {
  const taken = new Taken(extent(sheet))
  for (const component of sheet.components) taken.take(swept(component))
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    for (let k = 0; k + 1 < points.length; k++) {
      const [[ax, ay], [bx, by]] = [points[k], points[k + 1]]
      // a line lies on the edge of the squares at both its sides
      if (ax === bx || ay === by) {
        const [x, y] = [Math.min(ax, bx), Math.min(ay, by)]
        taken.take({ x: x - 1, y: y - 1, w: Math.abs(bx - ax) + 2, h: Math.abs(by - ay) + 2 })
        continue
      }
      const steps = Math.max(Math.abs(bx - ax), Math.abs(by - ay))
      for (let i = 0; i <= steps; i++) {
        const x = Math.round(ax + ((bx - ax) * i) / steps)
        const y = Math.round(ay + ((by - ay) * i) / steps)
        taken.take({ x: x - 1, y: y - 1, w: 2, h: 2 })
      }
    }
  }
  return taken
}

type Place = Pick<Label, 'x' | 'y' | 'anchor'>

/** What is written beside every component, by its id: each at the first of its usual places with least under it. */
export function labels(sheet: Sheet, show: Show): Map<string, Label> {
  const taken = takenBy(sheet)
  const all = new Map<string, Label>()
  for (const component of sheet.components) {
    const written = lettering(component, show, taken)
    if (written) all.set(component.id, written)
  }
  return all
}

/** @param taken where other things are; the squares of what is placed are added */
function lettering(component: SheetComponent, show: Show, taken: Taken): Label | undefined {
  const kind = findKind(component.kind)
  const symbol = symbolOf(component)
  if (!kind || !symbol || kind.excludedFromPartsList) return undefined
  const designation = nameOf(component)
  const lines = kind.caption?.(valuesOrDefaults(component), show) ?? []
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
  // during a run the reading is written after the designation
  const first = symbol.reading ? `${designation} ${READING}` : designation
  /** What is written at a place covers, row by row; a little over an edge does not count. */
  const covers = (place: Place): Rect[] =>
    [first, ...lines].map((text, row) => {
      const y = place.y + LETTERING_LINE * row
      const box = lettersBox({ ...place, y, designation: text, lines: [] })
      return { x: box.x + 0.2, y: box.y + 0.4, w: box.w - 0.4, h: box.h - (row === lines.length ? 0.4 : 0) }
    })
  let best = { place: places[0], covered: Infinity }
  for (const place of places) {
    const covered = covers(place).reduce((sum, rect) => sum + taken.count(rect), 0)
    if (covered < best.covered) best = { place, covered }
    if (covered === 0) break
  }
  for (const rect of covers(best.place)) taken.take(rect)
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
    const best = longestPart(points)
    if (!best) return []
    const [[ax, ay], [bx, by]] = [best.a, best.b]
    const [x, y] = [(ax + bx) / 2, (ay + by) / 2]
    // a hose hangs out to the right there
    const right = pipe.lineType === 'hose' ? hoseOf(points)!.lowest[0] : x
    return [
      {
        pipe: pipe.id,
        text: pipe.name,
        ...(ay === by
          ? { x, y: y - 0.4, anchor: 'middle' as const }
          : { x: right + 0.5, y: y + 0.35 * LETTERING, anchor: 'start' as const }),
      },
    ]
  })
}
