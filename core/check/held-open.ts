import { portKey } from '../sheet/netlist'
import { HAIR, held } from './holding'
import { loadPressure } from './motion'
import { highestPressures } from './pressure'
import {
  ALWAYS,
  canReach,
  constantFlow,
  isJoined,
  nameOfComponent,
  oilEdges,
  permanentlyConnected,
  portsWith,
  restEdges,
  supplies,
  type Rule,
} from './rule'

export const heldOpen: Rule = {
  id: 'held-open',
  reason:
    'A holding valve shuts only while nothing presses on its pilot: where the load itself or the pump does, the load sinks.',
  check(subject) {
    const { netlist } = subject
    const always = netlist.components.filter((of) => constantFlow(of) !== undefined)
    const supplied = [
      ...portsWith(netlist, 'deliveryPorts').filter((p) =>
        always.some((of) => of.component.id === p.component),
      ),
      ...supplies(netlist).map(({ of, node }) => ({ name: nameOfComponent(of), node })),
    ]
    const highest = highestPressures(netlist)
    const rest = restEdges(netlist, oilEdges(netlist))
    return held(subject).flatMap(({ of, holding, motion, edges, tanks }) => {
      const { id } = of.component
      const pilot = netlist.nodeOf.get(portKey(id, holding.pilot))!
      if (!isJoined(netlist, pilot)) return []
      const load = netlist.nodeOf.get(portKey(id, holding.port))!
      const location = { component: id, port: holding.pilot }
      const name = nameOfComponent(of)
      const line = permanentlyConnected(edges, pilot, tanks, id)
      const found = (message: string, remedy: string) => [
        { severity: 'warning' as const, message, remedy, location },
      ]
      const remedy = `Lead ${holding.pilot} to the other side of ${nameOfComponent(motion.of)}.`
      const ratio = of.values[holding.ratio] as number
      const pressure = loadPressure(motion)
      // a seat opens where the pilot, by its ratio, passes the load
      const opensAt = holding.setting ? (of.values[holding.setting] as number) : pressure
      const opens = (piloted: number) => (holding.setting ? pressure : 0) + ratio * piloted >= HAIR * opensAt
      if (line.has(load))
        return found(
          opens(pressure)
            ? `${name} is piloted from the line that it holds: the load of ${nameOfComponent(motion.of)} opens it, and sinks.`
            : `${name} is piloted from the line that it holds, and opens by that alone: oil at the other side of ${nameOfComponent(motion.of)} does not open it.`,
          remedy,
        )
      if (!opens(highest[pilot]) || canReach(rest, pilot, tanks, ALWAYS)) return []
      const pump = supplied.find(({ node }) => line.has(node))
      if (pump)
        return found(
          `${name} is piloted from the line of ${pump.name}, before any valve: while the pump runs it is open, and the load of ${nameOfComponent(motion.of)} sinks.`,
          remedy,
        )
      return []
    })
  },
}

export const holdsBackwards: Rule = {
  id: 'holds-backwards',
  reason: 'A holding valve holds at one of its ports only; towards the other the oil passes its check.',
  check(subject) {
    const { netlist } = subject
    const edges = oilEdges(netlist)
    return held(subject, 'outletPort').flatMap(({ of, holding, motion, tanks }) => {
      const { id } = of.component
      const load = netlist.nodeOf.get(portKey(id, holding.port))!
      // held by both of its ports: a way past it, which other rules find
      if (permanentlyConnected(edges, load, tanks, id).has(motion.outNode)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOfComponent(of)} has the load of ${nameOfComponent(motion.of)} at ${holding.outletPort}: it holds at ${holding.port}, and lets this load go.`,
          remedy: `Exchange its ports: ${holding.port} to the actuator.`,
          location: { component: id, port: holding.outletPort },
        },
      ]
    })
  },
}
