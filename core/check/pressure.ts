/** How high the pressure of each line can be set, as rules need it: what the reliefs allow, and where it spreads. */
import type { Traits } from '../catalogue/kind'
import { memoized } from '../sheet/memoized'
import { portKey, type Netlist } from '../sheet/netlist'
import type { ResolvedComponent } from '../sheet/resolve'
import { ALWAYS, nameOfComponent, oilEdges, portsWith, reachable, supplies, type Edge } from './rule'

type SettingAction = NonNullable<Traits['pressureSettings']>[number]['does']
export interface Setting {
  readonly of: ResolvedComponent
  readonly name: string
  readonly parameter: string
  readonly port: string
  readonly node: number
  /** Pa */
  readonly pressure: number
}

/** Where a valve begins to open, Pa: below its setting by its override, unless the setting is that. */
export function crackingPressure({ of: { values }, pressure }: Pick<Setting, 'of' | 'pressure'>): number {
  const { override, settingAt } = values
  return typeof override === 'number' && settingAt !== 'cracking' ? pressure * (1 - override) : pressure
}

/** The settings on the sheet that do a thing. */
export function settings(netlist: Netlist, does: SettingAction): Setting[] {
  return netlist.components.flatMap((of) => {
    const { id } = of.component
    const own = (of.kind.traits as Traits | undefined)?.pressureSettings ?? []
    return own
      .filter((setting) => setting.does === does)
      .map(({ parameter, port }): Setting => ({
        of,
        name: nameOfComponent(of),
        parameter,
        port,
        node: netlist.nodeOf.get(portKey(id, port))!,
        pressure: of.values[parameter] as number,
      }))
  })
}

/** What limits the line of each pump that always delivers: the lowest of the reliefs and unloading valves that nothing can shut off from it. */
export function pumpLimits(netlist: Netlist, edges: readonly Edge[][] = oilEdges(netlist)) {
  const limits = [...settings(netlist, 'limits'), ...settings(netlist, 'unloads')]
  return portsWith(netlist, 'deliveryPorts').flatMap((pump) => {
    const line = reachable(edges, pump.node, ALWAYS)
    const [lowest] = limits.filter((s) => line.has(s.node)).sort((a, b) => a.pressure - b.pressure)
    return lowest ? [{ pump, limit: lowest, line }] : []
  })
}

/** The highest pressure that a pump can set each line to through any valve, Pa; −∞ where none comes. Reducing valves hold it down. */
export const highestPressures = memoized((netlist: Netlist): Float64Array => {
  const edges = oilEdges(netlist)
  const highest = new Float64Array(netlist.nodes.length).fill(-Infinity)
  const reduced = new Map(settings(netlist, 'reduces').map((s) => [s.node, s.pressure]))
  const queue: number[] = []
  const raise = (node: number, pressure: number) => {
    const allowed = Math.min(pressure, reduced.get(node) ?? Infinity)
    if (allowed <= highest[node]) return
    highest[node] = allowed
    queue.push(node)
  }
  for (const { pump, limit } of pumpLimits(netlist, edges)) raise(pump.node, limit.pressure)
  for (const { supply, node } of supplies(netlist))
    if (supply.compensator !== undefined) raise(node, supply.compensator)
  for (const node of queue)
    for (const edge of edges[node]) if (edge.type !== 'relief') raise(edge.to, highest[node])
  for (const { node } of portsWith(netlist, 'tankPorts')) highest[node] = -Infinity
  return highest
})
