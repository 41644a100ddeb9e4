import type { Holding } from '../catalogue/kind'
import { portKey } from '../sheet/netlist'
import { motions } from './motion'
import { named, oilEdges, OPENED, tankNodes, wayKey, type Edge, type Rule } from './rule'

export const singleHoldingValve: Rule = {
  id: 'single-holding-valve',
  reason:
    'A single valve that fails lets the load come down. Where people may be under it, two valves that do not fail together or a mechanical lock are asked for; the local code decides.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const keeps = new Set(
      netlist.components.flatMap(({ component, kind }) =>
        (kind.traits?.holds ?? []).map((h: Holding) =>
          wayKey(
            netlist.nodeOf.get(portKey(component.id, h.port))!,
            netlist.nodeOf.get(portKey(component.id, h.outOf))!,
            component.id,
          ),
        ),
      ),
    )
    return motions(netlist).flatMap((m) => {
      if (!m.of.component.peopleUnder || m.outNode === undefined || !(m.least < 0)) return []
      const valves = fewestValves(edges, m.outNode, tanks, keeps)
      if (valves > 1) return []
      return [
        {
          severity: 'warning' as const,
          message: `People may be under what ${named(m.of)} holds, and ${valves ? 'a single valve keeps' : 'no valve made for it keeps'} its oil at ${m.outOf}.`,
          cure: 'Put a second holding valve that does not depend on the first, or a mechanical lock that you accept this for; have it judged by a qualified person.',
          place: { component: m.of.component.id, port: m.outOf },
        },
      ]
    })
  },
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
      if (!OPENED.has(edge.how as 'open')) continue
      const count = fewest.get(node)! + (keeps.has(wayKey(node, edge.to, edge.by)) ? 1 : 0)
      if (count < (fewest.get(edge.to) ?? Infinity)) {
        fewest.set(edge.to, count)
        queue.push(edge.to)
      }
    }
  return Math.min(Infinity, ...[...tanks].map((tank) => fewest.get(tank) ?? Infinity))
}
