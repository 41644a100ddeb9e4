/** Routes set by hand: straight parts moved, crossings connected and disconnected, components enclosed. */
import { kindInRole } from '../catalogue'
import type { Show } from '../catalogue/kind'
import { addComponent, changePipe, mergedPipe, sameEnd, splitPipe } from './edit'
import { boundsOnSheet, endAt, polyline, sideVector, type XY } from './geometry'
import { labels, lettersBox } from './lettering'
import { lineDomain } from './netlist'
import type { Pipe, PipeEnd, Sheet } from './schema'

/** Straight length of a line at a port before its first corner, modules. */
const STUB = 1

/**
 * Moves a straight part of a pipe across its direction, so that it runs through a point; its neighbours follow.
 * @param segment counted from the beginning of the pipe
 */
export function moveSegment(sheet: Sheet, pipeId: string, segment: number, through: XY): Sheet {
  const pipe = sheet.pipes.find((p) => p.id === pipeId)
  if (!pipe) return sheet
  const points = polyline(sheet, pipe)
  const [a, b] = [points[segment], points[segment + 1]]
  if (!a || !b) return sheet
  const level = a[1] === b[1]
  if ((level ? a[1] : a[0]) === (level ? through[1] : through[0])) return sheet
  const aside = ([x, y]: XY): XY => (level ? [x, through[1]] : [through[0], y])
  const stub = (end: PipeEnd, at: XY): XY[] => {
    const side = endAt(sheet, end)?.side
    if (!side) return [at]
    const [x, y] = sideVector[side]
    return [at, [at[0] + STUB * x, at[1] + STUB * y]]
  }
  const before = segment === 0 ? stub(pipe.from, a) : points.slice(0, segment)
  const after = segment === points.length - 2 ? stub(pipe.to, b).reverse() : points.slice(segment + 2)
  const first = segment === 0 ? before[before.length - 1] : a
  const second = segment === points.length - 2 ? after[0] : b
  const corners = withoutSpikes([...before, aside(first), aside(second), ...after]).slice(1, -1)
  return changePipe(sheet, pipeId, { route: corners.map(([x, y]) => [x, y]), manualRoute: true })
}

/** Drops corners at which a line goes straight on, or back the way it came. */
function withoutSpikes(points: readonly XY[]): XY[] {
  const result: XY[] = []
  for (const p of points) {
    while (result.length > 1) {
      const [a, b] = result.slice(-2)
      if (!((a[0] === b[0] && b[0] === p[0]) || (a[1] === b[1] && b[1] === p[1]))) break
      result.pop()
    }
    const last = result[result.length - 1]
    if (!last || last[0] !== p[0] || last[1] !== p[1]) result.push(p)
  }
  return result
}

/**
 * The part of a pipe that an arrow key moves: the longest that lies across its direction, one between two corners before one
 * at an end.
 */
export function segmentAcross(
  sheet: Sheet,
  pipe: Pipe,
  [dx]: readonly [number, number],
): { segment: number; at: XY } | undefined {
  const points = polyline(sheet, pipe)
  let best: { segment: number; at: XY; rank: number } | undefined
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [points[i], points[i + 1]]
    if (dx ? a[0] !== b[0] : a[1] !== b[1]) continue
    const inner = i > 0 && i < points.length - 2
    const rank = Math.abs(a[0] - b[0]) + Math.abs(a[1] - b[1]) + (inner ? 1e6 : 0)
    if (!best || rank > best.rank) best = { segment: i, at: a, rank }
  }
  return best
}

/** Where two pipes cross without touching; none where they do not. */
export function crossingOf(sheet: Sheet, a: Pipe, b: Pipe): XY | undefined {
  if (lineDomain(a.lineType) !== lineDomain(b.lineType)) return undefined
  const [p, q] = [polyline(sheet, a), polyline(sheet, b)]
  const inside = (v: number, m: number, n: number) => v > Math.min(m, n) && v < Math.max(m, n)
  for (let i = 0; i + 1 < p.length; i++)
    for (let j = 0; j + 1 < q.length; j++) {
      const [one, other] = [p.slice(i, i + 2), q.slice(j, j + 2)]
      const [level, upright] = one[0][1] === one[1][1] ? [one, other] : [other, one]
      if (level[0][1] !== level[1][1] || upright[0][0] !== upright[1][0]) continue
      const at: XY = [upright[0][0], level[0][1]]
      if (inside(at[0], level[0][0], level[1][0]) && inside(at[1], upright[0][1], upright[1][1])) return at
    }
  return undefined
}

/** Connects two pipes where they cross. The same sheet where they do not. */
export function connectCrossing(sheet: Sheet, a: string, b: string): Sheet {
  const [first, second] = [a, b].map((id) => sheet.pipes.find((p) => p.id === id))
  const at = first && second && crossingOf(sheet, first, second)
  if (!at) return sheet
  const one = splitPipe(sheet, a, at)
  const two = splitPipe(one.sheet, b, at)
  const lead = (end: PipeEnd): PipeEnd =>
    'junction' in end && end.junction === two.junction ? { junction: one.junction } : end
  return {
    ...two.sheet,
    junctions: two.sheet.junctions.filter((j) => j.id !== two.junction),
    pipes: two.sheet.pipes.map((p) => ({ ...p, from: lead(p.from), to: lead(p.to) })),
  }
}

/** The pipes at a junction that run straight on through it, in pairs; none where four do not cross there. */
function straightPairs(sheet: Sheet, junctionId: string): [Pipe, Pipe][] | undefined {
  const here: PipeEnd = { junction: junctionId }
  const at = sheet.pipes.filter((p) => sameEnd(p.from, here) || sameEnd(p.to, here))
  if (at.length !== 4) return undefined
  const outward = (p: Pipe): readonly XY[] => {
    const points = polyline(sheet, p)
    return sameEnd(p.from, here) ? points : [...points].reverse()
  }
  const way = (p: Pipe) => {
    const [a, b] = outward(p)
    return `${Math.sign(b[0] - a[0])} ${Math.sign(b[1] - a[1])}`
  }
  const going = (direction: string) => at.find((p) => way(p) === direction)
  const pairs = [
    [going('-1 0'), going('1 0')],
    [going('0 1'), going('0 -1')],
  ]
  return pairs.flat().some((p) => !p) ? undefined : (pairs as [Pipe, Pipe][])
}
/** Whether a junction is where two lines cross, so that they can be disconnected. */
export const canDisconnectCrossing = (sheet: Sheet, junctionId: string) =>
  straightPairs(sheet, junctionId)?.every(([a, b]) => mergedPipe(sheet, a, b, junctionId)) === true

/** Makes two lines that cross of a junction of four pipes: each goes straight on. The same sheet where that is not so. */
export function disconnectCrossing(sheet: Sheet, junctionId: string): Sheet {
  const pairs = straightPairs(sheet, junctionId)
  const merged = pairs?.map(([a, b]) => mergedPipe(sheet, a, b, junctionId))
  if (!pairs || !merged || merged.some((p) => !p)) return sheet
  const gone = new Set(pairs.flat().map((p) => p.id))
  return {
    ...sheet,
    junctions: sheet.junctions.filter((j) => j.id !== junctionId),
    pipes: [...sheet.pipes.filter((p) => !gone.has(p.id)), ...(merged as Pipe[])],
  }
}

/** Distance of the enclosure from what it encloses, modules. */
const ROOM = 2
/** Encloses components with their labels: a manifold, or what belongs together. @returns the id of the enclosure as well */
export function encloseComponents(
  sheet: Sheet,
  ids: readonly string[],
  show: Show,
): { sheet: Sheet; id: string } | undefined {
  const written = labels(sheet, show)
  const boxes = sheet.components
    .filter((c) => ids.includes(c.id))
    .flatMap((c) => [boundsOnSheet(c), ...(written.has(c.id) ? [lettersBox(written.get(c.id)!)] : [])])
  if (!boxes.length) return undefined
  const left = Math.floor(Math.min(...boxes.map((b) => b.x))) - ROOM
  const top = Math.floor(Math.min(...boxes.map((b) => b.y))) - ROOM
  const right = Math.ceil(Math.max(...boxes.map((b) => b.x + b.w))) + ROOM
  const bottom = Math.ceil(Math.max(...boxes.map((b) => b.y + b.h))) + ROOM
  return addComponent(sheet, kindInRole('enclosure').name, {
    x: left,
    y: top,
    parameters: { width: String(right - left), height: String(bottom - top) },
  })
}
