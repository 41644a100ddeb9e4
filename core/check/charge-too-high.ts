import { portKey } from '../sheet/netlist'
import { highestPressures } from './pressure'
import type { Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const chargeTooHigh: Rule = {
  id: 'charge-too-high',
  reason: 'An accumulator takes oil only above its precharge: set beyond the relief it stays empty.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return netlist.components.flatMap(({ component, kind, values }) => {
      const store = kind.traits?.energyStorage
      if (!store?.minimumPressure) return []
      const least = values[store.minimumPressure] as number
      const reached = highest[netlist.nodeOf.get(portKey(component.id, store.port))!]
      if (!(reached > -Infinity) || least < reached) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} begins to fill at ${show(least, 'pressure')}, but its line is limited to ${show(reached, 'pressure')}: it stays empty.`,
          remedy: 'Lower it: about nine tenths of the lowest working pressure.',
          location: { component: component.id, parameter: store.minimumPressure },
        },
      ]
    })
  },
}
