import type { LoadHolding } from '../catalogue/kind'
import { portKey } from '../sheet/netlist'
import {
  canReach,
  nameOfComponent,
  oilEdges,
  OPENED,
  tankNodes,
  withoutRestrictions,
  type Rule,
} from './rule'

const COUNTER = new Set(['throttle', 'spring'] as const)

export const counterbalanceBackPressure: Rule = {
  id: 'counterbalance-back-pressure',
  reason:
    'Back pressure behind a counterbalance valve whose spring chamber is not vented raises its setting 1 + R times as much.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const free = withoutRestrictions(netlist, edges, COUNTER)
    const tanks = tankNodes(netlist)
    return netlist.components.flatMap((of) =>
      (of.kind.traits?.loadHolding ?? []).flatMap((holding: LoadHolding) => {
        const ratio = of.values[holding.ratio] as number
        if (!holding.vented || of.values[holding.vented] || !(ratio > 0)) return []
        const out = netlist.nodeOf.get(portKey(of.component.id, holding.outletPort))!
        if (!canReach(edges, out, tanks, OPENED) || canReach(free, out, tanks, OPENED)) return []
        return [
          {
            severity: 'warning' as const,
            message: `Whatever leaves ${nameOfComponent(of)} is throttled on its way to tank: back pressure there counts ${1 + ratio} times against its opening.`,
            remedy: 'Choose a valve with a vented spring chamber, or throttle before it.',
            location: { component: of.component.id, parameter: holding.vented },
          },
        ]
      }),
    )
  },
}
