/** What the lines of a sheet serve for, and how fast oil may flow in them. */
import { lineRoles } from './line-roles'
import type { Netlist } from './netlist'
import type { Sheet } from './schema'

export type LineService = 'suction' | 'return' | 'pressure'

/** The service of each pipe of oil: what comes from the tank, what goes to it, and all that stands under pressure. */
export function lineServices(sheet: Sheet, netlist: Netlist): ReadonlyMap<string, LineService> {
  const roles = lineRoles(sheet, netlist)
  return new Map(
    netlist.oilPipes.map(({ pipe }) => {
      const role = roles.get(netlist.nodeOfPipe.get(pipe.id) ?? -1)?.role
      return [
        pipe.id,
        role === 'suction' ? 'suction' : role === 'return' || role === 'case' ? 'return' : 'pressure',
      ]
    }),
  )
}
