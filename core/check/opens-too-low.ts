import { portKey } from '../sheet/netlist'
import type { Netlist } from '../sheet/netlist'
import { motions, type PlacedMotion } from './motion'
import { settings } from './pressure'
import {
  canReach,
  constantFlow,
  isJoined,
  permanentlyConnected,
  nameOfComponent,
  oilEdges,
  OPENED,
  tankNodes,
  type Rule,
} from './rule'

/** Bulk modulus of oil with a little air, Pa, for an estimate. */
const OIL_MODULUS = 1.2e9

/**
 * The pressure that a motion may take as it starts, Pa: breaking away, and with the flow of the pump coming at once the mass swings
 * on the oil, p = F/A + v·√(K·m/V), v = Q/A, V the oil of its line. None where the flow or the mass is not known.
 */
function startingPeak(
  m: PlacedMotion,
  netlist: Netlist,
  edges: ReturnType<typeof oilEdges>,
  tanks: ReadonlySet<number>,
): number | undefined {
  if (!m.mass || m.intoNode === undefined) return undefined
  const feeding = netlist.components.flatMap((of) => {
    const flow = constantFlow(of)
    if (flow === undefined) return []
    const reaches = (of.kind.traits?.deliveryPorts ?? []).some((port: string) =>
      canReach(edges, netlist.nodeOf.get(portKey(of.component.id, port))!, new Set([m.intoNode!]), OPENED),
    )
    return reaches ? [flow] : []
  })
  if (!feeding.length) return undefined
  const line = permanentlyConnected(edges, m.intoNode, tanks)
  const volume = [...line].reduce((sum, node) => sum + netlist.nodes[node].volume, 0)
  if (!(volume > 0)) return undefined
  const speed = Math.max(...feeding) / m.area
  return (m.load + m.friction) / m.area + speed * Math.sqrt((OIL_MODULUS * m.mass) / volume)
}

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
          if (needed < valve.pressure) {
            const peak = startingPeak(m, netlist, edges, tanks)
            if (peak === undefined || peak < valve.pressure) return []
            return [
              {
                severity: 'warning' as const,
                message: `${valve.name} opens at ${show(valve.pressure, 'pressure')}: ${nameOfComponent(m.of)} needs only ${show(needed, 'pressure')} at ${m.inletPort} to keep moving, but starting it may take up to ${show(peak, 'pressure')}, and the order is lost.`,
                remedy: 'Set it above the peak of starting, or start more gently.',
                location: { component: id, parameter: valve.parameter },
              },
            ]
          }
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
