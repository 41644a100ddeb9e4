/** How a flexible hose is drawn: it sags in the middle of its longest straight part (ISO 1219-1: a line that hangs through). */
import type { Arc, Polyline } from '../catalogue/symbol'
import { longestPart, type XY } from './geometry'

/** Width of what hangs through, modules; less where the part is short. */
const WIDTH = 3
const SHARE = 0.6
/** Half the angle of the arc, degrees. */
const HALF = 60

export interface Hose {
  readonly shapes: readonly (Polyline | Arc)[]
  /** Where the hose begins and ends: a dot stands at each. */
  readonly ends: readonly [XY, XY]
  /** Where it hangs lowest. */
  readonly lowest: XY
}

/** @returns none where it has no length */
export function hoseOf(points: readonly XY[]): Hose | undefined {
  const longest = longestPart(points)
  if (!longest) return undefined
  const { a, b, length, index } = longest
  const width = Math.min(WIDTH, SHARE * length)
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
  // it hangs down, and beside an upright part to the right
  const down: XY = ux > 1e-9 || (Math.abs(ux) <= 1e-9 && uy < 0) ? [-uy, ux] : [uy, -ux]
  const r = width / 2 / Math.sin((HALF * Math.PI) / 180)
  const rise = r * Math.cos((HALF * Math.PI) / 180)
  const along = (from: XY, d: number, e = 0): XY => [
    from[0] + ux * d + down[0] * e,
    from[1] + uy * d + down[1] * e,
  ]
  const start = along(a, (length - width) / 2)
  const end = along(a, (length + width) / 2)
  const at = along(a, length / 2, -rise)
  const turn = (Math.atan2(down[1], down[0]) * 180) / Math.PI
  return {
    shapes: [
      { shape: 'line', points: [...points.slice(0, index + 1), start] },
      { shape: 'arc', at, r, from: turn - HALF, to: turn + HALF },
      { shape: 'line', points: [end, ...points.slice(index + 1)] },
    ],
    ends: [start, end],
    lowest: along(a, length / 2, r - rise),
  }
}
