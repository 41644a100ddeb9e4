import { highestPressures, settings } from './pressure'
import type { Rule } from './rule'

export const opensTooHigh: Rule = {
  id: 'opens-too-high',
  reason: 'A sequence valve that is set at or above the relief never opens: what comes after it never moves.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return settings(netlist, 'opens')
      .filter((s) => highest[s.node] > -Infinity && s.pressure >= highest[s.node])
      .map((s) => ({
        severity: 'warning' as const,
        message: `${s.name} opens at ${show(s.pressure, 'pressure')}, but its line is limited to ${show(highest[s.node], 'pressure')}: it never opens.`,
        remedy: 'Set it below the relief valve, by more than its range and the override of the relief.',
        location: { component: s.of.component.id, parameter: s.parameter },
      }))
  },
}
