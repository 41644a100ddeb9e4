/**
 * The greatest flow that a sheet can send through each of its pipes, from what is drawn and not from a run: all that its pumps and
 * sources can give at once, larger where a cylinder pushes out more than it takes in. A pipe behind which no oil can leave, as that of a
 * gauge or of a pilot, carries none.
 */
import type { Traits } from '../catalogue/kind'
import { endKey, portKey } from './netlist-keys'
import type { ResolvedComponent } from './resolve'
import type { Pipe } from './schema'

type AnyTraits = Traits | undefined

/** Greatest flow that a component can give, m³/s. @param speed fastest drive on the sheet, rad/s */
function greatestGiven({ kind, values }: ResolvedComponent, speed: number): number {
  const traits = kind.traits as AnyTraits
  const given = values as Readonly<Record<string, number>>
  const constant = traits?.constantDelivery
  return Math.max(
    traits?.supply?.(values).flow ?? 0,
    traits?.greatestFlow?.(values, speed) ?? 0,
    constant ? (given[constant.displacement] / (2 * Math.PI)) * Math.max(given[constant.speed], speed) : 0,
  )
}

/** By how much more a cylinder pushes out than it takes in. */
const greatestRatio = (components: readonly ResolvedComponent[]): number =>
  Math.max(
    1,
    ...components.flatMap(({ kind, values }) =>
      ((kind.traits as AnyTraits)?.motions?.(values) ?? []).map(({ area, outletArea }) =>
        area > 0 && outletArea > 0 ? outletArea / area : 1,
      ),
    ),
  )

/** Whether oil can go on from a port: not where it only steers, drains a leakage, or is measured. */
function isThrough({ kind }: ResolvedComponent, port: string): boolean {
  const traits = kind.traits as AnyTraits
  if (kind.role === 'plug') return false
  if (traits?.pilotPorts?.includes(port) || traits?.drainPorts?.includes(port)) return false
  const paths = traits?.paths
  if (paths?.some(({ from, to }) => from === port || to === port)) return true
  return kind.family !== 'instruments'
}

/** Fastest drive, rad/s. */
const fastestDrive = (components: readonly ResolvedComponent[]): number =>
  Math.max(
    0,
    ...components.map(({ kind, values }) => {
      const parameter = (kind.traits as AnyTraits)?.sizingTargets?.shaftSpeed
      return parameter ? (values as Readonly<Record<string, number>>)[parameter] : 0
    }),
  )

/** @param pipes those of oil @returns m³/s by pipe; Infinity where a source of pressure has no limit */
export function greatestFlows(
  components: readonly ResolvedComponent[],
  pipes: readonly Pipe[],
): ReadonlyMap<string, number> {
  const speed = fastestDrive(components)
  const ratio = greatestRatio(components)
  const total = ratio * components.reduce((sum, component) => sum + greatestGiven(component, speed), 0)
  // ends of pipes at which oil can go on beside the pipes themselves
  const through = new Set(
    components.flatMap((resolved) =>
      resolved.kind.ports.flatMap(({ name, domain }) =>
        domain === 'oil' && isThrough(resolved, name) ? [portKey(resolved.component.id, name)] : [],
      ),
    ),
  )
  const left = new Map(pipes.map((pipe) => [pipe.id, [endKey(pipe.from), endKey(pipe.to)] as const]))
  const degree = new Map<string, number>()
  const count = (key: string, by: number) => degree.set(key, (degree.get(key) ?? 0) + by)
  for (const ends of left.values()) ends.forEach((key) => count(key, 1))
  for (let found = true; found;) {
    found = false
    for (const [id, ends] of left) {
      if (!ends.some((key) => degree.get(key) === 1 && !through.has(key))) continue
      left.delete(id)
      ends.forEach((key) => count(key, -1))
      found = true
    }
  }
  return new Map(pipes.map(({ id }) => [id, left.has(id) ? total : 0]))
}

/** The highest pressure setting of all components, Pa; Infinity where there is none. */
export function highestSetting(components: readonly ResolvedComponent[]): number {
  const settings = components.flatMap(({ kind, values }) =>
    ((kind.traits as AnyTraits)?.pressureSettings ?? []).map(
      ({ parameter }) => (values as Readonly<Record<string, number>>)[parameter],
    ),
  )
  const highest = Math.max(...settings.filter((setting) => setting > 0))
  return highest > 0 ? highest : Infinity
}
