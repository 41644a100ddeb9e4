/**
 * Where pipes from one port or junction branch. Connected lines have a dot where they meet
 * (ISO 1219-1); these lie together as far as they run alike.
 */
import { endKey, lineDomain } from './netlist'
import { polyline, type XY } from './geometry'
import type { Junction, Sheet } from './schema'

export interface Branch {
  readonly at: XY
  /** The pipes that part there. */
  readonly pipes: readonly string[]
}

const same = (a: XY, b: XY) => a[0] === b[0] && a[1] === b[1]

/** The last point that two polylines from one start have in common; none where one lies wholly on the other. */
function parting(a: readonly XY[], b: readonly XY[]): XY | undefined {
  let at = a[0]
  for (let [i, j] = [1, 1]; ;) {
    if (i === a.length || j === b.length) return undefined
    const [p, q] = [a[i], b[j]]
    const ahead = (to: XY): XY => [Math.sign(to[0] - at[0]), Math.sign(to[1] - at[1])]
    // a part on a slant is alike only where it ends alike
    const slants = (to: XY) => to[0] !== at[0] && to[1] !== at[1]
    if (!same(ahead(p), ahead(q)) || ((slants(p) || slants(q)) && !same(p, q))) return at
    const far = (to: XY) => Math.abs(to[0] - at[0]) + Math.abs(to[1] - at[1])
    const [toP, toQ] = [far(p), far(q)]
    at = toP <= toQ ? p : q
    if (toP <= toQ) i++
    if (toQ <= toP) j++
  }
}

/** Junctions at which lines branch: three ends at least. Where two meet, or shafts and rods do, no dot is drawn (ISO 1219-1). */
export function branchingJunctions(sheet: Sheet): Junction[] {
  const ends = new Map<string, number>()
  for (const pipe of sheet.pipes) {
    if (lineDomain(pipe.lineType) !== 'oil') continue
    for (const end of [pipe.from, pipe.to])
      if ('junction' in end) ends.set(end.junction, (ends.get(end.junction) ?? 0) + 1)
  }
  return sheet.junctions.filter(({ id }) => (ends.get(id) ?? 0) > 2)
}

export function branches(sheet: Sheet): Branch[] {
  const from = new Map<string, { pipe: string; points: readonly XY[] }[]>()
  for (const pipe of sheet.pipes) {
    if (lineDomain(pipe.lineType) !== 'oil') continue
    const points = polyline(sheet, pipe)
    const ends = [
      [pipe.from, points],
      [pipe.to, [...points].reverse()],
    ] as const
    for (const [end, way] of ends) {
      const key = endKey(end)
      from.set(key, [...(from.get(key) ?? []), { pipe: pipe.id, points: way }])
    }
  }
  const junctions = new Set(sheet.junctions.map(({ x, y }) => `${x},${y}`))
  const found = new Map<string, Branch>()
  for (const ways of from.values())
    for (let i = 0; i < ways.length; i++)
      for (let j = i + 1; j < ways.length; j++) {
        const at = parting(ways[i].points, ways[j].points)
        const name = at?.join() ?? ''
        // a junction has a dot already, or two pipes only meet there
        if (!at || junctions.has(name)) continue
        const pipes = new Set([...(found.get(name)?.pipes ?? []), ways[i].pipe, ways[j].pipe])
        found.set(name, { at, pipes: [...pipes] })
      }
  return [...found.values()]
}
