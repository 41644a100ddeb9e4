import { portKey } from '../sheet/netlist'
import { placedPorts } from '../sheet/geometry'
import type { RefusingRule } from './rule'
import { nameOf } from '../sheet/schema'

export const openPort: RefusingRule = {
  refuses: true,
  id: 'open-port',
  reason: 'Oil leaves through an open port, and a shaft that is not connected does not turn.',
  check({ netlist }) {
    return netlist.components.flatMap(({ component, kind }) =>
      kind.ports.flatMap((port) => {
        const node = netlist.nodes[netlist.nodeOf.get(portKey(component.id, port.name))!]
        // a port that the values do not have is not drawn
        if (!placedPorts(component).some((p) => p.port === port.name)) return []
        if (port.mayStayOpen || node.ports.length > 1 || node.pipes.length > 0) return []
        // an idle tank or motor disturbs nothing
        if (port.imposes) return []
        const name = nameOf(component)
        return [
          {
            severity: 'error' as const,
            incomplete: true as const,
            message:
              port.domain !== 'oil'
                ? `The ${port.domain} of ${name} is not connected.`
                : `Port ${port.name} of ${name} (${port.role}) is open.`,
            remedy:
              port.domain !== 'oil'
                ? `Connect it to the ${port.domain} of ${port.domain === 'shaft' ? 'a motor' : 'a cylinder'}.`
                : 'Connect it, or close it with a plugged port.',
            location: { component: component.id, port: port.name },
            ...(port.domain === 'oil'
              ? {
                  fix: {
                    label: 'Close it with a plug',
                    does: 'plug',
                    component: component.id,
                    port: port.name,
                  } as const,
                }
              : {}),
          },
        ]
      }),
    )
  },
}
