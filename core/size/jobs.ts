/** Which components do a job for a motion, or protect a pump line: told by the lines that they are joined to. */
import type { Traits } from '../catalogue/kind'
import { memoized } from '../sheet/memoized'
import { buildNetlist, portKey, type Netlist } from '../sheet/netlist'
import type { Sheet } from '../sheet/schema'

const netlistOf = memoized((sheet: Sheet): Netlist => buildNetlist(sheet).netlist)
type Paths = NonNullable<Traits['paths']>

/**
 * The lines that are joined to some ports without passing a directional valve: through check, throttle and pressure valves, in either
 * direction. The search ends at tanks and pumps.
 */
function linesFrom(netlist: Netlist, start: readonly number[], through: ReadonlySet<Paths[number]['type']>) {
  const ends = new Set<number>()
  const joined = netlist.nodes.map((): number[] => [])
  /** What is joined without any valve between: a gallery of a bank, a filter. */
  const open = netlist.nodes.map((): number[] => [])
  for (const { component, kind } of netlist.components) {
    const traits = kind.traits as Traits | undefined
    const node = (port: string) => netlist.nodeOf.get(portKey(component.id, port))!
    for (const port of [...(traits?.tankPorts ?? []), ...(traits?.deliveryPorts ?? [])]) ends.add(node(port))
    for (const { from, to, type } of traits?.paths ?? [])
      if (type === 'open') {
        open[node(from)].push(node(to))
        open[node(to)].push(node(from))
      }
    for (const { from, to, type } of traits?.paths ?? [])
      if (through.has(type)) {
        joined[node(from)].push(node(to))
        joined[node(to)].push(node(from))
      }
  }
  for (const { from, to } of netlist.pipes)
    for (const list of [joined, open]) {
      list[from].push(to)
      list[to].push(from)
    }
  for (const node of ends) open[node].forEach((to) => !start.includes(to) && ends.add(to))
  const seen = new Set(start)
  for (const node of seen)
    if (!ends.has(node) || start.includes(node)) joined[node].forEach((to) => seen.add(to))
  // what lies at the tank is joined to everything that drains there
  for (const node of ends) if (!start.includes(node)) seen.delete(node)
  return seen
}

const BESIDE_ACTUATOR = new Set(['open', 'oneWay', 'relief'] as const)
const PUMP_LINE = new Set(['open', 'oneWay'] as const)

/** Ids of the components that lie on the lines or the shaft of an actuator, itself not among them. @param actuator its id */
export function besideActuator(sheet: Sheet, actuator: string): ReadonlySet<string> {
  const netlist = netlistOf(sheet)
  const own = netlist.components.find((c) => c.component.id === actuator)
  if (!own) return new Set()
  const nodes = own.kind.ports.map((p) => netlist.nodeOf.get(portKey(actuator, p.name))!)
  return componentsOn(netlist, linesFrom(netlist, nodes, BESIDE_ACTUATOR), actuator)
}

/** Ids of the components that are joined to a line into which a pump delivers. */
export const besidePumps = memoized((sheet: Sheet): ReadonlySet<string> => {
  const netlist = netlistOf(sheet)
  const nodes = netlist.components.flatMap(({ component, kind }) =>
    ((kind.traits as Traits | undefined)?.deliveryPorts ?? []).map((port) =>
      netlist.nodeOf.get(portKey(component.id, port))!,
    ),
  )
  return componentsOn(netlist, linesFrom(netlist, nodes, PUMP_LINE))
})

const componentsOn = (netlist: Netlist, lines: ReadonlySet<number>, without?: string): Set<string> =>
  new Set(
    [...lines]
      .flatMap((node) => netlist.nodes[node].ports.map((p) => p.component))
      .filter((id) => id !== without),
  )
