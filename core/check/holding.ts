import type { LoadHolding } from '../catalogue/kind'
import { portKey } from '../sheet/netlist'
import { loadPressure, motions, type PlacedMotion } from './motion'
import { highestPressures } from './pressure'
import { permanentlyConnected, nameOfComponent, oilEdges, tankNodes, type Rule, type Subject } from './rule'

/** A counterbalance valve is set this much above the pressure of its load; a hair is let pass. */
const MARGIN = 1.3
export const HAIR = 0.98

/**
 * Each valve that holds a load, with the motions whose oil lies at its port, or at its outlet. Before the outlet other such valves may stand,
 * with loads of their own.
 */
export function held({ netlist }: Subject, at: 'port' | 'outletPort' = 'port') {
  const valves = new Set(
    netlist.components.filter((of) => of.kind.traits?.loadHolding).map((of) => of.component.id),
  )
  const edges = oilEdges(netlist)
  const through =
    at === 'port' ? edges : edges.map((list) => list.filter((edge) => !valves.has(edge.component ?? '')))
  const tanks = tankNodes(netlist)
  const moving = motions(netlist).filter((m) => loadPressure(m) > 0)
  return netlist.components.flatMap((of) =>
    (of.kind.traits?.loadHolding ?? []).flatMap((holding: LoadHolding) => {
      const node = netlist.nodeOf.get(portKey(of.component.id, holding[at]))!
      const line = permanentlyConnected(through, node, tanks, of.component.id)
      return moving
        .filter((m) => line.has(m.outNode!))
        .map((m) => ({ of, holding, motion: m as PlacedMotion & { outNode: number }, edges, tanks }))
    }),
  )
}

export const holdsTooLittle: Rule = {
  id: 'holds-too-little',
  reason:
    'A counterbalance valve holds its load by its setting alone: about 1.3 times the pressure that the largest load makes.',
  check(subject) {
    const { show } = subject
    return held(subject).flatMap(({ of, holding, motion }) => {
      if (!holding.setting) return []
      const set = of.values[holding.setting] as number
      const load = loadPressure(motion)
      if (set >= HAIR * MARGIN * load) return []
      return [
        {
          severity: 'warning' as const,
          message:
            set < load
              ? `The load of ${nameOfComponent(motion.of)} makes ${show(load, 'pressure')} and opens ${nameOfComponent(of)}, set to ${show(set, 'pressure')}: it sinks.`
              : `${nameOfComponent(of)} is set to ${show(set, 'pressure')}, ${(set / load).toFixed(2)} times the ${show(load, 'pressure')} that the load of ${nameOfComponent(motion.of)} makes.`,
          remedy: `Set it to about ${MARGIN} times the pressure of the largest load: ${show(MARGIN * load, 'pressure')}.`,
          location: { component: of.component.id, parameter: holding.setting },
        },
      ]
    })
  },
}

export const pilotTooWeak: Rule = {
  id: 'pilot-too-weak',
  reason:
    'A piloted check opens against the pressure of its load, which the pilot itself may raise: where the ratio of areas does not make up for it, it never opens.',
  check(subject) {
    const { netlist, show } = subject
    const highest = highestPressures(netlist)
    return held(subject).flatMap(({ of, holding, motion, edges, tanks }) => {
      if (holding.setting) return []
      const ratio = of.values[holding.ratio] as number
      const pilot = netlist.nodeOf.get(portKey(of.component.id, holding.pilot))!
      const given = highest[pilot]
      if (!(given > -Infinity)) return []
      // oil at the pilot pushes on the other side of the piston as well, where that is the same line
      const coupled =
        motion.intoNode !== undefined && permanentlyConnected(edges, pilot, tanks).has(motion.intoNode)
          ? motion.area / motion.outletArea
          : 0
      const gain = ratio - coupled
      const load = loadPressure(motion)
      if (gain > 0 && load / gain <= given) return []
      return [
        {
          severity: 'warning' as const,
          message:
            gain <= 0
              ? `${nameOfComponent(of)} has a pilot ratio of ${show(ratio, 'ratio')}, not above the ratio of areas of ${nameOfComponent(motion.of)} (${coupled.toFixed(2)}): the pilot locks it the more, the higher it is.`
              : `To open against the load of ${nameOfComponent(motion.of)}, ${nameOfComponent(of)} needs a pilot of ${show(load / gain, 'pressure')}; its line is limited to ${show(given, 'pressure')}.`,
          remedy: 'Choose a higher pilot ratio or a valve with decompression, or more pilot pressure.',
          location: { component: of.component.id, parameter: holding.ratio },
        },
      ]
    })
  },
}
