/** A pipe that is being drawn from one port, junction or pipe to another, or whose end is being moved. */
import { connect, movePipeEnd, type Target } from '@oar-bench/core/sheet/edit'
import { placedPorts, type XY } from '@oar-bench/core/sheet/geometry'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { OilLineType } from '../stores/editorUi'
import { toGrid } from './grid'

export type PipeEndName = 'from' | 'to'
export interface Connection {
  readonly from: Target
  /** Where it starts, modules. */
  readonly at: XY
  /** The pipe whose end is moved; a new pipe is drawn where none is given. */
  readonly moved?: { readonly pipe: string; readonly end: PipeEndName }
  /** Where the pointer was when it began. */
  readonly pressedAt: XY
}

/** A press and a release nearer to each other than this are a click, modules. */
const CLICK = 0.6

/** What a pipe can start from or end at, of an item on the sheet ("port:V1:P", "junction:J1", "end:L1:from", "pipe:L1"). */
export function targetOf(item: string | undefined, at: XY, sheet: Sheet): Target | undefined {
  const [type, id, part] = item?.split(':') ?? []
  switch (type) {
    case 'port':
      return { component: id, port: part }
    case 'junction':
      return { junction: id }
    case 'pipe':
      return { pipe: id, at: toGrid(at) }
    // the handle at the end of a selected pipe stands for what lies under it
    case 'end':
      return sheet.pipes.find((p) => p.id === id)?.[part as PipeEndName]
    default:
      return undefined
  }
}
/** Where a target is on the sheet, modules. @throws Error where it is not on the sheet */
export function positionOf(target: Target, sheet: Sheet): XY {
  if ('pipe' in target) return target.at
  if ('junction' in target) {
    const junction = sheet.junctions.find((j) => j.id === target.junction)
    if (junction) return [junction.x, junction.y]
    throw new Error(`No junction ${target.junction}.`)
  }
  const component = sheet.components.find((c) => c.id === target.component)
  const port = component && placedPorts(component).find((p) => p.port === target.port)
  if (port) return port.at
  throw new Error(`No port ${target.component}.${target.port}.`)
}

export const startConnection = (from: Target, sheet: Sheet, pressedAt: XY): Connection => ({
  from,
  at: positionOf(from, sheet),
  pressedAt,
})
/** Moves one end of a pipe; the other end is where the connection starts. */
export function startMovingEnd(
  pipe: string,
  end: PipeEndName,
  sheet: Sheet,
  pressedAt: XY,
): Connection | undefined {
  const other = sheet.pipes.find((p) => p.id === pipe)?.[end === 'from' ? 'to' : 'from']
  return other && { ...startConnection(other, sheet, pressedAt), moved: { pipe, end } }
}

/** What letting go of the pointer does: the connection goes on to a second click, ends at a target, or is given up. */
export function releaseConnection(
  connection: Connection,
  pointer: XY,
  target: Target | undefined,
  sheet: Sheet,
): 'continue' | 'finish' | 'cancel' {
  const { at, pressedAt, moved } = connection
  const clicked = Math.hypot(pointer[0] - pressedAt[0], pointer[1] - pressedAt[1]) < CLICK
  if (clicked && !moved) return 'continue'
  if (!target) return 'cancel'
  const end = positionOf(target, sheet)
  return end[0] !== at[0] || end[1] !== at[1] ? 'finish' : 'cancel'
}

/** The sheet with the pipe, and its id; or why it cannot be drawn. */
export const finishConnection = (
  { from, moved }: Connection,
  to: Target,
  sheet: Sheet,
  lineType: OilLineType,
) => (moved ? movePipeEnd(sheet, moved.pipe, moved.end, to) : connect(sheet, from, to, lineType))
