/**
 * Orthogonal routes on the module grid: A* over (place, direction) with a price for length,
 * bends, crossings and running along another pipe. Symbols are walked around.
 */
import type { Side } from '../catalogue/symbol'
import { endAt, outline, placedPorts, polyline, sideVector, simplify, type XY } from './geometry'
import type { PipeEnd, Sheet } from './schema'

const PRICE = { bend: 3, cross: 2, along: 12, nearPort: 4 }
const MARGIN = 8
const DIRECTIONS: readonly XY[] = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
]
const directionOf = (side: Side) =>
  DIRECTIONS.findIndex(([x, y]) => x === sideVector[side][0] && y === sideVector[side][1])

/** A binary heap of numbered places by price. */
class Heap {
  private readonly keys: number[] = []
  private readonly items: number[] = []
  get size() {
    return this.items.length
  }
  push(item: number, key: number) {
    let i = this.items.length
    this.items.push(item)
    this.keys.push(key)
    while (i > 0) {
      const up = (i - 1) >> 1
      if (this.keys[up] <= key) break
      this.swap(i, up)
      i = up
    }
  }
  pop(): number {
    const top = this.items[0]
    const item = this.items.pop()!
    const key = this.keys.pop()!
    if (this.items.length) {
      this.items[0] = item
      this.keys[0] = key
      let i = 0
      for (;;) {
        let least = i
        for (const child of [2 * i + 1, 2 * i + 2])
          if (child < this.items.length && this.keys[child] < this.keys[least]) least = child
        if (least === i) break
        this.swap(i, least)
        i = least
      }
    }
    return top
  }
  private swap(a: number, b: number) {
    ;[this.items[a], this.items[b]] = [this.items[b], this.items[a]]
    ;[this.keys[a], this.keys[b]] = [this.keys[b], this.keys[a]]
  }
}

/**
 * The corners of a route between two ends (ends excluded).
 * @param without pipes that are being laid anew and do not count as in the way
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
  const lines = sheet.pipes.filter((p) => !without.has(p.id)).map((p) => polyline(sheet, p))
  const rects = sheet.components.map(outline)
  const ports = sheet.components.flatMap(placedPorts)
  const xs = [start.at[0], goal.at[0], ...rects.flatMap((r) => [r.x, r.x + r.w])]
  const ys = [start.at[1], goal.at[1], ...rects.flatMap((r) => [r.y, r.y + r.h])]
  const x0 = Math.floor(Math.min(...xs)) - MARGIN
  const y0 = Math.floor(Math.min(...ys)) - MARGIN
  const w = Math.ceil(Math.max(...xs)) + MARGIN - x0 + 1
  const h = Math.ceil(Math.max(...ys)) + MARGIN - y0 + 1
  const cell = (x: number, y: number) => (y - y0) * w + (x - x0)

  const blocked = new Uint8Array(w * h)
  const price = new Float32Array(w * h)
  const horizontal = new Uint8Array(w * h)
  const vertical = new Uint8Array(w * h)
  for (const r of rects)
    for (let y = Math.ceil(r.y); y <= r.y + r.h; y++)
      for (let x = Math.ceil(r.x); x <= r.x + r.w; x++) blocked[cell(x, y)] = 1
  for (const p of ports) {
    const c = cell(p.at[0], p.at[1])
    blocked[c] = 1
    const [dx, dy] = sideVector[p.side]
    price[c + dy * w + dx] += PRICE.nearPort
  }
  for (const joint of sheet.joints) blocked[cell(joint.x, joint.y)] = 1
  for (const points of lines)
    for (let i = 0; i + 1 < points.length; i++) {
      const [[ax, ay], [bx, by]] = [points[i], points[i + 1]]
      const [dx, dy] = [Math.sign(bx - ax), Math.sign(by - ay)]
      // a sheet file may hold a slanting piece: it is followed as far as its longer side
      const steps = Math.max(Math.abs(bx - ax), Math.abs(by - ay))
      for (let k = 0, x = ax, y = ay; k <= steps; k++, x += dx, y += dy) {
        if (x < x0 || y < y0 || x >= x0 + w || y >= y0 + h) continue
        if (dx) horizontal[cell(x, y)] = 1
        if (dy) vertical[cell(x, y)] = 1
      }
    }
  blocked[cell(...start.at)] = 0
  blocked[cell(...goal.at)] = 0

  const best = new Float64Array(w * h * 4).fill(Infinity)
  const before = new Int32Array(w * h * 4).fill(-1)
  const heap = new Heap()
  const guess = (x: number, y: number) => Math.abs(x - goal.at[0]) + Math.abs(y - goal.at[1])
  const first = start.side ? [directionOf(start.side)] : [0, 1, 2, 3]
  for (const d of first) {
    const node = cell(...start.at) * 4 + d
    best[node] = 0
    heap.push(node, guess(...start.at))
  }
  // a line enters a port against the side it leaves to
  const arrival = goal.side ? (directionOf(goal.side) + 2) % 4 : -1
  const goalCell = cell(...goal.at)
  while (heap.size) {
    const node = heap.pop()
    const d = node & 3
    const c = node >> 2
    if (c === goalCell && (arrival < 0 || d === arrival)) {
      const points: XY[] = []
      for (let n = node; n >= 0; n = before[n]) {
        const k = n >> 2
        points.push([(k % w) + x0, Math.floor(k / w) + y0])
      }
      return simplify(points.reverse()).slice(1, -1)
    }
    const x = (c % w) + x0
    const y = Math.floor(c / w) + y0
    for (let turn = 0; turn < 4; turn++) {
      if (turn === (d + 2) % 4) continue
      if (turn !== d && c === cell(...start.at) && start.side) continue
      const [dx, dy] = DIRECTIONS[turn]
      const nx = x + dx
      const ny = y + dy
      if (nx < x0 || ny < y0 || nx >= x0 + w || ny >= y0 + h) continue
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
        heap.push(next, cost + guess(nx, ny))
      }
    }
  }
  // walled in: a plain corner, so that the connection is at least seen
  return simplify([start.at, [goal.at[0], start.at[1]], goal.at]).slice(1, -1)
}
