import { portKey } from '../sheet/netlist'
import { ANY_PATH, isJoined, oilEdges, portsWith, reachable, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const pilotWithoutSource: Rule = {
  id: 'pilot-without-source',
  reason: 'A pilot line that no pressure can reach never moves the valve it leads to.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const fed = new Set<number>()
    const feed = (node: number) => {
      if (fed.has(node)) return
      for (const n of reachable(edges, node, ANY_PATH)) fed.add(n)
    }
    // a pump, a store, a line that is limited, and what a load moves: all their oil
    for (const { component, kind } of netlist.components) {
      const {
        suctionPorts,
        deliveryPorts,
        energyStorage,
        pressureSettings: settings = [],
      } = kind.traits ?? {}
      if (
        !suctionPorts &&
        !deliveryPorts &&
        !energyStorage &&
        !settings.some((s: { does: string }) => s.does === 'limits') &&
        kind.family !== 'actuators'
      )
        continue
      for (const port of kind.ports)
        if (port.domain === 'oil') feed(netlist.nodeOf.get(portKey(component.id, port.name))!)
    }
    for (const { node } of portsWith(netlist, 'tankPorts')) feed(node)
    return netlist.components.flatMap(({ component, kind }) =>
      (kind.traits?.pilotPorts ?? []).flatMap((port: string) => {
        const index = netlist.nodeOf.get(portKey(component.id, port))
        if (index === undefined || fed.has(index)) return []
        if (!isJoined(netlist, index)) return []
        return [
          {
            severity: 'warning' as const,
            message: `Nothing can put pressure on the pilot line to port ${port} of ${nameOf(component)}.`,
            remedy: 'Connect it to a line that a pump or a load keeps under pressure.',
            location: { component: component.id, port },
          },
        ]
      }),
    )
  },
}
