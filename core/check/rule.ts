/** The contract of a design rule, and the tracing that rules share. */
import type { Traits } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import { portKey, type Netlist } from '../sheet/netlist'
import type { Sheet } from '../sheet/schema'

export interface Subject {
  readonly sheet: Sheet
  readonly netlist: Netlist
}

/** One design rule. It looks, and says what it found and what would cure it. */
export interface Rule {
  readonly id: string
  /** Why it matters, in a sentence. */
  readonly reason: string
  check(subject: Subject): Omit<Finding, 'rule'>[]
}

type How = NonNullable<Traits['paths']>[number]['how']
export interface Edge {
  readonly to: number
  readonly how: How | 'pipe'
}

/** Where oil can go from each node, through components and pipes with friction. */
export function oilEdges(netlist: Netlist): Edge[][] {
  const edges: Edge[][] = netlist.nodes.map(() => [])
  for (const { component, kind } of netlist.components)
    for (const { from, to, how } of kind.traits?.paths ?? []) {
      const a = netlist.nodeOf.get(portKey(component.id, from))!
      const b = netlist.nodeOf.get(portKey(component.id, to))!
      edges[a].push({ to: b, how })
      if (how === 'open' || how === 'switched') edges[b].push({ to: a, how })
    }
  for (const pipe of netlist.pipes) {
    edges[pipe.from].push({ to: pipe.to, how: 'pipe' })
    edges[pipe.to].push({ to: pipe.from, how: 'pipe' })
  }
  return edges
}

/** All nodes that oil can reach from a node through edges of the given kinds. */
export function reachable(edges: readonly Edge[][], start: number, through: ReadonlySet<Edge['how']>) {
  const seen = new Set([start])
  const queue = [start]
  for (const node of queue)
    for (const edge of edges[node])
      if (through.has(edge.how) && !seen.has(edge.to)) {
        seen.add(edge.to)
        queue.push(edge.to)
      }
  return seen
}

/** Ports of a trait on the sheet, with their nodes. */
export function portsWith(netlist: Netlist, trait: 'delivers' | 'draws' | 'tank') {
  return netlist.components.flatMap(({ component, kind }) =>
    (kind.traits?.[trait] ?? []).map((port: string) => ({
      component: component.id,
      name: component.designation ?? component.id,
      port,
      node: netlist.nodeOf.get(portKey(component.id, port))!,
    })),
  )
}

export const tankNodes = (netlist: Netlist) => new Set(portsWith(netlist, 'tank').map((t) => t.node))
/** Ways that are there whatever the valves do. */
export const ALWAYS = new Set(['open', 'oneWay', 'pipe'] as const)
/** Ways that a fixed line to tank may take: a check may have to be passed in its free direction only. */
export const ANY_WAY = new Set(['open', 'oneWay', 'switched', 'relief', 'pipe'] as const)
