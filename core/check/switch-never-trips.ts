import { portKey } from '../sheet/netlist'
import { highestPressures } from './pressure'
import { nameOfComponent, type Rule } from './rule'

/** What travels a little beyond its stroke, m or rad: stops give. */
const GIVE = 1e-3

export const switchNeverTrips: Rule = {
  id: 'switch-never-trips',
  reason: 'A switch beyond what its rod or its line ever reaches waits for ever, and so does the control.',
  check({ netlist, show }) {
    const highest = highestPressures(netlist)
    return netlist.components.flatMap((of) => {
      const { component, kind, values } = of
      const node = netlist.nodeOf.get(portKey(component.id, kind.ports[0]?.name ?? ''))
      if (node === undefined || !kind.traits?.isOn) return []
      const set = kind.traits.sizingTargets?.switchSet
      const name = nameOfComponent(of)
      if (set && highest[node] > 0 && (values[set] as number) > highest[node])
        return [
          {
            severity: 'warning' as const,
            message: `${name} switches at ${show(values[set] as number, 'pressure')}, and nothing sets its line above ${show(highest[node], 'pressure')}.`,
            remedy: 'Set it lower, or the relief of its line higher.',
            location: { component: component.id, parameter: set },
          },
        ]
      const range = kind.traits.range?.(values)
      const driver = netlist.components.find(
        (other) =>
          other.kind.traits?.sizingTargets?.stroke &&
          other.kind.ports.some(
            (p: { name: string; domain: string }) =>
              p.domain === 'rod' && netlist.nodeOf.get(portKey(other.component.id, p.name)) === node,
          ),
      )
      const stroke = driver && (driver.values[driver.kind.traits!.sizingTargets!.stroke!] as number)
      if (!range || stroke === undefined || (range[0] <= stroke + GIVE && range[1] >= -GIVE)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${name} lies beyond the stroke of ${nameOfComponent(driver!)}, ${show(stroke, 'length')}: it is never on.`,
          remedy: 'Place it within the stroke.',
          location: { component: component.id, parameter: 'at' },
        },
      ]
    })
  },
}
