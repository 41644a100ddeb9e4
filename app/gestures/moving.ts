/** Components, junctions or one straight part of a pipe that are being moved. */
import { insertInPipe, routeAround } from '@oar-bench/core/sheet/arrange'
import { move } from '@oar-bench/core/sheet/edit'
import { nearestOn, polyline, type XY } from '@oar-bench/core/sheet/geometry'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { moveSegment, segmentAcross } from '@oar-bench/core/sheet/shape'
import { toGrid } from './grid'
import { newOverlap } from './placement'

export interface Moving {
  readonly ids: readonly string[]
  readonly from: XY
  /** Whole modules that it has been moved by. */
  readonly by: readonly [number, number]
  /** The straight part of the only pipe, counted from its beginning. */
  readonly segment?: number
}

export function startMoving(sheet: Sheet, ids: readonly string[], from: XY): Moving {
  const pipe = ids.length === 1 ? sheet.pipes.find((p) => p.id === ids[0]) : undefined
  return { ids, from, by: [0, 0], segment: pipe && nearestOn(polyline(sheet, pipe), from).segment }
}
/** The move with the pointer at a place; the same object where that is the same whole module. */
export function moveTo(moving: Moving, at: XY): Moving {
  const by = toGrid([at[0] - moving.from[0], at[1] - moving.from[1]])
  return by[0] === moving.by[0] && by[1] === moving.by[1] ? moving : { ...moving, by }
}
/** @param laying rough: pipes are only stretched, which is enough while the move goes on */
export function movedSheet(sheet: Sheet, moving: Moving, laying: 'rough' | 'routed'): Sheet {
  const { ids, from, by, segment } = moving
  return segment === undefined
    ? move(sheet, ids, by[0], by[1], laying)
    : moveSegment(sheet, ids[0], segment, toGrid([from[0] + by[0], from[1] + by[1]]))
}
/** The sheet after the move: a component put on a pipe is inserted in it; or why it cannot be put there. */
export function finishMoving(sheet: Sheet, moving: Moving): { sheet: Sheet } | { problem: string } {
  const { ids, by } = moving
  if (!by[0] && !by[1]) return { sheet }
  const moved = movedSheet(sheet, moving, 'routed')
  const problem = newOverlap(sheet, moved, ids)
  if (problem) return { problem }
  const inserted = ids.length === 1 ? insertInPipe(moved, ids[0]) : moved
  return { sheet: routeAround(inserted, ids, sheet) }
}

/** A step by an arrow key: components are moved, a single pipe has its longest part across the arrow moved. */
export function nudge(sheet: Sheet, ids: readonly string[], step: readonly [number, number]): Sheet {
  const [dx, dy] = step
  const pipe = ids.length === 1 ? sheet.pipes.find((p) => p.id === ids[0]) : undefined
  if (!pipe) return move(sheet, ids, dx, dy)
  const part = segmentAcross(sheet, pipe, [dx, dy])
  return part ? moveSegment(sheet, pipe.id, part.segment, [part.at[0] + dx, part.at[1] + dy]) : sheet
}
