/** Where the oil of a line comes from and goes to at an instant, with the share of it at every parting. */
import type { Element } from '../simulate/circuit/elements'
import { partOf, type LinePorts } from './stack'
import { LEAST_FLOW, shutPairsOf } from './ways'

/** A part of the path: from one line to the next through a part. */
export interface PathStep {
  readonly part: string
  /** Port by which oil comes in, and by which it leaves; none where it stays in the part or comes out of it. */
  readonly into?: string
  readonly outOf?: string
  readonly from?: number
  readonly to?: number
  /** Share of what flows through the line asked about, 0 to 1. */
  readonly share: number
  /** m³/s of the oil that is followed. */
  readonly flow: number
  /** The oil does not pass here: the piston or vane between its ports pushes other oil out. */
  readonly pushes?: true
}
/** Where a path ends. */
export interface PathEnd {
  readonly part?: string
  readonly line: number
  readonly kind: 'tank' | 'chamber' | 'store' | 'line' | 'source' | 'loop'
  readonly share: number
}
export interface OilPath {
  /** m³/s through the line. */
  readonly flow: number
  readonly down: readonly PathStep[]
  readonly up: readonly PathStep[]
  readonly ends: readonly PathEnd[]
  readonly sources: readonly PathEnd[]
}

/** Less of the oil is not followed. */
const LEAST_SHARE = 0.01
/** m³/s: less is no flow. */
const NO_FLOW = 1e-8

interface Move {
  readonly element: Element
  readonly port: number
  /** Line beyond; none where the oil stays in the element. */
  readonly to?: number
  readonly beyond?: number
  readonly flow: number
  readonly pushes?: true
}

/** Ways by which oil leaves a line (sign 1) or comes into it (sign −1). */
function movesAt(ports: LinePorts, line: number, sign: 1 | -1): Move[] {
  return ports.at(line).flatMap((place): Move[] => {
    const { element, port } = place
    const along = ports
      .from(place)
      .flatMap(({ to, flow }): Move[] =>
        sign * flow > NO_FLOW
          ? [{ element, port, beyond: to, to: element.nodes[to], flow: sign * flow }]
          : [],
      )
    const kept = sign * ports.keptAt(place)
    if (kept <= NO_FLOW) return along
    // a piston that takes oil in on one side pushes it out on the other
    const other = element.portNames.findIndex(
      (_, i) =>
        i !== port &&
        ports.network.nodes[element.nodes[i]].domain === 'oil' &&
        sign * ports.keptAt({ element, port: i }) < -NO_FLOW,
    )
    return [
      ...along,
      {
        element,
        port,
        flow: kept,
        ...(other >= 0 ? { beyond: other, to: element.nodes[other], pushes: true as const } : {}),
      },
    ]
  })
}

function follow(ports: LinePorts, start: number, sign: 1 | -1): { steps: PathStep[]; ends: PathEnd[] } {
  const steps: PathStep[] = []
  const ends = new Map<string, PathEnd>()
  const { network } = ports
  const total = movesAt(ports, start, sign).reduce((sum, m) => sum + m.flow, 0)
  if (total <= NO_FLOW) return { steps, ends: [] }
  const end = (line: number, share: number, kind: PathEnd['kind'], element?: Element) => {
    const part = element && partOf(element)
    const key = `${line} ${part ?? ''}`
    ends.set(key, { line, kind, ...(part ? { part } : {}), share: share + (ends.get(key)?.share ?? 0) })
  }
  const visit = (line: number, share: number, visited: readonly number[]) => {
    const holder = ports.at(line).find(({ element, port }) => element.imposes[port])?.element
    if (network.nodeState[line] < 0)
      return end(line, share, holder?.model.tank === undefined ? 'source' : 'tank', holder)
    const moves = movesAt(ports, line, sign)
    const sum = moves.reduce((all, m) => all + m.flow, 0)
    if (sum <= NO_FLOW) return end(line, share, 'line')
    for (const { element, port, beyond, to, flow, pushes } of moves) {
      const part = (share * flow) / sum
      if (part < LEAST_SHARE) continue
      const names = element.portNames
      const [here, there] = [names[port], beyond === undefined ? undefined : names[beyond]]
      steps.push({
        part: partOf(element),
        into: sign > 0 ? here : there,
        outOf: sign > 0 ? there : here,
        from: sign > 0 ? line : to,
        to: sign > 0 ? to : line,
        share: part,
        flow: part * total,
        ...(pushes ? { pushes } : {}),
      })
      if (to === undefined)
        end(line, part, element.states.some((s) => s.storesOil) ? 'store' : 'chamber', element)
      else if (!visited.includes(to)) visit(to, part, [...visited, to])
      else end(to, part, to === start ? 'loop' : 'line')
    }
  }
  visit(start, 1, [start])
  return { steps, ends: [...ends.values()].sort((a, b) => b.share - a.share) }
}

/** The path of the oil through a line. @param ports of a network that stands observed @param line its index */
export function oilPath(ports: LinePorts, line: number): OilPath {
  const down = follow(ports, line, 1)
  const up = follow(ports, line, -1)
  const flow = movesAt(ports, line, 1).reduce((sum, m) => sum + m.flow, 0)
  return { flow, down: down.steps, up: up.steps, ends: down.ends, sources: up.ends }
}

/** A valve that is shut, with the pressures that wait at it, and oil that goes round without doing work. */
export interface StandingBy {
  readonly part: string
  readonly from: string
  readonly to: string
  /** Pa at each end. */
  readonly before: number
  readonly behind: number
  /** It lets oil past on another way: a spool that stands in one of its positions. */
  readonly passes: boolean
}
/** A difference of pressure that is worth a sentence, Pa. */
const WAITS = 1e5

/** Valves along a line that let nothing past, and what waits at them. */
export function standingBy(ports: LinePorts, lines: readonly number[]): StandingBy[] {
  const p = ports.network.potential
  return lines.flatMap((line) =>
    ports.at(line).flatMap(({ element, port }) =>
      shutPairsOf(element, ports.waysOf(element)).flatMap(({ from, to }): StandingBy[] => {
        if (from !== port && to !== port) return []
        const other = from === port ? to : from
        const behind = p[element.nodes[other]]
        if (Math.abs(p[line] - behind) < WAITS) return []
        return [
          {
            part: partOf(element),
            from: element.portNames[port],
            to: element.portNames[other],
            before: p[line],
            behind,
            passes: ports.waysOf(element).some(({ flow }) => Math.abs(flow) > LEAST_FLOW),
          },
        ]
      }),
    ),
  )
}

/** Parts at a line that keep it apart from another one now, and could join them. */
export const partsShutAt = (ports: LinePorts, line: number): string[] =>
  standingBy(ports, [line]).map(({ part }) => part)

/** Oil of a pump that comes back to a tank without having moved anything. */
export interface GoingRound {
  /** Where it passes: the part that takes most of its pressure. */
  readonly part: string
  /** m³/s */
  readonly flow: number
  /** What it loses on its way, W. */
  readonly heat: number
}

/**
 * What flows from a line to a tank without passing through a motor, into a chamber or a store.
 * @param ports of a network that stands observed @param line its index
 */
export function goingRound(ports: LinePorts, line: number): GoingRound[] {
  const { network } = ports
  const p = network.potential
  const found = new Map<string, GoingRound>()
  const visit = (
    at: number,
    flow: number,
    by: { part: string; drop: number },
    visited: readonly number[],
  ) => {
    if (network.nodeState[at] < 0) {
      const holder = ports.at(at).find(({ element, port }) => element.imposes[port])?.element
      if (holder?.model.tank === undefined || !by.part) return
      const known = found.get(by.part)
      found.set(by.part, {
        part: by.part,
        flow: flow + (known?.flow ?? 0),
        heat: flow * (p[line] - p[at]) + (known?.heat ?? 0),
      })
      return
    }
    const moves = movesAt(ports, at, 1)
    const sum = moves.reduce((all, m) => all + m.flow, 0)
    if (sum <= NO_FLOW) return
    for (const { element, port, beyond, to, flow: taken, pushes } of moves) {
      const works =
        to === undefined ||
        pushes ||
        ports
          .from({ element, port })
          .some((way) => way.to === beyond && (way.way.element === 'motor' || way.way.element === 'pump'))
      const share = (flow * taken) / sum
      if (works || share < NO_FLOW || visited.includes(to)) continue
      const drop = p[at] - p[to]
      visit(to, share, drop > by.drop ? { part: partOf(element), drop } : by, [...visited, to])
    }
  }
  const flow = movesAt(ports, line, 1).reduce((sum, m) => sum + m.flow, 0)
  visit(line, flow, { part: '', drop: 0 }, [line])
  return [...found.values()].sort((a, b) => b.heat - a.heat)
}

/**
 * Parts that the most of the oil passes, from the line to where it comes from (`up`) or goes (`down`).
 * @returns ids of components and pipes, the nearest first
 */
export function mainWay(path: OilPath, line: number, direction: 'up' | 'down'): string[] {
  const parts: string[] = []
  const visited = new Set([line])
  for (let at: number | undefined = line; at !== undefined;) {
    const here: number = at
    const next: PathStep | undefined = path[direction]
      .filter((s) => (direction === 'up' ? s.to : s.from) === here)
      .sort((a, b) => b.share - a.share)[0]
    if (!next) break
    parts.push(next.part)
    at = direction === 'up' ? next.from : next.to
    if (at === undefined || visited.has(at)) break
    visited.add(at)
  }
  const ends = direction === 'up' ? path.sources : path.ends
  if (ends[0]?.part !== undefined && parts.at(-1) !== ends[0].part && parts.length) parts.push(ends[0].part)
  return parts
}
