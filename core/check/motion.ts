/** The motions on a sheet with the lines they need, as rules about loads ask for them. */
import type { Motion } from '../catalogue/kind'
import { portKey, type Netlist } from '../sheet/netlist'
import { memoized } from '../sheet/memoized'
import type { ResolvedComponent } from '../sheet/resolve'

export interface PlacedMotion extends Motion {
  readonly of: ResolvedComponent
  readonly intoNode?: number
  readonly outNode?: number
}

export const motions = memoized((netlist: Netlist): readonly PlacedMotion[] =>
  netlist.components.flatMap((of) => {
    const node = (port?: string) =>
      port === undefined ? undefined : netlist.nodeOf.get(portKey(of.component.id, port))
    return (of.kind.traits?.motions?.(of.values) ?? []).map((motion: Motion) => ({
      ...motion,
      of,
      intoNode: node(motion.inletPort),
      outNode: node(motion.outletPort),
    }))
  }),
)

/** The most that a load puts on the oil which its motion pushes out, Pa; 0 where it never helps. */
export const loadPressure = (m: Motion) =>
  m.outletPort === undefined ? 0 : Math.max(0, -m.minimumLoad) / m.outletArea

/** How a motion is called in a message. */
export const motionsFrom = (m: Motion) =>
  m.inletPort === undefined ? 'the motion by its load alone' : `the motion by oil at ${m.inletPort}`
