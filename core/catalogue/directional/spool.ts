/** Directional valves as rows of boxes: which ports each box joins, drawn and computed. */
import type { Restriction } from '../kind'
import { arrow, line, rectangle, type Point, type Shape } from '../symbol'
import { dot, restriction } from '../symbol-elements'

/** Joined groups of ports in one box: "P>A" an arrow, "A-B-T" a common chamber, "A~T" a throttled way. */
export type Box = readonly string[]

/** Share of its full opening that a throttled way has. */
export const THROTTLED = 0.08
const SEPARATORS = /[->~]/

/** Ports of the actuator side; all others (P, T, R, S) are of the supply side. */
const WORKING = new Set(['A', 'B'])

/**
 * The connections of a box as port pairs. A land of the spool lies between a working port and a
 * supply port, so in a common chamber oil goes from A to B by way of P or T; only where a chamber
 * has ports of one side alone are these joined directly.
 */
export function pairsOf(box: Box): [string, string][] {
  return box.flatMap((group) => {
    const ports = group.split(SEPARATORS)
    const working = ports.filter((p) => WORKING.has(p))
    const supply = ports.filter((p) => !WORKING.has(p))
    if (working.length && supply.length)
      return working.flatMap((w) => supply.map((s): [string, string] => [s, w]))
    return ports.flatMap((a, i) => ports.slice(i + 1).map((b): [string, string] => [a, b]))
  })
}

/** The edges of a spool that somebody leads hold back what comes from the load. */
export const spoolEdges = [
  { from: 'A', to: 'T', element: 'spool' },
  { from: 'B', to: 'T', element: 'spool' },
] as const satisfies readonly Restriction[]

/** One path through the valve and how far it is open in each box. */
export interface SpoolPath {
  readonly from: number
  readonly to: number
  /** Share of its full opening in each box. */
  readonly open: Float64Array
}

export function spoolPaths(boxes: readonly Box[], ports: readonly string[]): SpoolPath[] {
  const paths = new Map<string, { from: number; to: number; open: number[] }>()
  boxes.forEach((box, index) => {
    for (const group of box)
      for (const [a, b] of pairsOf([group])) {
        const ends = [ports.indexOf(a), ports.indexOf(b)].sort((m, n) => m - n)
        const key = ends.join()
        if (!paths.has(key)) paths.set(key, { from: ends[0], to: ends[1], open: boxes.map(() => 0) })
        paths.get(key)!.open[index] = group.includes('~') ? THROTTLED : 1
      }
  })
  return [...paths.values()].map((path) => ({ ...path, open: Float64Array.from(path.open) }))
}

/**
 * Opening 0…1 of a path at spool position `at` (box index, real): full in a box that has it,
 * falling linearly to zero halfway to one that lacks it (closed crossover), or right across
 * to it (open crossover).
 */
export function pathOpening(path: SpoolPath, at: number, openCrossover: boolean): number {
  const last = path.open.length - 1
  const y = at < 0 ? 0 : at > last ? last : at
  const k = y >= last ? last - 1 : Math.floor(y)
  const here = path.open[k]
  const next = path.open[k + 1]
  if (here && next) return here + (next - here) * (y - k)
  if (!here && !next) return 0
  const away = here ? y - k : k + 1 - y
  const fall = openCrossover ? 1 - away : 1 - 2 * away
  return fall > 0 ? fall * (here + next) : 0
}

export const BOX = 4

/** Width of the boxes of a section, whose lines lie two modules apart. */
export const SECTION_BOX = 6

/** Draws a row of boxes 4 M high whose middle is at x = 0. @param places where each port meets its box, from the middle of the box */
export function drawBoxes(
  boxes: readonly Box[],
  places: Readonly<Record<string, Point>>,
  width = BOX,
): Shape[] {
  const shapes: Shape[] = []
  boxes.forEach((box, index) => {
    const x0 = (index - (boxes.length - 1) / 2) * width
    shapes.push(rectangle(x0 - width / 2, -BOX / 2, width, BOX))
    const place = (port: string): Point => [places[port][0] + x0, places[port][1]]
    const used = new Set<string>()
    for (const group of box) {
      const ports = group.split(SEPARATORS)
      ports.forEach((port) => used.add(port))
      if (group.includes('>')) {
        shapes.push(...arrow(place(ports[0]), place(ports[1])))
      } else if (group.includes('~')) {
        // down to mid height, there to the other port
        const [[ax, ay], b] = ports.map(place)
        shapes.push(
          line([ax, ay], [ax, 0], [b[0], 0], b),
          ...restriction(ax, ay / 2, 'sharp', 'vertical', 0.6),
        )
      } else {
        // a common chamber: a bar at mid height with a stub to every port
        const points = ports.map(place)
        const xs = points.map((p) => p[0])
        shapes.push(line([Math.min(...xs), 0], [Math.max(...xs), 0]))
        for (const p of points) shapes.push(line([p[0], 0], p))
        if (ports.length > 2)
          for (const x of new Set(xs)) if (xs.filter((v) => v === x).length > 1) shapes.push(dot(x, 0))
      }
    }
    for (const port of Object.keys(places))
      if (!used.has(port)) {
        const [x, y] = place(port)
        const end = y > 0 ? y - 0.9 : y + 0.9
        shapes.push(line([x, y], [x, end]), line([x - 0.45, end], [x + 0.45, end]))
      }
  })
  return shapes
}
