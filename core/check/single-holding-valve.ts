import type { LoadHolding } from '../catalogue/kind'
import { portKey, type Netlist } from '../sheet/netlist'
import { motions } from './motion'
import { nameOfComponent, oilEdges, OPENED, tankNodes, pathKey, type Edge, type Rule } from './rule'

export const singleHoldingValve: Rule = {
  id: 'single-holding-valve',
  reason:
    'A single valve that fails lets the load come down. Where people may be under it, two valves that do not fail together or a mechanical lock are asked for; the local code decides.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const keeps = new Set(
      netlist.components.flatMap(({ component, kind }) =>
        (kind.traits?.loadHolding ?? []).map((h: LoadHolding) =>
          pathKey(
            netlist.nodeOf.get(portKey(component.id, h.port))!,
            netlist.nodeOf.get(portKey(component.id, h.outletPort))!,
            component.id,
          ),
        ),
      ),
    )
    return motions(netlist).flatMap((m) => {
      if (!m.of.component.peopleUnder || m.outNode === undefined || !(m.minimumLoad < 0)) return []
      const valves = fewestValves(edges, m.outNode, tanks, keeps)
      if (valves + locksOf(netlist, m.of.component.id) > 1) return []
      return [
        {
          severity: 'warning' as const,
          message: `People may be under what ${nameOfComponent(m.of)} holds, and ${valves ? 'a single valve keeps' : 'no valve made for it keeps'} its oil at ${m.outletPort}.`,
          remedy:
            'Add a second holding valve that does not depend on the first, or a mechanical lock on its rod; have it judged by a qualified person.',
          location: { component: m.of.component.id, port: m.outletPort },
        },
      ]
    })
  },
}

/** Mechanical locks on the rods of a component. */
function locksOf(netlist: Netlist, component: string): number {
  const rods = new Set(
    netlist.components
      .find((c) => c.component.id === component)!
      .kind.ports.filter((p) => p.domain === 'rod')
      .map((p) => netlist.nodeOf.get(portKey(component, p.name))!),
  )
  return netlist.components.filter(({ component: { id }, kind }) => {
    const port = kind.traits?.mechanicalLock
    return port !== undefined && rods.has(netlist.nodeOf.get(portKey(id, port))!)
  }).length
}

/** The fewest holding valves that oil passes from a node to tank; Infinity where there is no way. */
function fewestValves(
  edges: readonly Edge[][],
  start: number,
  tanks: ReadonlySet<number>,
  keeps: ReadonlySet<string>,
): number {
  const fewest = new Map([[start, 0]])
  const queue = [start]
  for (const node of queue)
    for (const edge of edges[node]) {
      if (!OPENED.has(edge.type as 'open')) continue
      const count = fewest.get(node)! + (keeps.has(pathKey(node, edge.to, edge.component)) ? 1 : 0)
      if (count < (fewest.get(edge.to) ?? Infinity)) {
        fewest.set(edge.to, count)
        queue.push(edge.to)
      }
    }
  return Math.min(Infinity, ...[...tanks].map((tank) => fewest.get(tank) ?? Infinity))
}
