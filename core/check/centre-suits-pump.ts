/** Whether what is joined at rest suits the pump that supplies it, and whether its relief lets it take its stroke back. */
import { portKey } from '../sheet/netlist'
import { crackingPressure, settings } from './pressure'
import {
  ALWAYS,
  isJoined,
  nameOfComponent,
  oilEdges,
  reachable,
  restEdges,
  supplies,
  tankNodes,
  type Rule,
} from './rule'

export const centreSuitsPump: Rule = {
  id: 'centre-suits-pump',
  reason:
    'An open centre suits a fixed pump, a closed one a pump that takes its stroke back: the other way round all the oil goes round, or over a relief, while nothing is done.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const rest = restEdges(netlist, edges)
    const tanks = tankNodes(netlist)
    const commanded = netlist.components.some((c) => c.kind.traits?.connectedAtRest)
    return supplies(netlist)
      .filter(({ node }) => isJoined(netlist, node))
      .flatMap(({ of, supply, node }) => {
        const name = nameOfComponent(of)
        const location = { component: of.component.id, port: supply.port }
        const goesRound = [...reachable(rest, node, ALWAYS)].some((n) => tanks.has(n))
        if (supply.pump !== 'fixed' && goesRound)
          return [
            {
              severity: 'warning' as const,
              message: `While nothing is commanded, ${name} is open to tank: it never takes its stroke back, and ${show(supply.flow, 'flow')} go round.`,
              remedy: 'Set the valves up with a closed centre, or take a fixed pump.',
              location,
            },
          ]
        if (supply.pump === 'fixed' && !goesRound && commanded)
          return [
            {
              severity: 'warning' as const,
              message: `While nothing is commanded, the ${show(supply.flow, 'flow')} of ${name} have no way to tank but over its relief.`,
              remedy:
                'Set the valves up with an open centre, or ask for a supply that takes its stroke back.',
              location,
            },
          ]
        if (supply.pump === 'loadSensing' && supply.signal) {
          const signal = netlist.nodeOf.get(portKey(of.component.id, supply.signal))!
          if (!isJoined(netlist, signal))
            return [
              {
                severity: 'warning' as const,
                message: `No load signal reaches ${name}: it never gives more than its margin.`,
                remedy: `Lead the load signal of the valves to its port ${supply.signal}.`,
                location: { component: of.component.id, port: supply.signal },
              },
            ]
        }
        return []
      })
  },
}

export const reliefBelowCompensator: Rule = {
  id: 'relief-below-compensator',
  reason:
    'A compensator takes the stroke back at its setting. A relief valve that opens below it passes the whole flow before that.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const limits = settings(netlist, 'limits')
    return supplies(netlist)
      .filter(({ node }) => isJoined(netlist, node))
      .flatMap(({ of, supply, node }) => {
        if (supply.compensator === undefined) return []
        const line = reachable(edges, node, ALWAYS)
        const [lowest] = limits
          .filter((s) => line.has(s.node) && s.of.component.id !== of.component.id)
          .sort((a, b) => crackingPressure(a) - crackingPressure(b))
        if (!lowest || crackingPressure(lowest) >= supply.compensator) return []
        return [
          {
            severity: 'warning' as const,
            message: `${lowest.name} begins to open at ${show(crackingPressure(lowest), 'pressure')}, below the compensator of ${nameOfComponent(of)} at ${show(supply.compensator, 'pressure')}: up to ${show(supply.flow * lowest.pressure, 'power', 2)} of heat.`,
            remedy: 'Set the relief valve above the compensator by its override and a tenth.',
            location: { component: lowest.of.component.id, parameter: lowest.parameter },
          },
        ]
      })
  },
}
