import { portKey } from '../sheet/netlist'
import { highestPressures } from './pressure'
import type { Rule } from './rule'
import { nameOf } from '../sheet/schema'

export const ratingBelowSetting: Rule = {
  id: 'rating-below-setting',
  reason: 'A part bursts, leaks or wears out where the relief valve allows a pressure above its rating.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return netlist.components.flatMap(({ component, kind, values }) => {
      const parameter = kind.traits?.ratedPressure
      if (!parameter) return []
      const rating = values[parameter] as number
      const reached = Math.max(
        ...kind.ports
          .filter((p) => p.domain === 'oil')
          .map((p) => highest[netlist.nodeOf.get(portKey(component.id, p.name))!]),
      )
      if (!(reached > rating)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} is rated for ${show(rating, 'pressure')}; the relief valve lets its line go to ${show(reached, 'pressure')}.`,
          remedy:
            'Lower the relief valve, choose a part with a higher rating, or put a reducing valve before it.',
          location: { component: component.id, parameter },
        },
      ]
    })
  },
}
