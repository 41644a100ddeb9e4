/** What is written beside a symbol, and where: the same on the screen and in every drawing format. */
import { findKind } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { textWidth } from '../catalogue/text-width'
import {
  drawnBoxes,
  extent,
  outline,
  placedPorts,
  transformRect,
  polyline,
  symbolOf,
  valuesOrDefaults,
  type Rect,
} from './geometry'
import { annotationBox, lineTexts, LETTERING, smallLetters, type Annotation } from './annotations'
import { isOutline } from './role'
import { nameOf, type Sheet, type SheetComponent } from './schema'

/** Distance from line to line of the lettering, in modules. */
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

/** Squares to a module. */
const FINENESS = 2
/** Free space between lettering and what else is drawn, modules. */
const CLEARANCE = 0.2

/** Squares of half a module through which pipes run, on which symbols lie or where something is written. */
class Taken {
  private readonly area: Rect
  private readonly squares: Uint8Array

  constructor({ x, y, w, h }: Rect) {
    this.area = {
      x: (Math.floor(x) - ROOM) * FINENESS,
      y: (Math.floor(y) - ROOM) * FINENESS,
      w: (Math.ceil(w) + 2 * ROOM) * FINENESS,
      h: (Math.ceil(h) + 2 * ROOM) * FINENESS,
    }
    this.squares = new Uint8Array(this.area.w * this.area.h)
  }

  /** How many squares of a rectangle are taken; counting ends where they are more than `most`. */
  count({ x, y, w, h }: Rect, most = Infinity): number {
    const { squares, area } = this
    const first = Math.max(Math.floor(x * FINENESS) - area.x, 0)
    const last = Math.min(Math.ceil((x + w) * FINENESS) - area.x, area.w)
    const bottom = Math.min(Math.ceil((y + h) * FINENESS) - area.y, area.h)
    let sum = 0
    for (let j = Math.max(Math.floor(y * FINENESS) - area.y, 0); j < bottom && sum <= most; j++)
      for (let i = j * area.w + first, end = j * area.w + last; i < end; i++) sum += squares[i]
    return sum
  }
  take({ x, y, w, h }: Rect, around = CLEARANCE): void {
    const { squares, area } = this
    const grown = { x: x - around, y: y - around, w: w + 2 * around, h: h + 2 * around }
    const { first, last, top, bottom } = this.within(grown)
    for (let j = top; j < bottom; j++) for (let i = first; i < last; i++) squares[j * area.w + i] = 1
  }
  /** Columns and rows of the squares that a rectangle touches, as far as they lie in the area. */
  private within({ x, y, w, h }: Rect) {
    const { area } = this
    return {
      first: Math.max(Math.floor(x * FINENESS) - area.x, 0),
      last: Math.min(Math.ceil((x + w) * FINENESS) - area.x, area.w),
      top: Math.max(Math.floor(y * FINENESS) - area.y, 0),
      bottom: Math.min(Math.ceil((y + h) * FINENESS) - area.y, area.h),
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
  for (const component of sheet.components) {
    if (!isOutline(component)) taken.take(swept(component))
    for (const rect of drawnBoxes(component)) taken.take(rect)
  }
  for (const pipe of sheet.pipes) {
    const points = polyline(sheet, pipe)
    for (let k = 0; k + 1 < points.length; k++) {
      const [[ax, ay], [bx, by]] = [points[k], points[k + 1]]
      if (ax === bx || ay === by) {
        const [x, y] = [Math.min(ax, bx), Math.min(ay, by)]
        taken.take({ x, y, w: Math.abs(bx - ax), h: Math.abs(by - ay) })
        continue
      }
      const steps = FINENESS * Math.max(Math.abs(bx - ax), Math.abs(by - ay))
      for (let i = 0; i <= steps; i++)
        taken.take({ x: ax + ((bx - ax) * i) / steps, y: ay + ((by - ay) * i) / steps, w: 0, h: 0 })
    }
  }
  for (const small of smallLetters(sheet)) taken.take(annotationBox(small))
  return taken
}

/** What one square under a lettering weighs against one module of distance. */
const COVERED = 4
/** How far a lettering may move from its usual places, modules: by distance. */
const FARTHEST = 7
const SHIFTS = Array.from({ length: FARTHEST + 1 }, (_, d): [number, (readonly [number, number])[]] => [
  d,
  d
    ? [
        [d, 0],
        [-d, 0],
        [0, d],
        [0, -d],
        [d, d],
        [-d, d],
        [d, -d],
        [-d, -d],
      ]
    : [[0, 0]],
])

type Place = Pick<Label, 'x' | 'y' | 'anchor'>

export interface SheetLettering {
  /** What is written beside every component, by its id. */
  readonly labels: ReadonlyMap<string, Label>
  /** Names and sizes of lines. */
  readonly lines: readonly Annotation[]
}

/** All that is written on a sheet, each at the first of its usual places with least under it. @param names whether lines are named */
export function sheetLettering(sheet: Sheet, show: Show, { names = false } = {}): SheetLettering {
  const taken = takenBy(sheet)
  const all = new Map<string, Label>()
  for (const component of sheet.components) {
    const written = lettering(component, show, taken)
    if (written) all.set(component.id, written)
  }
  const lines = lineTexts(
    sheet,
    show,
    names,
    (rect) => taken.count(rect),
    (rect) => taken.take(rect, 0),
  )
  return { labels: all, lines }
}

/** What is written beside every component, by its id. */
export const labels = (sheet: Sheet, show: Show) => sheetLettering(sheet, show).labels

/** @param taken where other things are; the squares of what is placed are added */
function lettering(component: SheetComponent, show: Show, taken: Taken): Label | undefined {
  const kind = findKind(component.kind)
  const symbol = symbolOf(component)
  if (!kind || !symbol) return undefined
  const designation = kind.excludedFromPartsList ? '' : nameOf(component)
  const lines = kind.caption?.(valuesOrDefaults(component), show) ?? []
  if (!designation && !lines.length) return undefined
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
  const rows = [first, ...lines]
    .map((text, row) => ({ row, w: textWidth(text, LETTERING) }))
    .filter(({ w }) => w)
  const shares = { start: 0, middle: 0.5, end: 1 } as const
  /** What a row at a place covers: capitals and what hangs below the line. */
  const covers = ({ x, y, anchor }: Place, { row, w }: (typeof rows)[number]): Rect => ({
    x: x - shares[anchor] * w,
    y: y + LETTERING_LINE * row - 0.75 * LETTERING,
    w,
    h: LETTERING,
  })
  let best = { place: places[0], cost: Infinity }
  // each usual place as it is first, then moved a little, as far as is needed
  for (const [distance, shifts] of SHIFTS) {
    if (distance >= best.cost) break
    for (const place of places)
      for (const [dx, dy] of shifts) {
        const moved = { x: place.x + dx, y: place.y + dy, anchor: place.anchor }
        const most = (best.cost - distance) / COVERED
        let count = 0
        for (let i = 0; i < rows.length && count < most; i++)
          count += taken.count(covers(moved, rows[i]), most - count)
        const cost = distance + COVERED * count
        if (cost < best.cost) best = { place: moved, cost }
      }
  }
  for (const row of rows) taken.take(covers(best.place, row), 0)
  return { designation, lines, ...best.place }
}
