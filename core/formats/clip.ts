/** What is seen of shapes that lie on one another: later ones hide earlier ones where they are filled. For formats without an order of drawing. */
import type { XY } from '../sheet/geometry'
import type { DrawnShape } from './plot'

/** Pieces shorter than this, and what lies this near to an edge, are as good as on it; modules. */
const NEAR = 1e-3
/** Corners by which an arc or a circle is followed where it is partly hidden. */
const CORNERS = 72

type Cover = (p: XY) => boolean

interface Filled {
  isInside: Cover
  /** Its outline, as straight parts. */
  readonly outline: readonly XY[]
}

function ring(at: XY, r: number): XY[] {
  return Array.from({ length: CORNERS + 1 }, (_, i): XY => {
    const a = (i / CORNERS) * 2 * Math.PI
    return [at[0] + r * Math.cos(a), at[1] + r * Math.sin(a)]
  })
}

function distanceTo([ax, ay]: XY, [bx, by]: XY, [x, y]: XY): number {
  const [dx, dy] = [bx - ax, by - ay]
  const length = dx * dx + dy * dy
  const s = length ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / length)) : 0
  return Math.hypot(x - ax - s * dx, y - ay - s * dy)
}

/** The area that a shape hides; none where it is not filled. */
function filled(shape: DrawnShape): Filled | undefined {
  if (!('fill' in shape) || shape.fill === 'none') return undefined
  if (shape.shape === 'circle') {
    const { at, r } = shape
    return { outline: ring(at, r), isInside: ([x, y]) => Math.hypot(x - at[0], y - at[1]) < r - NEAR }
  }
  const outline = [...shape.points, shape.points[0]]
  const isInside: Cover = (p) => {
    let odd = false
    for (let i = 0; i + 1 < outline.length; i++) {
      const [[ax, ay], [bx, by]] = [outline[i], outline[i + 1]]
      if (distanceTo(outline[i], outline[i + 1], p) < NEAR) return false
      if (ay > p[1] !== by > p[1] && p[0] < ax + ((p[1] - ay) / (by - ay)) * (bx - ax)) odd = !odd
    }
    return odd
  }
  return { outline, isInside }
}

/** Shares of the way from a to b at which it crosses the outline. */
function crossings(a: XY, b: XY, outline: readonly XY[]): number[] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const shares: number[] = []
  for (let i = 0; i + 1 < outline.length; i++) {
    const [p, q] = [outline[i], outline[i + 1]]
    const [ex, ey] = [q[0] - p[0], q[1] - p[1]]
    const across = dx * ey - dy * ex
    if (Math.abs(across) < 1e-12) continue
    const s = ((p[0] - a[0]) * ey - (p[1] - a[1]) * ex) / across
    const t = ((p[0] - a[0]) * dy - (p[1] - a[1]) * dx) / across
    if (s > 0 && s < 1 && t >= -1e-9 && t <= 1 + 1e-9) shares.push(s)
  }
  return shares
}

/** The runs of a polyline that lie outside an area. @returns the polyline itself where nothing of it is hidden */
function outside(points: readonly XY[], area: Filled): (readonly XY[])[] {
  const runs: XY[][] = []
  let run: XY[] = []
  let hidden = false
  const close = () => {
    if (run.length > 1) runs.push(run)
    run = []
  }
  for (let i = 0; i + 1 < points.length; i++) {
    const [a, b] = [points[i], points[i + 1]]
    const at = (s: number): XY => [a[0] + s * (b[0] - a[0]), a[1] + s * (b[1] - a[1])]
    const shares = [0, ...crossings(a, b, area.outline).sort((s, t) => s - t), 1]
    for (let k = 0; k + 1 < shares.length; k++) {
      const [from, to] = [shares[k], shares[k + 1]]
      if (area.isInside(at((from + to) / 2))) {
        hidden = true
        close()
        continue
      }
      if (!run.length) run.push(at(from))
      run.push(at(to))
    }
  }
  close()
  return hidden ? runs : [points]
}

function lineOf(shape: DrawnShape): readonly XY[] | undefined {
  switch (shape.shape) {
    case 'line':
      return shape.points
    case 'polygon':
      return [...shape.points, shape.points[0]]
    case 'circle':
      return ring(shape.at, shape.r)
    case 'arc':
      return Array.from({ length: CORNERS + 1 }, (_, i): XY => {
        const a = ((shape.from + ((shape.to - shape.from) * i) / CORNERS) * Math.PI) / 180
        return [shape.at[0] + shape.r * Math.cos(a), shape.at[1] + shape.r * Math.sin(a)]
      })
    case 'letters':
      return undefined
  }
}

/** The shapes with what later ones hide taken away. What is partly hidden becomes lines; the rest stays as it is. */
export function visibleParts(shapes: readonly DrawnShape[]): DrawnShape[] {
  const areas = shapes.map(filled)
  return shapes.flatMap((shape, i): DrawnShape[] => {
    const whole = lineOf(shape)
    if (!whole) return [shape]
    let runs = [whole]
    let touched = false
    for (const area of areas.slice(i + 1)) {
      if (!area) continue
      const left = runs.flatMap((run) => outside(run, area))
      if (left.length !== runs.length || left.some((run, k) => run !== runs[k])) touched = true
      runs = left
    }
    if (!touched) return [shape]
    const dash = 'dash' in shape && shape.dash ? { dash: shape.dash } : {}
    return runs.map((points) => ({ shape: 'line', points, ...dash }))
  })
}
