/** Facts about a machine that follow from its drawing: switches that cannot be on at the same time. */
import { buildNetlist } from '../sheet/netlist'
import type { Sheet } from '../sheet/schema'

/** Switches of which not all are on at once. */
export interface Exclusion {
  readonly all: readonly string[]
  readonly why: string
}

/** Switches that watch the same rod or shaft in ranges that lie apart. */
export function switchFacts(sheet: Sheet): Exclusion[] {
  const { netlist } = buildNetlist(sheet)
  const ranges = netlist.components.flatMap(({ component, kind, values }) => {
    const range = kind.traits?.range?.(values)
    const node = netlist.nodeOf.get(`${component.id}.${kind.ports[0]?.name}`)
    return range && node !== undefined ? [{ id: component.id, node, range }] : []
  })
  return ranges.flatMap((a, i) =>
    ranges.slice(i + 1).flatMap((b): Exclusion[] => {
      const apart = a.range[1] < b.range[0] || b.range[1] < a.range[0]
      return a.node === b.node && apart
        ? [{ all: [a.id, b.id], why: `${a.id} and ${b.id} watch one rod in ranges that lie apart` }]
        : []
    }),
  )
}
