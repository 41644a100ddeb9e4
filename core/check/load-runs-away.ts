import { motionsFrom, motions } from './motion'
import {
  canReach,
  nameOfComponent,
  oilEdges,
  OPENED,
  tankNodes,
  withoutRestrictions,
  type Rule,
} from './rule'

/** Pressure of the load that the valves and lines hold back by themselves, Pa. */
const SLIGHT = 10e5
const ANY = new Set(['throttle', 'spring', 'spool'] as const)

export const loadRunsAway: Rule = {
  id: 'load-runs-away',
  reason:
    'A load that drives its cylinder runs away from the oil behind it. Metering in cannot hold it: what flows out must be held back.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const free = withoutRestrictions(netlist, edges, ANY)
    const tanks = tankNodes(netlist)
    return motions(netlist).flatMap((m) => {
      if (m.outNode === undefined || (-m.minimumLoad - m.friction) / m.outletArea < SLIGHT) return []
      if (!canReach(free, m.outNode, tanks, OPENED)) return []
      return [
        {
          severity: 'warning' as const,
          message: `The load helps ${motionsFrom(m)} of ${nameOfComponent(m.of)}, and nothing holds back what leaves it at ${m.outletPort}: it runs away.`,
          remedy: 'Add a counterbalance valve, or a throttle that meters out, at that port.',
          location: { component: m.of.component.id, port: m.outletPort },
        },
      ]
    })
  },
}
