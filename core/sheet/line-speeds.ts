/** By which of the usual speeds each line of a sheet is judged. */
import { lineRoles } from './line-roles'
import type { Netlist } from './netlist'
import type { Sheet } from './schema'

export type SpeedClass = 'suction' | 'return' | 'pressure'

/** The class of each pipe of oil: what comes from the tank, what goes to it, and all that stands under pressure. */
export function speedClasses(sheet: Sheet, netlist: Netlist): ReadonlyMap<string, SpeedClass> {
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
