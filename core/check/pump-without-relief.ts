import { isRelieved } from './relieved'
import { ALWAYS, isJoined, oilEdges, portsWith, reachable, tankNodes, type RefusingRule } from './rule'

export const pumpWithoutRelief: RefusingRule = {
  refuses: true,
  id: 'pump-without-relief',
  reason:
    'A fixed pump goes on delivering when its line is shut; without a relief the pressure rises until something bursts.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const pumps = portsWith(netlist, 'deliveryPorts')
    return pumps.flatMap(({ component, name, port, node }) => {
      // a port that is not connected yet is reported as such
      if (!isJoined(netlist, node)) return []
      const line = reachable(edges, node, ALWAYS)
      if (isRelieved(netlist, edges, line)) return []
      const open = [...line].some((n) => tanks.has(n))
      const others = pumps.filter((p) => p.component !== component && line.has(p.node))
      return [
        {
          severity: others.length === 0 ? ('warning' as const) : ('error' as const),
          message: others.length
            ? `${name} and ${others.map((o) => o.name).join(', ')} pump against each other without a relief valve.`
            : `The line of ${name} has no relief valve${open ? '' : ': it has nowhere to go when the valves are shut'}.`,
          remedy:
            'Connect a relief valve to the pump line, before any check or directional valve, and lead it to tank.',
          location: { component, port },
        },
      ]
    })
  },
}
