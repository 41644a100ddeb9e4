import { ALWAYS, isJoined, oilEdges, portsWith, reachable, tankNodes, type RefusingRule } from './rule'

export const noTank: RefusingRule = {
  refuses: true,
  id: 'no-tank',
  reason: 'A pump in an open circuit takes its oil from a tank.',
  check({ netlist }) {
    const tanks = tankNodes(netlist)
    const edges = oilEdges(netlist)
    // oil comes from the tank to the suction port, so checks are passed in their free direction
    const supplied = new Set<number>()
    for (const tank of tanks) for (const node of reachable(edges, tank, ALWAYS)) supplied.add(node)
    return (
      portsWith(netlist, 'suctionPorts')
        // a port that is not connected yet is reported as such
        .filter(({ node }) => !supplied.has(node) && isJoined(netlist, node))
        .map(({ component, name, port }) => ({
          severity: tanks.size ? ('warning' as const) : ('error' as const),
          message: tanks.size
            ? `${name} gets no oil: no tank can supply its port ${port}.`
            : `${name} gets no oil: there is no tank on the sheet.`,
          remedy: tanks.size
            ? 'Lead its suction line to a reservoir; look for a check valve the wrong way round.'
            : 'Place a reservoir and lead the suction line to it.',
          location: { component, port },
        }))
    )
  },
}
