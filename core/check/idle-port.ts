import { portKey } from '../sheet/netlist'
import { memoized } from '../sheet/memoized'
import { Fluid } from '../fluid/fluid'
import { resolveFluid, type ResolvedComponent } from '../sheet/resolve'
import { fluidSchema } from '../sheet/schema'
import { isJoined, nameOfComponent, type Rule } from './rule'

/** Which ports are idle does not depend on the fluid. */
const someFluid = new Fluid(resolveFluid(fluidSchema.parse({})).data, 0.1)
const idlePorts = memoized(
  ({ kind, values }: ResolvedComponent): readonly number[] => kind.model(values, someFluid).idlePorts ?? [],
)

export const idlePort: Rule = {
  id: 'idle-port',
  reason:
    'A line at a port that is out of use as the part is set up carries nothing: what hangs on it is dead.',
  check({ netlist }) {
    // only a port that may stay open can be out of use
    const inUse = netlist.components.filter(({ component, kind }) =>
      kind.ports.some(
        (port) =>
          port.domain === 'oil' &&
          port.mayStayOpen &&
          isJoined(netlist, netlist.nodeOf.get(portKey(component.id, port.name))!),
      ),
    )
    return inUse.flatMap((of) =>
      idlePorts(of).flatMap((index) => {
        const port = of.kind.ports[index]
        if (!port || port.domain !== 'oil') return []
        const node = netlist.nodeOf.get(portKey(of.component.id, port.name))!
        if (!isJoined(netlist, node)) return []
        return [
          {
            severity: 'warning' as const,
            message: `Port ${port.name} of ${nameOfComponent(of)} (${port.role}) is out of use as it is set up, and a line is connected to it.`,
            remedy: 'Set the part up so that it uses this port, or remove the line.',
            location: { component: of.component.id, port: port.name },
          },
        ]
      }),
    )
  },
}
