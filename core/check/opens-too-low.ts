import { portKey } from '../sheet/netlist'
import { motions } from './motion'
import { settings } from './pressure'
import { isJoined, permanentlyConnected, nameOfComponent, oilEdges, tankNodes, type Rule } from './rule'

export const opensTooLow: Rule = {
  id: 'opens-too-low',
  reason:
    'A sequence valve that opens before the pressure which the first motion needs lets the second one go first, or both at once.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const moving = motions(netlist)
    return settings(netlist, 'opens').flatMap((valve) => {
      const { id } = valve.of.component
      // piloted from elsewhere, it waits for that line
      const pilot = (valve.of.kind.traits?.pilotPorts ?? [])
        .map((port: string) => netlist.nodeOf.get(portKey(id, port))!)
        .find((node: number) => isJoined(netlist, node))
      const line = permanentlyConnected(edges, pilot ?? valve.node, tanks, id)
      const behind = new Set(
        valve.of.kind.ports
          .filter((p) => p.name !== valve.port)
          .map((p) => netlist.nodeOf.get(portKey(id, p.name))!),
      )
      return moving
        .filter((m) => m.intoNode !== undefined && line.has(m.intoNode) && !behind.has(m.intoNode))
        .flatMap((m) => {
          const needed = (m.load + m.friction) / m.area
          if (needed < valve.pressure) return []
          return [
            {
              severity: 'warning' as const,
              message: `${valve.name} opens at ${show(valve.pressure, 'pressure')}, before ${nameOfComponent(m.of)} moves: that needs ${show(needed, 'pressure')} at ${m.inletPort}.`,
              remedy: 'Set it above that pressure, with a margin for friction and for what the lines take.',
              location: { component: id, parameter: valve.parameter },
            },
          ]
        })
    })
  },
}
