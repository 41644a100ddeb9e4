import { portsWith, type Rule } from './rule'
import { resolvePipe } from '../sheet/resolve'
import { portKey } from '../sheet/netlist'

export const narrowSuction: Rule = {
  id: 'narrow-suction',
  reason:
    'A pump can push oil through a narrow line, but not suck it: a suction line is wider than the pressure line.',
  check({ sheet, netlist }) {
    const bores = (node: number) =>
      netlist.nodes[node].pipes.flatMap((id) => {
        const pipe = sheet.pipes.find((p) => p.id === id)
        return pipe && pipe.lineType !== 'pilot' && pipe.lineType !== 'drain'
          ? [{ id, bore: resolvePipe(pipe).bore, text: pipe.bore }]
          : []
      })
    return portsWith(netlist, 'suctionPorts').flatMap(({ component, name, node, port }) => {
      const kind = netlist.components.find((c) => c.component.id === component)!.kind
      const outlet = kind.ports.find(
        (p: { name: string; domain: string }) => p.domain === 'oil' && p.name !== port,
      )
      if (!outlet) return []
      const out = bores(netlist.nodeOf.get(portKey(component, outlet.name))!)
      const [narrowest] = bores(node).sort((a, b) => a.bore - b.bore)
      const [widest] = out.sort((a, b) => b.bore - a.bore)
      if (!narrowest || !widest || narrowest.bore >= widest.bore) return []
      return [
        {
          severity: 'warning' as const,
          message: `The suction line of ${name} has a bore of ${narrowest.text}, less than the ${widest.text} of its pressure line.`,
          remedy: 'Choose a wider suction line: slow oil, about 1 m/s, keeps the pump from starving.',
          location: { component, pipe: narrowest.id },
          fix: {
            label: `Make it ${widest.text}`,
            does: 'setPipe',
            pipe: narrowest.id,
            field: 'bore',
            value: widest.text,
          } as const,
        },
      ]
    })
  },
}
