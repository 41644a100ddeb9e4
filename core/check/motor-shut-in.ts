import { portKey } from '../sheet/netlist'
import {
  ALWAYS,
  isJoined,
  permanentlyConnected,
  nameOfComponent,
  oilEdges,
  reachable,
  relievedFrom,
  restEdges,
  tankNodes,
  type Rule,
  type Subject,
} from './rule'

/** The lines of what turns and is shut in on both sides while nothing is commanded. */
function shutIn({ netlist }: Subject) {
  const edges = oilEdges(netlist)
  const rest = restEdges(netlist, edges)
  const tanks = tankNodes(netlist)
  const loops = netlist.components.flatMap(({ component, kind }) =>
    (kind.traits?.closedCircuitPorts ?? []).map((port: string) =>
      netlist.nodeOf.get(portKey(component.id, port))!,
    ),
  )
  const motors = netlist.components.flatMap((of) => {
    const turns = of.kind.traits?.continuousRotation
    if (!turns) return []
    const nodes: number[] = turns.map((port: string) => netlist.nodeOf.get(portKey(of.component.id, port))!)
    if (!nodes.every((node) => isJoined(netlist, node))) return []
    const lines = nodes.map((node) => permanentlyConnected(edges, node, tanks, of.component.id))
    const free = lines.map((line) =>
      [...line].some((node) => [...reachable(rest, node, ALWAYS)].some((n) => tanks.has(n))),
    )
    const pumped = lines.some((line) => loops.some((node) => line.has(node)))
    return free.some(Boolean) || pumped ? [] : [{ of, ports: turns, nodes, lines }]
  })
  return { netlist, edges, rest, tanks, motors }
}
export const motorWithoutRelief: Rule = {
  id: 'motor-without-relief',
  reason:
    'What a motor drives runs on when its lines are shut, and makes the motor a pump against a closed line.',
  check(subject) {
    const { edges, motors } = shutIn(subject)
    return motors.flatMap(({ of, ports, nodes }) => {
      const bare = ports.filter((_: string, i: number) => !relievedFrom(edges, nodes[i]))
      if (!bare.length) return []
      return [
        {
          severity: 'warning' as const,
          message: `The valve before ${nameOfComponent(of)} shuts it in, and there is no relief valve at ${bare.join(' and ')}: stopping it makes a peak of pressure.`,
          remedy: 'Add cross-port relief valves between it and the valve.',
          location: { component: of.component.id },
        },
      ]
    })
  },
}

export const motorRunsEmpty: Rule = {
  id: 'motor-runs-empty',
  reason:
    'A motor that is driven by its load draws oil; where none can come it cavitates, and brakes no longer.',
  check(subject) {
    const { rest, tanks, motors } = shutIn(subject)
    const fed = new Set([...tanks].flatMap((tank) => [...reachable(rest, tank, ALWAYS)]))
    return motors.flatMap(({ of, ports, lines }) => {
      const dry = ports.filter((_: string, i: number) => ![...lines[i]].some((node) => fed.has(node)))
      if (!dry.length) return []
      return [
        {
          severity: 'warning' as const,
          message: `When ${nameOfComponent(of)} runs on with its lines shut, no oil comes in at ${dry.join(' or ')}.`,
          remedy: 'Lead anti-cavitation checks to both lines, from the return under a little back pressure.',
          location: { component: of.component.id },
        },
      ]
    })
  },
}
