import { bucklingLoad } from '../catalogue/column'
import { motions } from './motion'
import { highestPressures } from './pressure'
import { nameOfComponent, type Rule } from './rule'

/** Least safety at the highest pressure; sizing counts with more, at the load. */
const SAFETY = 2

export const buckling: Rule = {
  id: 'buckling',
  reason: 'A long thin rod that is pressed gives way sideways, long before its steel is at its limit.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return motions(netlist).flatMap((m) => {
      if (!m.column || m.intoNode === undefined || !(highest[m.intoNode] > -Infinity)) return []
      const force = highest[m.intoNode] * m.area
      const safety = bucklingLoad(m.column.diameter, m.column.length) / force
      if (safety >= SAFETY) return []
      return [
        {
          severity: 'warning' as const,
          message: `Out to its end, ${nameOfComponent(m.of)} presses with ${show(force, 'force', 3)} at ${show(highest[m.intoNode], 'pressure')}: with both ends pivoted that leaves ${safety.toFixed(1)} times safety against buckling.`,
          remedy: `Choose a thicker rod, a shorter stroke or a stiffer mounting, or lower the relief valve; a safety below ${SAFETY} is reported.`,
          location: { component: m.of.component.id, parameter: 'rod' },
        },
      ]
    })
  },
}
