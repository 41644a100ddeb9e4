import { crackingPressure, highestPressures, pumpLimits, settings } from './pressure'
import type { Rule } from './rule'

export const reliefOrder: Rule = {
  id: 'relief-order',
  reason:
    'A relief valve at the load is there for what comes from outside. Set below what the pump may put there, it takes the oil of the pump.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    const main = new Set(pumpLimits(netlist).flatMap(({ line }) => [...line]))
    return [...settings(netlist, 'limits'), ...settings(netlist, 'cushions')]
      .filter((s) => !main.has(s.node) && highest[s.node] > crackingPressure(s))
      .map((s) => ({
        severity: 'warning' as const,
        message: `${s.name} begins to open at ${show(crackingPressure(s), 'pressure')}, and the pump may bring its line to ${show(highest[s.node], 'pressure')}.`,
        remedy:
          'Set it above the relief valve of the pump, by a tenth to a quarter; or accept it, where it is to limit this line.',
        location: { component: s.of.component.id, parameter: s.parameter },
      }))
  },
}
