import type { LoadHolding } from '../catalogue/kind'
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
  tankNodes,
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
    const edges = oilEdges(netlist)
    const rest = restEdges(netlist, edges)
    const tanks = tankNodes(netlist)
    const known = held(subject)
    return netlist.components.flatMap((of) =>
      (of.kind.traits?.loadHolding ?? []).flatMap((holding: LoadHolding) => {
        const { id } = of.component
        const [pilot, load] = [holding.pilot, holding.port].map((port) =>
          netlist.nodeOf.get(portKey(id, port))!,
        )
        if (!isJoined(netlist, pilot)) return []
        // the load of a shaft is not known before it runs
        const motion = known
          .filter((k) => k.of === of && k.holding === holding)
          .map((k) => k.motion)
          .sort((m, n) => loadPressure(n) - loadPressure(m))
          .at(0)
        const actuator = motion ? nameOfComponent(motion.of) : 'the actuator'
        const name = nameOfComponent(of)
        const found = (message: string) => [
          {
            severity: 'warning' as const,
            message,
            remedy: `Lead ${holding.pilot} to the other side of ${actuator}.`,
            location: { component: id, port: holding.pilot },
          },
        ]
        const ratio = of.values[holding.ratio] as number
        const pressure = motion ? loadPressure(motion) : 0
        // a seat opens where the pilot, by its ratio, passes the load
        const opensAt = holding.setting ? (of.values[holding.setting] as number) : pressure
        const opens = (piloted: number) =>
          (holding.setting ? pressure : 0) + ratio * piloted >= HAIR * opensAt
        const line = permanentlyConnected(edges, pilot, tanks, id)
        if (line.has(load))
          return found(
            motion && !opens(pressure)
              ? `${name} is piloted from the line that it holds: oil at the other side of ${actuator} does not open it.`
              : `${name} is piloted from the line that it holds: the load of ${actuator} opens it, and sinks.`,
          )
        if (!opens(highest[pilot]) || canReach(rest, pilot, tanks, ALWAYS)) return []
        const pump = supplied.find(({ node }) => line.has(node))
        return pump
          ? found(
              `${name} is piloted from the line of ${pump.name}, before any valve: pressure there opens it, whatever it is for, and the load of ${actuator} sinks.`,
            )
          : []
      }),
    )
  },
}
