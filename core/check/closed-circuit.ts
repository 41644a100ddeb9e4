import { portKey } from '../sheet/netlist'
import { pumpLimits } from './pressure'
import {
  ALWAYS,
  constantFlow,
  isJoined,
  relievedFrom,
  nameOfComponent,
  oilEdges,
  portsWith,
  reachable,
  tankNodes,
  type Rule,
  type Subject,
} from './rule'

/** The pumps whose two lines form a circuit closed in itself, with these lines. */
function loops({ netlist }: Subject) {
  const edges = oilEdges(netlist)
  const tanks = tankNodes(netlist)
  return netlist.components.flatMap((of) => {
    const ports = of.kind.traits?.closedCircuitPorts
    if (!ports) return []
    const nodes: number[] = ports.map((port: string) => netlist.nodeOf.get(portKey(of.component.id, port))!)
    if (!nodes.every((node) => isJoined(netlist, node))) return []
    // one side straight to tank: it is an open circuit
    if (nodes.some((node) => [...reachable(edges, node, ALWAYS)].some((n) => tanks.has(n)))) return []
    return [{ of, ports, nodes, edges, tanks }]
  })
}

export const loopWithoutCharge: Rule = {
  id: 'loop-without-charge',
  reason:
    'A closed circuit loses oil by leakage all the time; without a charge pump that fills whichever side is low, it runs empty and cavitates.',
  check(subject) {
    return loops(subject).flatMap(({ of, ports, nodes, edges, tanks }) => {
      const given = [...portsWith(subject.netlist, 'deliveryPorts').map((p) => p.node), ...tanks]
      const fed = new Set(given.flatMap((node) => [...reachable(edges, node, ALWAYS)]))
      const dry = ports.filter((_: string, i: number) => !fed.has(nodes[i]))
      if (!dry.length) return []
      return [
        {
          severity: 'warning' as const,
          message:
            dry.length === 2
              ? `No charge pump fills the closed circuit of ${nameOfComponent(of)}.`
              : `The charge of ${nameOfComponent(of)} reaches one side only: nothing fills ${dry[0]} when that side is low.`,
          remedy: 'Lead the oil of a charge pump through a check to each of the two lines.',
          location: { component: of.component.id, port: dry[0] },
        },
      ]
    })
  },
}

export const loopWithoutRelief: Rule = {
  id: 'loop-without-relief',
  reason: 'Either line of a closed circuit can be the one under pressure, when driving or when braking.',
  check(subject) {
    return loops(subject).flatMap(({ of, ports, nodes, edges }) => {
      const bare = ports.filter((_: string, i: number) => !relievedFrom(edges, nodes[i]))
      if (!bare.length) return []
      return [
        {
          severity: 'warning' as const,
          message:
            bare.length === 2
              ? `The closed circuit of ${nameOfComponent(of)} has no relief valve.`
              : `The closed circuit of ${nameOfComponent(of)} has a relief valve for one direction only: none limits the line at ${bare[0]}.`,
          remedy: 'Add cross-port relief valves between the two lines.',
          location: { component: of.component.id, port: bare[0] },
        },
      ]
    })
  },
}

/** Charge pressure of a closed circuit, Pa: enough to fill it, and no more than the low side is made for. */
const CHARGE = { least: 8e5, most: 50e5 }
/** The least share of the flow of the loop that its charge pump gives. */
const CHARGE_SHARE = 0.08

export const chargeOfLoop: Rule = {
  id: 'charge-of-loop',
  reason:
    'A charge pump makes up for leakage and flushing: some tenth to a fifth of the flow of the loop, at 15 to 30 bar.',
  check(subject) {
    const { netlist, show } = subject
    const edges = oilEdges(netlist)
    return loops(subject).flatMap(({ of, nodes }) => {
      const name = nameOfComponent(of)
      const charges = pumpLimits(netlist, edges).filter(({ pump }) => {
        if (pump.component === of.component.id) return false
        const reached = reachable(edges, pump.node, ALWAYS)
        return nodes.some((node) => reached.has(node))
      })
      return charges.flatMap(({ pump, limit }) => {
        const found = []
        if (limit.pressure < CHARGE.least || limit.pressure > CHARGE.most)
          found.push({
            severity: 'warning' as const,
            message: `${limit.name} sets the charge pressure of ${name} to ${show(limit.pressure, 'pressure')}; 15 to 30 bar are usual.`,
            remedy:
              limit.pressure < CHARGE.least
                ? 'Raise it: the low side of the loop cavitates.'
                : 'Lower it: it heats the oil, and the low side is not made for it.',
            location: { component: limit.of.component.id, parameter: limit.parameter },
          })
        const charge = netlist.components.find((c) => c.component.id === pump.component)!
        const given = constantFlow(charge)
        const { displacement, ratedSpeed } = of.values
        if (given !== undefined && typeof displacement === 'number' && typeof ratedSpeed === 'number') {
          const share = given / ((displacement * ratedSpeed) / (2 * Math.PI))
          if (share < CHARGE_SHARE)
            found.push({
              severity: 'warning' as const,
              message: `The charge pump ${pump.name} gives ${Math.round(100 * share)} % of the flow of ${name}: too little for leakage and flushing.`,
              remedy: 'Take one of a tenth to a fifth of the displacement of the loop.',
              location: { component: pump.component },
            })
        }
        return found
      })
    })
  },
}
