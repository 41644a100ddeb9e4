import { portKey } from '../sheet/netlist'
import { pumpLimits } from './pressure'
import { ALWAYS, constantFlow, oilEdges, reachable, restEdges, tankNodes, type Rule } from './rule'

export const noUnloadingPath: Rule = {
  id: 'no-way-to-unload',
  reason:
    'A fixed pump whose oil can only go over the relief while nothing is commanded turns all its power into heat.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const rest = restEdges(netlist, edges)
    const tanks = tankNodes(netlist)
    // valves that open by pressure alone may unload it: a circuit with one is not judged
    const judged = new Set(
      netlist.components.filter((c) => c.kind.traits?.connectedAtRest).map((c) => c.component.id),
    )
    return pumpLimits(netlist, edges).flatMap(({ pump, limit, line }) => {
      const of = netlist.components.find((c) => c.component.id === pump.component)!
      const flow = constantFlow(of)
      if (flow === undefined) return []
      if ([...reachable(rest, pump.node, ALWAYS)].some((node) => tanks.has(node))) return []
      const others = netlist.components.some(
        ({ component, kind }) =>
          !judged.has(component.id) &&
          (kind.traits?.paths ?? []).some(
            (p: { from: string; type: string }) =>
              p.type === 'switched' && line.has(netlist.nodeOf.get(portKey(component.id, p.from))!),
          ),
      )
      // without any valve there is nothing that could be commanded, and so no idle state
      const commanded = netlist.components.some(
        ({ component, kind }) =>
          judged.has(component.id) &&
          kind.ports.some(
            (p) => p.domain === 'oil' && line.has(netlist.nodeOf.get(portKey(component.id, p.name))!),
          ),
      )
      if (others || !commanded) return []
      return [
        {
          severity: 'warning' as const,
          message: `While nothing is commanded, all the oil of ${pump.name} goes over ${limit.name}: ${show(flow * limit.pressure, 'power', 2)} of heat at ${show(limit.pressure, 'pressure')}.`,
          remedy:
            'Choose a valve whose centre lets the pump go to tank, an unloading valve, a vented relief, or a variable pump.',
          location: { component: pump.component, port: pump.port },
        },
      ]
    })
  },
}
