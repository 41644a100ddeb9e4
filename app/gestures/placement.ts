/** A new component on its way to its place on the sheet. */
import { insertInPipe, routeAround } from '@oar-bench/core/sheet/arrange'
import { addComponent } from '@oar-bench/core/sheet/edit'
import { outline, polyline, symbolOf, type Rect, type XY } from '@oar-bench/core/sheet/geometry'
import { isSolid } from '@oar-bench/core/sheet/role'
import { nameOf, type Sheet, type SheetComponent } from '@oar-bench/core/sheet/schema'
import type { Placement } from '../stores/editorUi'
import { toGrid } from './grid'

/** Symbols may touch; from this overlap on in both directions one lies on the other, modules. */
const OVERLAP = 1
/** Free room kept around a component that is placed by keyboard, for its label and for pipes, modules. */
const ROOM = 5
/** Places are looked for up to this distance, modules. */
const FARTHEST = 120

/** The component as it would be placed. */
export function ghostOf(placement: Placement, at: XY): SheetComponent {
  const [x, y] = toGrid(at)
  return { id: 'ghost', x, y, parameters: {}, ...placement }
}
export function ghostSymbol(placement: Placement, at: XY) {
  const component = ghostOf(placement, at)
  const symbol = symbolOf(component)
  return symbol && { component, symbol }
}

const overlap = (a: Rect, b: Rect) =>
  Math.min(
    Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x),
    Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y),
  )
const overlapped = (component: SheetComponent, others: readonly SheetComponent[]) =>
  isSolid(component)
    ? others.find(
        (other) =>
          other.id !== component.id &&
          isSolid(other) &&
          overlap(outline(component), outline(other)) >= OVERLAP,
      )
    : undefined

/** Why components cannot lie where they were moved to: one of them now lies on another. */
export function newOverlap(before: Sheet, after: Sheet, ids: readonly string[]): string | undefined {
  const moved = new Set(ids)
  const resting = after.components.filter((c) => !moved.has(c.id))
  for (const component of after.components.filter((c) => moved.has(c.id))) {
    const under = overlapped(component, resting)
    const old = before.components.find((c) => c.id === component.id)
    // what overlapped before may be moved away step by step
    if (under && !(old && overlapped(old, [under])))
      return `${nameOf(component)} would lie on ${nameOf(under)}; put it beside it.`
  }
  return undefined
}

/** The sheet with the new component, inserted in the pipe under it; or why it cannot be placed there. */
export function placeComponent(
  sheet: Sheet,
  placement: Placement,
  at: XY,
): { sheet: Sheet; id: string } | { problem: string } {
  const { kind, ...position } = ghostOf(placement, at)
  const under = overlapped(ghostOf(placement, at), sheet.components)
  if (under) return { problem: `${nameOf(under)} is there already; place it beside it.` }
  const { x, y, rotation, mirrored } = position
  const added = addComponent(sheet, kind, { x, y, rotation, mirrored })
  return { sheet: routeAround(insertInPipe(added.sheet, added.id), [added.id], sheet), id: added.id }
}

/** The free place that is nearest to another one: no component and no pipe lies there. */
export function freePlace(sheet: Sheet, placement: Placement, near: XY): XY {
  const [x0, y0] = toGrid(near)
  const taken: Rect[] = [
    ...sheet.components.filter(isSolid).map((c) => outline(c)),
    ...sheet.pipes.flatMap((pipe) => {
      const points = polyline(sheet, pipe)
      return points.slice(1).map(([x, y], i): Rect => {
        const [a, b] = points[i]
        return { x: Math.min(a, x), y: Math.min(b, y), w: Math.abs(a - x), h: Math.abs(b - y) }
      })
    }),
  ]
  const isFree = (at: XY) => {
    const { x, y, w, h } = outline(ghostOf(placement, at))
    const wanted = { x: x - ROOM, y: y - ROOM, w: w + 2 * ROOM, h: h + 2 * ROOM }
    return taken.every((rect) => overlap(wanted, rect) <= 0)
  }
  for (let distance = 0; distance <= FARTHEST; distance++) {
    // to the right first, then below, to the left, above; the straight places before the corners
    for (let aside = 0; aside <= distance; aside++)
      for (const side of aside ? [aside, -aside] : [0])
        for (const at of [
          [x0 + distance, y0 + side],
          [x0 + side, y0 + distance],
          [x0 - distance, y0 + side],
          [x0 + side, y0 - distance],
        ] as const)
          if (isFree(at)) return at
  }
  return [x0, y0]
}
