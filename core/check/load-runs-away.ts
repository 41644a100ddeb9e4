import { driven, motions } from './motion'
import { gets, named, oilEdges, OPENED, tankNodes, withoutRestraints, type Rule } from './rule'

/** Pressure of the load that the valves and lines hold back by themselves, Pa. */
const SLIGHT = 10e5
const ANY = new Set(['throttle', 'spring', 'spool'] as const)

export const loadRunsAway: Rule = {
  id: 'load-runs-away',
  reason:
    'A load that drives its cylinder runs away from the oil behind it. Metering in cannot hold it: what flows out must be held back.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const free = withoutRestraints(netlist, edges, ANY)
    const tanks = tankNodes(netlist)
    return motions(netlist).flatMap((m) => {
      if (m.outNode === undefined || (-m.least - m.friction) / m.outArea < SLIGHT) return []
      if (!gets(free, m.outNode, tanks, OPENED)) return []
      return [
        {
          severity: 'warning' as const,
          message: `The load helps ${driven(m)} of ${named(m.of)}, and nothing holds back what leaves it at ${m.outOf}: it runs away.`,
          cure: 'Put a counterbalance valve, or a throttle that meters out, at that port.',
          place: { component: m.of.component.id, port: m.outOf },
        },
      ]
    })
  },
}
