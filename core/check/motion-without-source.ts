import { portKey } from '../sheet/netlist'
import { motions } from './motion'
import { isJoined, nameOfComponent, oilEdges, OPENED, reachable, tankNodes, type Rule } from './rule'

export const motionWithoutSource: Rule = {
  id: 'nothing-drives',
  reason:
    'A motion that no pump, accumulator or source can reach never happens: a line is missing, or a valve never opens to it.',
  check({ netlist }) {
    const tanks = tankNodes(netlist)
    // an ideal source ends a line as a tank does, and drives it all the same
    const sources = new Set(
      netlist.components.flatMap(({ component, kind }) =>
        kind.family !== 'sources'
          ? []
          : kind.ports.map((port) => netlist.nodeOf.get(portKey(component.id, port.name))),
      ),
    )
    const edges = oilEdges(netlist).map((list, node) => (tanks.has(node) && !sources.has(node) ? [] : list))
    const pressed = new Set<number>()
    for (const { component, kind } of netlist.components) {
      if (kind.family !== 'supply' && kind.family !== 'sources') continue
      const { suctionPorts = [], drainPorts = [] } = kind.traits ?? {}
      for (const port of kind.ports)
        if (port.domain === 'oil' && ![...suctionPorts, ...drainPorts].includes(port.name))
          for (const node of reachable(edges, netlist.nodeOf.get(portKey(component.id, port.name))!, OPENED))
            pressed.add(node)
    }
    const turning = netlist.components.flatMap((of) =>
      (of.kind.traits?.continuousRotation ?? []).map((inletPort: string) => ({
        of,
        inletPort,
        intoNode: netlist.nodeOf.get(portKey(of.component.id, inletPort)),
      })),
    )
    return [...motions(netlist), ...turning].flatMap(({ of, inletPort, intoNode }) =>
      intoNode === undefined || pressed.has(intoNode) || !isJoined(netlist, intoNode)
        ? []
        : [
            {
              severity: 'warning' as const,
              message: `Nothing can put pressure on ${inletPort} of ${nameOfComponent(of)}: no pump, accumulator or source is connected to it.`,
              remedy:
                'Follow its line back: a pipe or a pump is missing, or a check valve is installed the wrong way round.',
              location: { component: of.component.id, port: inletPort },
            },
          ],
    )
  },
}
