import { portKey } from '../sheet/netlist'
import { ANY_PATH, oilEdges, portsWith, reachable, type Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const reversedCheck: Rule = {
  id: 'reversed-check',
  reason: 'A check valve the wrong way round shuts off all that lies behind it.',
  check({ netlist }) {
    const edges = oilEdges(netlist)
    const sources = [...portsWith(netlist, 'deliveryPorts'), ...portsWith(netlist, 'tankPorts')]
    const fed = new Set<number>()
    for (const { node } of sources) for (const n of reachable(edges, node, ANY_PATH)) fed.add(n)
    return netlist.components.flatMap(({ component, kind }) => {
      const path = kind.traits?.paths?.find((p: { type: string }) => p.type === 'oneWay')
      if (!path || kind.traits!.paths!.length > 1) return []
      const inlet = netlist.nodeOf.get(portKey(component.id, path.from))!
      if (fed.has(inlet)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} can never open: no oil reaches its inlet ${path.from}.`,
          remedy: 'Swap its ports.',
          location: { component: component.id, port: path.from },
          fix: { label: 'Swap its ports', does: 'swapPorts', component: component.id } as const,
        },
      ]
    })
  },
}
