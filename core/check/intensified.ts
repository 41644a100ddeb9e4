import { motions } from './motion'
import { highestPressures } from './pressure'
import { ALWAYS, nameOfComponent, oilEdges, reachable, withoutRestrictions, type Rule } from './rule'

/** So little beyond is no finding. */
const HAIR = 1.02
const METERED = new Set(['throttle', 'spring'] as const)

export const intensified: Rule = {
  id: 'intensified',
  reason:
    'Metered out at its rod side, a cylinder makes more pressure there than the pump gives: by the ratio of its areas, and more where the load pulls.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const free = withoutRestrictions(netlist, edges, METERED)
    const highest = highestPressures(netlist)
    const of = new Map(netlist.components.map((c) => [c.component.id, c]))
    return motions(netlist).flatMap((m) => {
      if (m.outNode === undefined || m.intoNode === undefined || m.area <= m.outletArea) return []
      // up to the places where it is held back
      const line = reachable(free, m.outNode, ALWAYS)
      const metered = [...line].some((node) => free[node].length < edges[node].length)
      if (!metered || !(highest[m.intoNode] > -Infinity)) return []
      const reached = (highest[m.intoNode] * m.area - Math.min(m.minimumLoad, 0)) / m.outletArea
      const there = new Set([...line].flatMap((node) => netlist.nodes[node].ports.map((p) => p.component)))
      return [...there].flatMap((id) => {
        const part = of.get(id)!
        const parameter = part.kind.traits?.ratedPressure
        if (!parameter || (part.values[parameter] as number) * HAIR >= reached) return []
        return [
          {
            severity: 'warning' as const,
            message: `What leaves ${nameOfComponent(m.of)} at ${m.outletPort} is metered: the pressure there can rise to ${show(reached, 'pressure')}, and ${nameOfComponent(part)} is rated for ${show(part.values[parameter] as number, 'pressure')}.`,
            remedy: 'Lower the relief valve, choose a part with a higher rating, a thinner rod, or meter in.',
            location: { component: part.component.id, parameter },
          },
        ]
      })
    })
  },
}
