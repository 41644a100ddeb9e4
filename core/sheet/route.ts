/**
 * Orthogonal routes on the module grid: A* over (place, direction) with a price for length,
 * bends, crossings and running along another pipe. Symbols are walked around.
 */
import FlatQueue from 'flatqueue'
import type { Side } from '../catalogue/symbol'
import { endAt, outline, placedPorts, polyline, sideVector, simplify, type Rect, type XY } from './geometry'
import type { PipeEnd, Sheet } from './schema'

const PRICE = { bend: 3, cross: 2, along: 12, nearPort: 4 }
const MARGIN = 8
/** A route is first looked for within so much of its two ends, and only then on the whole sheet. */
const NEAR = 16
const DIRECTIONS: readonly XY[] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
]
const directionOf = (side: Side) =>
  DIRECTIONS.findIndex(([x, y]) => x === sideVector[side][0] && y === sideVector[side][1])

/**
 * The corners of a route between two ends (ends excluded).
 * @param without pipes that are being rerouted and are no obstacles
 */
export function route(
  sheet: Sheet,
  from: PipeEnd,
  to: PipeEnd,
  without: ReadonlySet<string> = new Set(),
): XY[] {
  const start = endAt(sheet, from)
  const goal = endAt(sheet, to)
  if (!start || !goal) return []
  const ends = [start.at, goal.at]
  const near = around(ends, NEAR)
  const rects = sheet.components.map(outline)
  const corners = rects.flatMap((r): XY[] => [
    [r.x, r.y],
    [r.x + r.w, r.y + r.h],
  ])
  return (
    search(sheet, start, goal, without, near) ??
    search(sheet, start, goal, without, around([...ends, ...corners], MARGIN)) ??
    // walled in: a plain corner, so that the connection is at least seen
    plain(start.at, goal.at)
  )
}

/** A route of one corner that looks at nothing in its way: quick. */
export function straightRoute(sheet: Sheet, from: PipeEnd, to: PipeEnd): XY[] {
  const start = endAt(sheet, from)
  const goal = endAt(sheet, to)
  return start && goal ? plain(start.at, goal.at) : []
}
const plain = (start: XY, goal: XY): XY[] => simplify([start, [goal[0], start[1]], goal]).slice(1, -1)

/** The square modules around some points. */
function around(points: readonly XY[], margin: number): Rect {
  const xs = points.map((p) => p[0])
  const ys = points.map((p) => p[1])
  const [x, y] = [Math.floor(Math.min(...xs)) - margin, Math.floor(Math.min(...ys)) - margin]
  return {
    x,
    y,
    w: Math.ceil(Math.max(...xs)) + margin - x + 1,
    h: Math.ceil(Math.max(...ys)) + margin - y + 1,
  }
}

type End = NonNullable<ReturnType<typeof endAt>>

/** The best route within an area; none where it is walled in there. */
function search(
  sheet: Sheet,
  start: End,
  goal: End,
  without: ReadonlySet<string>,
  { x: x0, y: y0, w, h }: Rect,
): XY[] | undefined {
  const cell = (x: number, y: number) => (y - y0) * w + (x - x0)
  const inside = (x: number, y: number) => x >= x0 && y >= y0 && x < x0 + w && y < y0 + h
  const overlaps = (r: Rect) => r.x <= x0 + w && r.x + r.w >= x0 && r.y <= y0 + h && r.y + r.h >= y0
  const close = sheet.components.filter((c) => overlaps(grown(outline(c))))
  const rects = close.map(outline)
  const ports = close.flatMap((c) => placedPorts(c))
  const lines = sheet.pipes.filter((p) => !without.has(p.id)).map((p) => polyline(sheet, p))

  const blocked = new Uint8Array(w * h)
  const price = new Float32Array(w * h)
  const horizontal = new Uint8Array(w * h)
  const vertical = new Uint8Array(w * h)
  for (const r of rects)
    for (let y = Math.ceil(r.y); y <= r.y + r.h; y++)
      for (let x = Math.ceil(r.x); x <= r.x + r.w; x++) if (inside(x, y)) blocked[cell(x, y)] = 1
  for (const { at, side } of ports) {
    if (inside(at[0], at[1])) blocked[cell(at[0], at[1])] = 1
    const [dx, dy] = sideVector[side]
    const [nx, ny] = [at[0] + dx, at[1] + dy]
    if (inside(nx, ny)) price[cell(nx, ny)] += PRICE.nearPort
  }
  for (const junction of sheet.junctions)
    if (inside(junction.x, junction.y)) blocked[cell(junction.x, junction.y)] = 1
  for (const points of lines)
    for (let i = 0; i + 1 < points.length; i++) {
      const [ax, ay] = points[i]
      const [bx, by] = points[i + 1]
      if (!overlaps({ x: Math.min(ax, bx), y: Math.min(ay, by), w: Math.abs(bx - ax), h: Math.abs(by - ay) }))
        continue
      const [dx, dy] = [Math.sign(bx - ax), Math.sign(by - ay)]
      // a sheet file may hold a slanting piece: it is followed as far as its longer side
      const steps = Math.max(Math.abs(bx - ax), Math.abs(by - ay))
      for (let k = 0, x = ax, y = ay; k <= steps; k++, x += dx, y += dy) {
        if (!inside(x, y)) continue
        if (dx) horizontal[cell(x, y)] = 1
        if (dy) vertical[cell(x, y)] = 1
      }
    }
  blocked[cell(...start.at)] = 0
  blocked[cell(...goal.at)] = 0

  const best = new Float64Array(w * h * 4).fill(Infinity)
  const before = new Int32Array(w * h * 4).fill(-1)
  const queue = new FlatQueue()
  const guess = (x: number, y: number) => Math.abs(x - goal.at[0]) + Math.abs(y - goal.at[1])
  const first = start.side ? [directionOf(start.side)] : [0, 1, 2, 3]
  for (const d of first) {
    const node = cell(...start.at) * 4 + d
    best[node] = 0
    queue.push(node, guess(...start.at))
  }
  // a line enters a port against the side it leaves to
  const arrival = goal.side ? (directionOf(goal.side) + 2) % 4 : -1
  const goalCell = cell(...goal.at)
  while (queue.length) {
    const asked = queue.peekValue()!
    const node = queue.pop()!
    const d = node & 3
    const c = node >> 2
    const x = (c % w) + x0
    const y = Math.floor(c / w) + y0
    // a cheaper way there was found after this one was put in line
    if (asked > best[node] + guess(x, y)) continue
    if (c === goalCell && (arrival < 0 || d === arrival)) {
      const points: XY[] = []
      for (let n = node; n >= 0; n = before[n]) {
        const k = n >> 2
        points.push([(k % w) + x0, Math.floor(k / w) + y0])
      }
      return simplify(points.reverse()).slice(1, -1)
    }
    for (let turn = 0; turn < 4; turn++) {
      if (turn === (d + 2) % 4) continue
      if (turn !== d && c === cell(...start.at) && start.side) continue
      const [dx, dy] = DIRECTIONS[turn]
      const nx = x + dx
      const ny = y + dy
      if (!inside(nx, ny)) continue
      const nc = cell(nx, ny)
      if (blocked[nc]) continue
      let cost = best[node] + 1 + (turn === d ? 0 : PRICE.bend)
      if (nc !== goalCell) {
        cost += price[nc]
        const sameWay = dx ? horizontal[nc] : vertical[nc]
        const across = dx ? vertical[nc] : horizontal[nc]
        if (sameWay) cost += PRICE.along
        else if (across) cost += PRICE.cross
      }
      const next = nc * 4 + turn
      if (cost < best[next]) {
        best[next] = cost
        before[next] = node
        queue.push(next, cost + guess(nx, ny))
      }
    }
  }
  return undefined
}

/** With the ports, which lie outside a symbol's outline. */
const grown = ({ x, y, w, h }: Rect): Rect => ({ x: x - 3, y: y - 3, w: w + 6, h: h + 6 })
