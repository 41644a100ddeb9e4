import { settings } from './pressure'
import {
  ALWAYS,
  bidirectional,
  nameOfComponent,
  oilEdges,
  portsWith,
  reachable,
  tankNodes,
  type Edge,
  type Rule,
} from './rule'
import { isRelieved } from './relieved'

export const reliefShutOff: Rule = {
  id: 'relief-shut-off',
  reason: 'A relief valve guards a pump only while nothing between the two can shut.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const around = bidirectional(edges).map((list, node) =>
      tanks.has(node) ? [] : list.filter((edge) => edge.type !== 'relief'),
    )
    const reliefs = settings(netlist, 'limits')
    return portsWith(netlist, 'deliveryPorts').flatMap((pump) => {
      const line = reachable(edges, pump.node, ALWAYS)
      if (isRelieved(netlist, edges, line)) return []
      return reliefs.flatMap((relief) => {
        const way = wayBetween(around, pump.node, relief.node)
        if (!way) return []
        const bar = way.find((edge) => !line.has(edge.to))
        const by = netlist.components.find((c) => c.component.id === bar?.component)
        return [
          {
            severity: 'warning' as const,
            message: by
              ? `${nameOfComponent(by)} can shut ${relief.name} off from ${pump.name}: the pump is then without a relief valve.`
              : `${relief.name} on the line of ${pump.name} cannot let oil go to tank: something behind it is shut.`,
            remedy:
              'Connect the relief valve to the pump line before any valve or check, and lead its outlet straight to tank.',
            location: { component: relief.of.component.id, port: relief.port },
          },
        ]
      })
    })
  },
}

/** The edges from one node to another, the fewest; none where there is no way. */
function wayBetween(edges: readonly Edge[][], from: number, to: number): Edge[] | undefined {
  const ways = new Map<number, Edge[]>([[from, []]])
  for (const [node, way] of ways)
    for (const edge of edges[node]) if (!ways.has(edge.to)) ways.set(edge.to, [...way, edge])
  return ways.get(to)
}
