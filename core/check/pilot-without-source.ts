import { portKey } from '../sheet/netlist'
import { ANY_WAY, oilEdges, portsWith, reachable, type Rule } from './rule'

export const pilotWithoutSource: Rule = {
  id: 'pilot-without-source',
  reason: 'A pilot line that no pressure can reach never moves the valve it leads to.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const fed = new Set<number>()
    const from = [
      ...portsWith(netlist, 'delivers'),
      ...portsWith(netlist, 'draws'),
      ...portsWith(netlist, 'tank'),
    ]
    // pumps without a trait to deliver feed from their other ports
    const pumps = new Set(portsWith(netlist, 'draws').map((p) => p.component))
    const outlets = netlist.components
      .filter(
        ({ component, kind }) =>
          pumps.has(component.id) || kind.traits?.stores || kind.traits?.setting?.does === 'limits',
      )
      .flatMap(({ component, kind }) =>
        kind.ports
          .filter((p) => p.domain === 'oil')
          .map((p) => netlist.nodeOf.get(portKey(component.id, p.name))!),
      )
    for (const node of [...from.map((p) => p.node), ...outlets])
      for (const n of reachable(edges, node, ANY_WAY)) fed.add(n)
    // what a load moves makes pressure of its own
    for (const { component, kind } of netlist.components)
      if (kind.family === 'actuators')
        for (const port of kind.ports)
          if (port.domain === 'oil')
            for (const n of reachable(edges, netlist.nodeOf.get(portKey(component.id, port.name))!, ANY_WAY))
              fed.add(n)
    return netlist.components.flatMap(({ component, kind }) =>
      (kind.traits?.pilots ?? []).flatMap((port: string) => {
        const index = netlist.nodeOf.get(portKey(component.id, port))
        if (index === undefined || fed.has(index)) return []
        const node = netlist.nodes[index]
        if (node.ports.length === 1 && !node.pipes.length) return []
        return [
          {
            severity: 'warning' as const,
            message: `Nothing can put pressure on the pilot line to port ${port} of ${component.designation ?? component.id}.`,
            cure: 'Join it to a line that a pump or a load keeps under pressure.',
            place: { component: component.id, port },
          },
        ]
      }),
    )
  },
}
