/**
 * What each line of a sheet is for, as ISO 1219-2 letters and distinguishes them: supply of a pump, to an actuator, to the tank, from the
 * tank, charge, case, pilot, load signal. Found from what the lines join, not from a run.
 */
import type { ResolvedComponent } from './resolve'
import type { Netlist } from './netlist'
import { nameOf, type Sheet } from './schema'

export const lineRoleNames = {
  supply: 'supply',
  working: 'to actuators',
  return: 'to the tank',
  suction: 'from the tank',
  charge: 'charge',
  case: 'case and drain',
  pilot: 'pilot',
  signal: 'load signal',
} as const
export type LineRole = keyof typeof lineRoleNames

export interface RoleOfLine {
  readonly role: LineRole
  /** Of a supply: the pump that it comes from. */
  readonly pump?: string
}

type Paths = readonly (readonly [from: number, to: number])[]

/** Ports at which a pump gives oil. */
export function deliveryPortsOf({ kind, values }: ResolvedComponent): readonly string[] {
  const traits = kind.traits
  const supply = traits?.supply?.(values)
  return [...new Set([...(traits?.deliveryPorts ?? []), ...(supply ? [supply.port] : [])])]
}

/** @returns by node of the netlist; none for lines of shafts and rods, and for those that nothing identifies */
export function lineRoles(sheet: Sheet, netlist: Netlist): ReadonlyMap<number, RoleOfLine> {
  const { components, nodes, nodeOf } = netlist
  const roles = new Map<number, RoleOfLine>()
  const at = (id: string, port: string) => nodeOf.get(`${id}.${port}`)
  const isOil = (node: number | undefined): node is number =>
    node !== undefined && nodes[node]?.domain === 'oil'
  /** The first role that is found for a line stays. */
  const give = (node: number | undefined, role: RoleOfLine) => {
    if (isOil(node) && !roles.has(node)) roles.set(node, role)
  }
  /** Ways that always stand open, and those that open one way by themselves. */
  const joined = (types: ReadonlySet<string>): Paths =>
    components.flatMap(({ component: { id }, kind }) =>
      (kind.traits?.paths ?? []).flatMap(({ from, to, type }: { from: string; to: string; type: string }) => {
        const [a, b] = [at(id, from), at(id, to)]
        return types.has(type) && isOil(a) && isOil(b) ? [[a, b] as const] : []
      }),
    )
  const open = [
    ...joined(new Set(['open'])),
    ...netlist.pipes.flatMap(({ from, to }) => (isOil(from) && isOil(to) ? [[from, to] as const] : [])),
  ]
  const oneWay = joined(new Set(['oneWay']))
  /** Passes a role on along ways, to lines that have none. @param backward against the ways as well */
  const spread = (of: (role: RoleOfLine) => boolean, ways: Paths, backward: boolean) => {
    for (let changed = true; changed;) {
      changed = false
      for (const [a, b] of ways)
        for (const [from, to] of backward
          ? [
              [a, b],
              [b, a],
            ]
          : [[a, b]]) {
          const role = roles.get(from)
          if (!role || !of(role) || roles.has(to)) continue
          roles.set(to, role)
          changed = true
        }
    }
  }
  const each = (
    ports: (resolved: ResolvedComponent) => readonly string[] | undefined,
    role: (resolved: ResolvedComponent) => RoleOfLine,
  ) => {
    for (const resolved of components)
      for (const port of ports(resolved) ?? []) give(at(resolved.component.id, port), role(resolved))
  }
  const is = (name: LineRole) => (role: RoleOfLine) => role.role === name

  // lines that are drawn as pilot or drain lines along all of their way are that
  const drawnAs = new Map<number, Set<string>>()
  for (const { id, lineType } of sheet.pipes) {
    const node = netlist.nodeOfPipe.get(id)
    if (node !== undefined) drawnAs.set(node, (drawnAs.get(node) ?? new Set()).add(lineType))
  }
  each(
    (r) => {
      const signal = r.kind.traits?.supply?.(r.values)?.signal
      return signal ? [signal] : []
    },
    () => ({ role: 'signal' }),
  )
  each(
    (r) => r.kind.traits?.suctionPorts,
    () => ({ role: 'suction' }),
  )
  spread(is('suction'), open, true)
  for (const [node, types] of drawnAs)
    if (types.size === 1 && types.has('drain')) give(node, { role: 'case' })
  each(
    (r) => r.kind.traits?.drainPorts,
    () => ({ role: 'case' }),
  )
  each(
    (r) => r.kind.traits?.tankPorts,
    () => ({ role: 'return' }),
  )
  spread(is('return'), open, true)
  each(
    (r) => r.kind.traits?.closedCircuitPorts,
    () => ({ role: 'working' }),
  )
  // a pump whose oil a check valve leads into a closed circuit charges it
  const closed = new Set([...roles].filter(([, role]) => role.role === 'working').map(([node]) => node))
  each(deliveryPortsOf, (resolved) => {
    const line = deliveryPortsOf(resolved).map((port) => at(resolved.component.id, port))
    const reached = reachable(line.filter(isOil), [...open, ...oneWay])
    return [...closed].some((node) => reached.has(node))
      ? { role: 'charge' }
      : { role: 'supply', pump: nameOf(resolved.component) }
  })
  spread((role) => role.role === 'charge' || role.role === 'supply', open, true)
  each(
    (r) => (r.kind.traits?.movement ? r.kind.ports.filter((p) => p.domain === 'oil').map((p) => p.name) : []),
    () => ({ role: 'working' }),
  )
  spread(is('working'), open, true)
  spread(is('supply'), oneWay, false)
  spread(is('working'), oneWay, true)
  for (const [node, types] of drawnAs)
    if (types.size === 1 && types.has('pilot')) give(node, { role: 'pilot' })
  each(
    (r) => r.kind.traits?.pilotPorts,
    () => ({ role: 'pilot' }),
  )
  // what is left lies behind valves that somebody works
  spread(is('supply'), joined(new Set(['switched'])), true)
  return roles
}

function reachable(from: readonly number[], ways: Paths): ReadonlySet<number> {
  const reached = new Set(from)
  for (const node of reached) for (const [a, b] of ways) if (a === node) reached.add(b)
  return reached
}
