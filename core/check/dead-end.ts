import type { RefusingRule } from './rule'

export const deadEnd: RefusingRule = {
  refuses: true,
  id: 'dead-end',
  reason: 'A line that ends in nothing has no function, or was left unfinished.',
  check({ sheet, netlist }) {
    const ends = new Map<string, string[]>()
    for (const pipe of sheet.pipes)
      for (const end of [pipe.from, pipe.to])
        if ('junction' in end) ends.set(end.junction, [...(ends.get(end.junction) ?? []), pipe.id])
    return sheet.junctions
      .filter((junction) => (ends.get(junction.id)?.length ?? 0) < 2)
      .map((junction) => {
        const node = netlist.nodes[netlist.nodeOfJunction.get(junction.id)!]
        return {
          severity: 'error' as const,
          message: `The line ${node?.name ?? junction.id} ends in nothing.`,
          remedy: 'Lead it to a port or another line, or delete it.',
          location: { junction: junction.id, pipe: ends.get(junction.id)?.[0] },
          fix: {
            label: 'Delete it',
            does: 'remove',
            ids: [junction.id, ...(ends.get(junction.id) ?? [])],
          } as const,
        }
      })
  },
}
