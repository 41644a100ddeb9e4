import { nameOf } from '../sheet/schema'
import { portKey } from '../sheet/netlist'
import { highestPressures } from './pressure'
import type { Rule } from './rule'

export const gaugeRange: Rule = {
  id: 'gauge-range',
  reason: 'A gauge that goes beyond its range shows nothing any more, and is bent by it.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return netlist.components.flatMap(({ component, kind, values }) => {
      const { measuringPort: port, measuringRange: parameter } = kind.traits ?? {}
      if (!port || !parameter) return []
      const range = values[parameter] as number
      const reached = highest[netlist.nodeOf.get(portKey(component.id, port))!]
      if (!(reached > range)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOf(component)} reads to ${show(range, 'pressure')}; its line can be set to ${show(reached, 'pressure')}.`,
          remedy: 'Choose a range of about one and a half times the highest pressure of the line.',
          location: { component: component.id, parameter },
        },
      ]
    })
  },
}
