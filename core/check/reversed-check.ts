import { portKey } from '../sheet/netlist'
import { ANY_WAY, oilEdges, portsWith, reachable, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const reversedCheck: Rule = {
  id: 'reversed-check',
  reason: 'A check valve the wrong way round shuts off all that lies behind it.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const sources = [...portsWith(netlist, 'delivers'), ...portsWith(netlist, 'tank')]
    const fed = new Set<number>()
    for (const { node } of sources) for (const n of reachable(edges, node, ANY_WAY)) fed.add(n)
    return netlist.components.flatMap(({ component, kind }) => {
      const path = kind.traits?.paths?.find((p: { how: string }) => p.how === 'oneWay')
      if (!path || kind.traits!.paths!.length > 1) return []
      const inlet = netlist.nodeOf.get(portKey(component.id, path.from))!
      if (fed.has(inlet)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} can never open: no oil reaches its inlet ${path.from}.`,
          cure: 'Turn it round.',
          place: { component: component.id, port: path.from },
          fix: { label: 'Turn it round', does: 'turnRound', component: component.id } as const,
        },
      ]
    })
  },
}
