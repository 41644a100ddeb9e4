import { portKey } from '../sheet/netlist'
import { loadPressure, motions } from './motion'
import { ALWAYS, nameOfComponent, oilEdges, reachable, tankNodes, type Rule } from './rule'

/** Sinking slower than this is let pass, m/s: a millimetre in ten minutes. */
const SLOW = 1e-3 / 600
/** Pressure at which spool leakage is given, Pa. */
const GIVEN_AT = 100e5

export const loadSinks: Rule = {
  id: 'load-sinks',
  reason: 'A spool leaks however it is shut: a load that hangs on one alone comes down, slowly and surely.',
  check({ netlist, show }) {
    const edges = oilEdges(netlist)
    const tanks = tankNodes(netlist)
    const spools = netlist.components.flatMap((of) => {
      const parameter = of.kind.traits?.spoolLeakage
      const leakage = parameter === undefined ? 0 : (of.values[parameter] as number)
      if (leakage === 0) return []
      const nodes = (of.kind.traits?.paths ?? [])
        .filter((path: { type: string }) => path.type === 'switched')
        .flatMap((path: { from: string; to: string }) =>
          [path.from, path.to].map((port) => netlist.nodeOf.get(portKey(of.component.id, port))!),
        )
      return nodes.length ? [{ of, nodes, leakage }] : []
    })
    if (!spools.length) return []
    return motions(netlist).flatMap((m) => {
      const load = loadPressure(m)
      if (!(load > 0) || m.outNode === undefined) return []
      // where oil may go by itself; a holding valve's check lets it in only
      const line = new Set([...reachable(edges, m.outNode, ALWAYS)].filter((node) => !tanks.has(node)))
      return spools.flatMap(({ of, nodes, leakage }) => {
        if (!nodes.some((node: number) => line.has(node))) return []
        const speed = (leakage * load) / GIVEN_AT / m.outletArea
        if (speed < SLOW) return []
        return [
          {
            severity: 'warning' as const,
            message: `The load of ${nameOfComponent(m.of)} hangs on the spool of ${nameOfComponent(of)} and sinks by its leakage: about ${show(speed * 60, 'length', 2)} in a minute.`,
            remedy:
              'Put a pilot-operated check or a counterbalance valve at the actuator, or a mechanical lock.',
            location: { component: m.of.component.id, port: m.outletPort },
          },
        ]
      })
    })
  },
}
