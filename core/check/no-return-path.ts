import { motions } from './motion'
import { nameOfComponent, oilEdges, OPENED, reachable, tankNodes, type Rule } from './rule'
import { portKey } from '../sheet/netlist'

export const noReturnPath: Rule = {
  id: 'no-way-out',
  reason: 'Oil that comes into a chamber must get out again, or the motion goes one way and never back.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    // what a pump, an accumulator or a source takes back is no trap either
    const sinks = new Set(tankNodes(netlist))
    for (const { component, kind } of netlist.components)
      if (kind.family === 'supply' || kind.family === 'sources')
        for (const port of kind.ports)
          if (port.domain === 'oil') sinks.add(netlist.nodeOf.get(portKey(component.id, port.name))!)
    const seen = new Set<number>()
    return motions(netlist).flatMap(({ of, outletPort: outOf, outNode }) => {
      if (outNode === undefined || seen.has(outNode)) return []
      seen.add(outNode)
      const out = reachable(edges, outNode, OPENED)
      if ([...out].some((node) => sinks.has(node))) return []
      // a check valve that leads in from outside is what keeps the oil in
      const bar = edges.flatMap((list, from) =>
        out.has(from) ? [] : list.filter((edge) => edge.type === 'oneWay' && out.has(edge.to)),
      )[0]
      const by = netlist.components.find((c) => c.component.id === bar?.component)
      if (!by) return []
      return [
        {
          severity: 'warning' as const,
          message: `Oil gets through ${nameOfComponent(by)} to ${outOf} of ${nameOfComponent(of)}, and never out again.`,
          remedy: 'Add a return path beside the check, or choose one that a pilot opens.',
          location: { component: by.component.id },
        },
      ]
    })
  },
}
