import { portKey } from '../sheet/netlist'
import type { RefusingRule } from './rule'
import { nameOf } from '../sheet/schema'

export const imposedTwice: RefusingRule = {
  refuses: true,
  id: 'held-twice',
  reason:
    'Two components that each hold the pressure, the speed or the position of one line cannot both be right.',
  check({ netlist }) {
    const imposing = new Map<number, (typeof netlist.components)[number][]>()
    for (const resolved of netlist.components)
      for (const port of resolved.kind.ports)
        if (port.imposes || port.drives) {
          const node = netlist.nodeOf.get(portKey(resolved.component.id, port.name))!
          imposing.set(node, [...(imposing.get(node) ?? []), resolved])
        }
    return [...imposing.values()].flatMap((list) =>
      list
        .slice(1)
        .filter(
          (other) =>
            other.kind.ports.some((p) => p.domain !== 'oil' && (p.imposes || p.drives)) ||
            JSON.stringify(other.values) !== JSON.stringify(list[0].values),
        )
        .map((other) => ({
          severity: 'error' as const,
          message: `${nameOf(list[0].component)} and ${nameOf(
            other.component,
          )} are connected directly, and each wants to hold the line at its own value.`,
          remedy: 'Remove one of them, or put a restriction between them.',
          location: { component: other.component.id },
        })),
    )
  },
}
