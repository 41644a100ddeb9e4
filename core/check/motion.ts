/** The motions on a sheet with the lines they need, as rules about loads ask for them. */
import type { Motion } from '../catalogue/kind'
import { portKey, type Netlist } from '../sheet/netlist'
import { remembered } from '../sheet/remembered'
import type { ResolvedComponent } from '../sheet/resolve'

export interface PlacedMotion extends Motion {
  readonly of: ResolvedComponent
  readonly intoNode?: number
  readonly outNode?: number
}

export const motions = remembered((netlist: Netlist): readonly PlacedMotion[] =>
  netlist.components.flatMap((of) => {
    const node = (port?: string) =>
      port === undefined ? undefined : netlist.nodeOf.get(portKey(of.component.id, port))
    return (of.kind.traits?.moves?.(of.values) ?? []).map((motion: Motion) => ({
      ...motion,
      of,
      intoNode: node(motion.into),
      outNode: node(motion.outOf),
    }))
  }),
)

/** The most that a load puts on the oil which its motion pushes out, Pa; 0 where it never helps. */
export const loadPressure = (m: Motion) => (m.outOf === undefined ? 0 : Math.max(0, -m.least) / m.outArea)

/** How a motion is called in a message. */
export const driven = (m: Motion) =>
  m.into === undefined ? 'the motion by its load alone' : `the motion by oil at ${m.into}`
