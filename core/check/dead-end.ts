import type { Rule } from './rule'

export const deadEnd: Rule = {
  id: 'dead-end',
  reason: 'A line that ends in nothing has no function, or was left unfinished.',
  check({ sheet, netlist }) {
    const ends = new Map<string, string[]>()
    for (const pipe of sheet.pipes)
      for (const end of [pipe.from, pipe.to])
        if ('joint' in end) ends.set(end.joint, [...(ends.get(end.joint) ?? []), pipe.id])
    return sheet.joints
      .filter((joint) => (ends.get(joint.id)?.length ?? 0) < 2)
      .map((joint) => {
        const node = netlist.nodes[netlist.nodeOfJunction.get(joint.id)!]
        return {
          severity: 'error' as const,
          message: `The line ${node?.name ?? joint.id} ends in nothing.`,
          remedy: 'Lead it to a port or another line, or delete it.',
          location: { joint: joint.id, pipe: ends.get(joint.id)?.[0] },
          fix: {
            label: 'Delete it',
            does: 'remove',
            ids: [joint.id, ...(ends.get(joint.id) ?? [])],
          } as const,
        }
      })
  },
}
