/** Whether a line can always get rid of its oil over a relief. */
import { portKey, type Netlist } from '../sheet/netlist'
import { canReach, tankNodes, type Edge } from './rule'

const TO_TANK = new Set(['open', 'oneWay', 'pipe', 'relief'] as const)

export function isRelieved(netlist: Netlist, edges: readonly Edge[][], line: ReadonlySet<number>): boolean {
  const tanks = tankNodes(netlist)
  return netlist.components.some(({ component, kind }) =>
    (kind.traits?.paths ?? []).some(
      (path: { from: string; to: string; type: string }) =>
        path.type === 'relief' &&
        line.has(netlist.nodeOf.get(portKey(component.id, path.from))!) &&
        canReach(edges, netlist.nodeOf.get(portKey(component.id, path.to))!, tanks, TO_TANK),
    ),
  )
}
