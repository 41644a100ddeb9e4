/** The machine as it stands before a run: which switches are on. */
import { Fluid } from '../fluid/fluid'
import { buildNetlist, portKey } from '../sheet/netlist'
import { resolveFluid } from '../sheet/resolve'
import type { Sheet } from '../sheet/schema'
import { CircuitArrays } from '../simulate/circuit/arrays'

/** Components that are switched on by where rods, shafts and pressures begin. */
export function switchesAtStart(sheet: Sheet): ReadonlySet<string> {
  const { netlist } = buildNetlist(sheet)
  const fluid = new Fluid(resolveFluid(sheet.fluid).data)
  const start = new Map<number, number>()
  for (const { component, kind, values } of netlist.components)
    for (const { port, value } of kind.model(values, fluid).initialPotentials ?? []) {
      const node = netlist.nodeOf.get(portKey(component.id, kind.ports[port].name))
      if (node !== undefined && !start.has(node)) start.set(node, value)
    }
  const on = netlist.components.filter(({ component, kind, values }) => {
    if (!kind.traits?.isOn) return false
    const model = kind.model(values, fluid)
    const [local] = new CircuitArrays([{ model, ports: kind.ports.length, inputs: kind.inputs?.length ?? 0 }])
      .locals
    kind.ports.forEach(({ name }: { name: string }, i: number) => {
      local.p[i] = start.get(netlist.nodeOf.get(portKey(component.id, name)) ?? -1) ?? 0
    })
    model.evaluate?.(local)
    // twice: an edge may depend on which side of another one it is
    for (let i = 0; i < local.g.length; i++) if (local.g[i] > 0) model.switch?.(local, i, 1)
    return kind.traits.isOn(local)
  })
  return new Set(on.map(({ component }) => component.id))
}
