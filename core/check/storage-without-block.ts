import { portKey } from '../sheet/netlist'
import { oilEdges, reachable, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

/** Ways that nothing can shut. */
const FIXED = new Set(['open', 'pipe'] as const)

export const storageWithoutBlock: Rule = {
  id: 'store-without-block',
  reason:
    'An accumulator stays under pressure with the machine switched off: it must be possible to shut it off and to discharge it to tank, and its own relief must protect it.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const nodeOf = (id: string, port: string) => netlist.nodeOf.get(portKey(id, port))!
    const guarded = new Set(
      netlist.components.flatMap(({ component, kind }) =>
        kind.traits?.safetyBlockPort ? [nodeOf(component.id, kind.traits.safetyBlockPort)] : [],
      ),
    )
    return netlist.components.flatMap(({ component, kind }) => {
      const store = kind.traits?.energyStorage
      if (!store) return []
      const line = reachable(edges, nodeOf(component.id, store.port), FIXED)
      if ([...line].some((node) => guarded.has(node))) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} has no safety block: it can be neither shut off nor discharged.`,
          remedy: 'Put the safety block of an accumulator between it and its line, with its T to tank.',
          location: { component: component.id, port: store.port },
        },
      ]
    })
  },
}
