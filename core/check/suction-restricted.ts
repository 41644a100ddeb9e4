import { portKey } from '../sheet/netlist'
import { permanentlyConnected, nameOfComponent, oilEdges, portsWith, tankNodes, type Rule } from './rule'

export const suctionRestricted: Rule = {
  id: 'suction-restricted',
  reason:
    'Only the air over the tank pushes oil into a pump, one bar at most: a restriction in its suction line starves it.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const inTheWay = netlist.components.filter(
      (of) => of.kind.traits?.filters || of.kind.traits?.restrictions,
    )
    return portsWith(netlist, 'suctionPorts').flatMap((pump) => {
      const line = permanentlyConnected(edges, pump.node, tanks)
      const within = (component: string, ...ports: string[]) =>
        ports.every((port) => line.has(netlist.nodeOf.get(portKey(component, port))!))
      return inTheWay.flatMap((of) => {
        const { filters, restrictions } = of.kind.traits ?? {}
        const { id } = of.component
        const finding = (message: string, remedy: string) => [
          { severity: 'warning' as const, message, remedy, location: { component: id } },
        ]
        if (filters && !of.values[filters.bypass] && within(id, filters.from, filters.to))
          return finding(
            `${nameOfComponent(of)} is in the suction line of ${pump.name} without a bypass: clogged, it starves the pump.`,
            'Choose one with a bypass valve and an indicator, or filter in the return line.',
          )
        if (restrictions?.some((r: { from: string; to: string }) => within(id, r.from, r.to)))
          return finding(
            `${nameOfComponent(of)} throttles the suction line of ${pump.name}.`,
            'Remove it, or meter behind the pump.',
          )
        return []
      })
    })
  },
}
