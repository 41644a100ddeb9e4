import type { Netlist } from '../sheet/netlist'
import { motions } from './motion'
import {
  constantFlow,
  canReach,
  nameOfComponent,
  oilEdges,
  OPENED,
  onEveryPath,
  portsWith,
  reachable,
  tankNodes,
  withoutRestrictions,
  type Rule,
} from './rule'

/** The pressure drop rises with the square of the flow: reported from this multiple of the rated flow on. */
const BEYOND = 1.5
const METERED = new Set(['throttle'] as const)

/** The flow of each pump that always delivers, m³/s, with its line. */
const pumps = (netlist: Netlist) =>
  portsWith(netlist, 'deliveryPorts').flatMap((pump) => {
    const of = netlist.components.find((c) => c.component.id === pump.component)!
    const flow = constantFlow(of)
    return flow === undefined ? [] : [{ node: pump.node, flow }]
  })

export const beyondRatedFlow: Rule = {
  id: 'beyond-rated-flow',
  reason:
    'A part that is too small for its flow takes pressure, and turns it into heat: twice the flow, four times the drop.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    // what is metered gets less than the pump gives, and is not judged
    const full = withoutRestrictions(netlist, edges, METERED)
    const tanks = tankNodes(netlist)
    const driven = pumps(netlist).flatMap((pump) => {
      const fed = reachable(full, pump.node, OPENED)
      return motions(netlist)
        .filter((m) => m.intoNode !== undefined && fed.has(m.intoNode))
        .flatMap(({ intoNode, outNode, area, outletArea: outArea }) => {
          const into = {
            flow: pump.flow,
            passed: onEveryPath(edges, pump.node, new Set([intoNode!]), OPENED),
          }
          // what is metered on its way out is not judged there
          return outNode === undefined || !canReach(full, outNode, tanks, OPENED)
            ? [into]
            : [
                into,
                {
                  flow: (pump.flow * outArea) / area,
                  passed: onEveryPath(edges, outNode, tanks, OPENED),
                },
              ]
        })
    })
    return netlist.components.flatMap((of) => {
      const nominal = of.kind.traits?.nominalPoint
      if (!nominal) return []
      const rated = of.values[nominal.flow] as number
      // a motion is judged where all its oil has to come through here
      const flow = Math.max(0, ...driven.filter((d) => d.passed.has(of.component.id)).map((d) => d.flow))
      if (flow <= BEYOND * rated) return []
      const drop = of.values[nominal.drop] as number
      return [
        {
          severity: 'warning' as const,
          message: `Up to ${show(flow, 'flow', 3)} go through ${nameOfComponent(of)}, rated for ${show(rated, 'flow', 3)}: about ${show(drop * (flow / rated) ** 2, 'pressure')} are lost there.`,
          remedy: 'Choose a larger one.',
          location: { component: of.component.id, parameter: nominal.flow },
        },
      ]
    })
  },
}
