/** The contract of a design rule, and the tracing that rules share. */
import type { Restriction, Show, Traits } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import { portKey, type Netlist } from '../sheet/netlist'
import { memoized } from '../sheet/memoized'
import type { ResolvedComponent } from '../sheet/resolve'
import { nameOf, type Sheet } from '../sheet/schema'

export interface Subject {
  readonly sheet: Sheet
  readonly netlist: Netlist
  /** Writes the values in what is said. */
  readonly show: Show
}

interface RuleFinding<S extends Finding['severity']> extends Omit<Finding, 'rule'> {
  readonly severity: S
}
/** One design rule. It says what it finds, and the remedy. */
export interface Rule {
  readonly id: string
  /** Why it matters, in a sentence. */
  readonly reason: string
  check(subject: Subject): RuleFinding<'warning'>[]
}
/** One whose errors keep a sheet from running. */
export interface RefusingRule extends Omit<Rule, 'check'> {
  readonly refuses: true
  check(subject: Subject): RuleFinding<Finding['severity']>[]
}

type PathType = NonNullable<Traits['paths']>[number]['type']
export interface Edge {
  readonly to: number
  readonly type: PathType | 'pipe'
  /** Component that the path goes through. */
  readonly component?: string
}

/** Flow paths from each node, through components and pipes with friction. */
export const oilEdges = memoized((netlist: Netlist): readonly Edge[][] => {
  const edges: Edge[][] = netlist.nodes.map(() => [])
  for (const { component, kind, values } of netlist.components)
    for (const { from, to, type: how, oneWayWhenOpen: checked, enabledBy: when } of (kind.traits?.paths ??
      []) as NonNullable<Traits['paths']>) {
      if (when !== undefined && !values[when]) continue
      const a = netlist.nodeOf.get(portKey(component.id, from))!
      const b = netlist.nodeOf.get(portKey(component.id, to))!
      edges[a].push({ to: b, type: how, component: component.id })
      if ((how === 'open' || how === 'switched') && !checked)
        edges[b].push({ to: a, type: how, component: component.id })
    }
  for (const pipe of netlist.pipes) {
    edges[pipe.from].push({ to: pipe.to, type: 'pipe' })
    edges[pipe.to].push({ to: pipe.from, type: 'pipe' })
  }
  return edges
})

/** All nodes that oil can reach from a node through edges of the given kinds. @param without a component that is left out */
export function reachable(
  edges: readonly (readonly Edge[])[],
  start: number,
  through: ReadonlySet<Edge['type']>,
  without?: string,
) {
  const seen = new Set([start])
  for (const node of seen)
    for (const edge of edges[node])
      if (through.has(edge.type) && (without === undefined || edge.component !== without)) seen.add(edge.to)
  return seen
}

/** The edges in both directions: for lines that are connected whatever the direction of flow. */
export const bidirectional = memoized((edges: readonly Edge[][]): readonly Edge[][] => {
  const both = edges.map((list) => [...list])
  edges.forEach((list, from) => list.forEach((edge) => both[edge.to].push({ ...edge, to: from })))
  return both
})

/** Nodes connected by edges that are always open, in either direction; the search does not go on beyond `ends` (tanks). */
export function permanentlyConnected(
  edges: readonly Edge[][],
  start: number,
  ends: ReadonlySet<number>,
  without?: string,
) {
  const both = bidirectional(edges)
  const seen = new Set([start])
  for (const node of seen)
    if (!ends.has(node))
      for (const edge of both[node])
        if (ALWAYS.has(edge.type as 'open') && (without === undefined || edge.component !== without))
          seen.add(edge.to)
  return seen
}

/** The edges while nothing is commanded. */
export function restEdges(netlist: Netlist, edges: readonly Edge[][]): Edge[][] {
  const rest = edges.map((list) => [...list])
  for (const { component, kind, values } of netlist.components)
    for (const [from, to] of kind.traits?.connectedAtRest?.(values) ?? []) {
      const a = netlist.nodeOf.get(portKey(component.id, from))!
      const b = netlist.nodeOf.get(portKey(component.id, to))!
      rest[a].push({ to: b, type: 'open', component: component.id })
      rest[b].push({ to: a, type: 'open', component: component.id })
    }
  const tanks = tankNodes(netlist)
  for (const { component, kind } of netlist.components) {
    const vented = kind.traits?.openWhenVented
    if (!vented) continue
    const [vent, from, to] = [vented.vent, vented.from, vented.to].map((port) =>
      netlist.nodeOf.get(portKey(component.id, port))!,
    )
    if (canReach(rest, vent, tanks, ALWAYS)) rest[from].push({ to, type: 'open', component: component.id })
  }
  return rest
}

/** The paths along which each component restricts the flow, by component. */
const restrictionsOf = memoized((netlist: Netlist) => {
  const of = new Map<string, { key: string; by: Restriction['element'] }[]>()
  for (const { component, kind } of netlist.components) {
    const list = (kind.traits?.restrictions ?? []) as readonly Restriction[]
    const node = (port: string) => netlist.nodeOf.get(portKey(component.id, port))!
    if (list.length)
      of.set(
        component.id,
        list.map(({ from, to, element: by }) => ({ key: pathKey(node(from), node(to), component.id), by })),
      )
  }
  return of
})
/** Key of a path through a component, from node to node. */
export const pathKey = (from: number, to: number, by: string | undefined) => `${from} ${to} ${by}`

/** The edges without those that are restricted by one of the given elements. */
export function withoutRestrictions(
  netlist: Netlist,
  edges: readonly Edge[][],
  ways: ReadonlySet<Restriction['element']>,
): Edge[][] {
  const held = restrictionsOf(netlist)
  return edges.map((list, from) =>
    list.filter((edge) => {
      const own = edge.component === undefined ? undefined : held.get(edge.component)
      if (!own) return true
      const key = pathKey(from, edge.to, edge.component)
      return !own.some((way) => way.key === key && ways.has(way.by))
    }),
  )
}

/** Whether a relief valve is always connected to a node. */
export const relievedFrom = (edges: readonly Edge[][], from: number) =>
  [...reachable(edges, from, ALWAYS)].some((node) => edges[node].some((edge) => edge.type === 'relief'))

/** Whether oil can reach one of several nodes. @param without a component that is left out */
export function canReach(
  edges: readonly (readonly Edge[])[],
  from: number,
  to: ReadonlySet<number>,
  through: ReadonlySet<Edge['type']>,
  without?: string,
): boolean {
  const seen = new Set([from])
  for (const node of seen) {
    if (to.has(node)) return true
    for (const edge of edges[node])
      if (through.has(edge.type) && (without === undefined || edge.component !== without)) seen.add(edge.to)
  }
  return false
}

/** The components that lie on every path from a node to one of several; none where no path leads there. */
export function onEveryPath(
  edges: readonly (readonly Edge[])[],
  from: number,
  to: ReadonlySet<number>,
  through: ReadonlySet<Edge['type']>,
): Set<string> {
  // one path is found; a component that is not on it is not on every path
  const cameBy = new Map<number, { from: number; by?: string }>([[from, { from }]])
  for (const [node, came] of cameBy) {
    if (!to.has(node)) {
      for (const edge of edges[node])
        if (through.has(edge.type) && !cameBy.has(edge.to))
          cameBy.set(edge.to, { from: node, by: edge.component })
      continue
    }
    const passed = new Set<string>()
    for (let [at, step] = [node, came]; at !== from; at = step.from, step = cameBy.get(at)!)
      if (step.by !== undefined) passed.add(step.by)
    for (const by of passed) if (canReach(edges, from, to, through, by)) passed.delete(by)
    return passed
  }
  return new Set()
}

/** Whether a node is connected to anything; open ports are reported by a rule of their own. */
export const isJoined = (netlist: Netlist, node: number) =>
  netlist.nodes[node].pipes.length > 0 || netlist.nodes[node].ports.length > 1

/** Flow of a pump that always delivers, m³/s: V·n; none for others. */
export function constantFlow({ kind, values }: ResolvedComponent): number | undefined {
  const constant = (kind.traits as Traits | undefined)?.constantDelivery
  if (!constant) return undefined
  return ((values[constant.displacement] as number) * (values[constant.speed] as number)) / (2 * Math.PI)
}

export const nameOfComponent = ({ component }: Pick<ResolvedComponent, 'component'>) => nameOf(component)

type PortTrait = 'deliveryPorts' | 'suctionPorts' | 'tankPorts'
const portsByTrait = memoized((netlist: Netlist) => {
  const ports = (trait: PortTrait) =>
    netlist.components.flatMap(({ component, kind }) =>
      ((kind.traits as Traits | undefined)?.[trait] ?? []).map((port) => ({
        component: component.id,
        name: nameOfComponent({ component }),
        port,
        node: netlist.nodeOf.get(portKey(component.id, port))!,
      })),
    )
  return {
    deliveryPorts: ports('deliveryPorts'),
    suctionPorts: ports('suctionPorts'),
    tankPorts: ports('tankPorts'),
  }
})
/** Ports of a trait on the sheet, with their nodes. */
export const portsWith = (netlist: Netlist, trait: PortTrait) => portsByTrait(netlist)[trait]

/** Supplies whose kind of pump is known, with their lines: given ones, and pumps that take their stroke back. */
export const supplies = memoized((netlist: Netlist) =>
  netlist.components.flatMap((of) => {
    const supply = (of.kind.traits as Traits | undefined)?.supply?.(of.values)
    return supply ? [{ of, supply, node: netlist.nodeOf.get(portKey(of.component.id, supply.port))! }] : []
  }),
)

export const tankNodes = memoized(
  (netlist: Netlist): ReadonlySet<number> => new Set(portsWith(netlist, 'tankPorts').map((t) => t.node)),
)
/** Paths that are open whatever the valves do. */
export const ALWAYS = new Set(['open', 'oneWay', 'pipe'] as const)
/** Paths that are open while valves are actuated; check valves in their free direction only. */
export const OPENED = new Set(['open', 'oneWay', 'switched', 'pipe'] as const)
/** Also over relief valves. */
export const ANY_PATH = new Set(['open', 'oneWay', 'switched', 'relief', 'pipe'] as const)
