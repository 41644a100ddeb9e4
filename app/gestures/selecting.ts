/** What a click and a selection rectangle select. */
import type { XY } from '@oar-bench/core/sheet/geometry'
import type { Sheet } from '@oar-bench/core/sheet/schema'

/** The selection after a press on an item: with Shift it is added or taken away; a selected one leaves the others selected. */
export function afterPress(selected: ReadonlySet<string>, id: string, shift: boolean): string[] {
  const list = [...selected]
  if (!selected.has(id)) return shift ? [...list, id] : [id]
  return shift ? list.filter((other) => other !== id) : list
}

/** A selection rectangle from one corner to the opposite one. */
export interface Marquee {
  readonly from: XY
  readonly to: XY
}
/** Ids of the components and junctions whose origin lies in a rectangle. */
export function itemsIn(sheet: Sheet, { from, to }: Marquee): string[] {
  const between = (v: number, a: number, b: number) => v >= Math.min(a, b) && v <= Math.max(a, b)
  return [...sheet.components, ...sheet.junctions]
    .filter(({ x, y }) => between(x, from[0], to[0]) && between(y, from[1], to[1]))
    .map(({ id }) => id)
}
