import { portKey } from '../sheet/netlist'
import { motions } from './motion'
import { isJoined, named, oilEdges, OPENED, reachable, tankNodes, type Rule } from './rule'

export const nothingDrives: Rule = {
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
      const { draws = [], drains = [] } = kind.traits ?? {}
      for (const port of kind.ports)
        if (port.domain === 'oil' && ![...draws, ...drains].includes(port.name))
          for (const node of reachable(edges, netlist.nodeOf.get(portKey(component.id, port.name))!, OPENED))
            pressed.add(node)
    }
    const turning = netlist.components.flatMap((of) =>
      (of.kind.traits?.turns ?? []).map((into: string) => ({
        of,
        into,
        intoNode: netlist.nodeOf.get(portKey(of.component.id, into)),
      })),
    )
    return [...motions(netlist), ...turning].flatMap(({ of, into, intoNode }) =>
      intoNode === undefined || pressed.has(intoNode) || !isJoined(netlist, intoNode)
        ? []
        : [
            {
              severity: 'warning' as const,
              message: `Nothing can put pressure on ${into} of ${named(of)}: no pump, accumulator or source gets there.`,
              cure: 'Follow its line back: a pipe or a pump is missing, or a check stands the wrong way round.',
              place: { component: of.component.id, port: into },
            },
          ],
    )
  },
}
