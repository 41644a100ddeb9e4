import { portKey } from '../sheet/netlist'
import { isJoined, tankNodes, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const drainUnderPressure: Rule = {
  id: 'drain-under-pressure',
  reason:
    'Pressure in a drain adds to the setting of a valve, works against a pilot piston, and bursts the shaft seal of a motor.',
  check({ netlist }) {
    const tanks = tankNodes(netlist)
    return netlist.components.flatMap(({ component, kind }) =>
      (kind.traits?.drains ?? []).flatMap((port: string) => {
        const index = netlist.nodeOf.get(portKey(component.id, port))!
        const node = netlist.nodes[index]
        // an open drain is another rule's, and an unused one disturbs nothing
        if (tanks.has(index) || !isJoined(netlist, index)) return []
        return [
          {
            severity: 'warning' as const,
            message: `The drain ${port} of ${nameOf(component)} does not lead straight to tank, but into the line ${node.name}.`,
            cure: 'Lead it to a reservoir by a line of its own.',
            place: { component: component.id, port },
          },
        ]
      }),
    )
  },
}
