import { portKey } from '../sheet/netlist'
import { nameOf } from '../sheet/schema'
import { ANY_PATH, oilEdges, portsWith, supplies, tankNodes, type Rule } from './rule'

export const neverFills: Rule = {
  id: 'never-fills',
  reason:
    'An accumulator that no pump can reach stays empty; a check valve the wrong way round is the usual cause.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const supplied = [...portsWith(netlist, 'deliveryPorts'), ...supplies(netlist)].map(({ node }) => node)
    if (!supplied.length) return []
    // from the pumps, not through a tank
    const fed = new Set(supplied)
    for (const node of fed)
      if (!tanks.has(node)) for (const edge of edges[node]) if (ANY_PATH.has(edge.type)) fed.add(edge.to)
    return netlist.components.flatMap(({ component, kind }) => {
      const store = kind.traits?.energyStorage
      if (!store || fed.has(netlist.nodeOf.get(portKey(component.id, store.port))!)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} never fills: no pump can bring oil to it.`,
          remedy: 'Look for a check valve the wrong way round between the pump and it.',
          location: { component: component.id, port: store.port },
        },
      ]
    })
  },
}
