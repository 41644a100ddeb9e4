import { portKey } from '../sheet/netlist'
import {
  ALWAYS,
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
