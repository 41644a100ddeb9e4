import { portKey } from '../sheet/netlist'
import { isJoined, oilEdges, reachable, tankNodes, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

const PIPES = new Set(['pipe'] as const)

export const drainUnderPressure: Rule = {
  id: 'drain-under-pressure',
  reason:
    'Pressure in a drain adds to the setting of a valve, works against a pilot piston, and bursts the shaft seal of a motor.',
  check({ netlist }) {
    const tanks = tankNodes(netlist)
    const edges = oilEdges(netlist)
    /** A separate line to tank, with the friction of its pipe. */
    const leadsToTank = (start: number, own: string) =>
      [...reachable(edges, start, PIPES)].some((node) => tanks.has(node)) &&
      edges[start].every((edge) => edge.type === 'pipe' || edge.component === own)
    return netlist.components.flatMap(({ component, kind }) =>
      (kind.traits?.drainPorts ?? []).flatMap((port: string) => {
        const index = netlist.nodeOf.get(portKey(component.id, port))!
        const node = netlist.nodes[index]
        // an open drain is another rule's, and an unused one disturbs nothing
        if (tanks.has(index) || !isJoined(netlist, index) || leadsToTank(index, component.id)) return []
        return [
          {
            severity: 'warning' as const,
            message: `The drain ${port} of ${nameOf(component)} does not lead straight to tank, but into the line ${node.name}.`,
            remedy: 'Lead it to a reservoir by a line of its own.',
            location: { component: component.id, port },
          },
        ]
      }),
    )
  },
}
