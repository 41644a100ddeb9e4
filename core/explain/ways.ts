/** The ways of the oil through components at an instant, given by their models or found from the flows at their ports. */
import type { Way, WayElement } from '../catalogue/answers'
import type { Element } from '../simulate/circuit/elements'

/** m³/s: less is no flow. */
const NO_FLOW = 1e-12
/** m³/s: less than this is leakage to a reader. */
export const LEAST_FLOW = 1e-7
/** m³/s: less past a valve is leakage at most. */
const SHUT_FLOW = 1e-8
const ALWAYS_OPEN: ReadonlySet<WayElement> = new Set(['pump', 'motor', 'leak', 'line'])

const elementOf: Readonly<Record<'open' | 'oneWay' | 'relief' | 'switched', WayElement>> = {
  open: 'restriction',
  oneWay: 'check',
  relief: 'spring',
  switched: 'seat',
}

/** Pairs of ports between which oil can go. */
function pairsOf({
  resolved,
  pipe,
  portNames,
}: Element): { from: number; to: number; element: WayElement }[] {
  if (pipe !== undefined) return [{ from: 0, to: 1, element: 'line' }]
  const traits = resolved?.kind.traits
  if (!resolved || !traits) return []
  const index = (name: string) => portNames.indexOf(name)
  const paths = (traits.paths ?? [])
    .filter(({ enabledBy }) => !enabledBy || resolved.values[enabledBy] === true)
    .map(({ from, to, type }) => ({ from: index(from), to: index(to), element: elementOf[type] }))
  const pumps = (traits.suctionPorts ?? []).flatMap((s) =>
    (traits.deliveryPorts ?? []).map((p) => ({ from: index(s), to: index(p), element: 'pump' as const })),
  )
  // what leaks inside a pump goes to its case
  const leaks = (traits.deliveryPorts ?? []).flatMap((p) =>
    (traits.drainPorts ?? []).map((l) => ({ from: index(p), to: index(l), element: 'leak' as const })),
  )
  return [...paths, ...pumps, ...leaks].filter(({ from, to }) => from >= 0 && to >= 0 && from !== to)
}

/**
 * The open ways through an element as it stands evaluated. Where its model does not give them they are found from the flows at its
 * ports: each goes along a pair of ports that its kind joins, the largest first; a pair without flow may be open as well. Ways and
 * chambers together have the flows of the ports.
 */
export function waysOf(element: Element): Way[] {
  const { model, local } = element
  if (model.ways) return [...model.ways(local)]
  const left = Float64Array.from(local.q)
  const pairs = pairsOf(element)
  const ways: Way[] = []
  for (;;) {
    let best: Way | undefined
    for (const { from, to, element: what } of pairs)
      for (const [a, b] of [
        [from, to],
        [to, from],
      ]) {
        const flow = Math.min(left[a], -left[b])
        if (flow > NO_FLOW && flow > (best?.flow ?? 0)) best = { from: a, to: b, flow, element: what }
      }
    if (!best) break
    left[best.from] -= best.flow
    left[best.to] += best.flow
    ways.push(best)
  }
  const joined = (from: number, to: number) =>
    ways.some((w) => (w.from === from && w.to === to) || (w.from === to && w.to === from))
  return [...ways, ...pairs.filter(({ from, to }) => !joined(from, to)).map((pair) => ({ ...pair, flow: 0 }))]
}

/** Pairs of ports that a valve keeps apart now, and could join. */
export function shutPairsOf(element: Element, ways: readonly Way[]): { from: number; to: number }[] {
  const passing = (from: number, to: number) =>
    ways.some(
      (w) =>
        Math.abs(w.flow) > SHUT_FLOW &&
        ((w.from === from && w.to === to) || (w.from === to && w.to === from)),
    )
  return pairsOf(element).filter(
    ({ from, to, element: what }) => !ALWAYS_OPEN.has(what) && !passing(from, to),
  )
}

/** What flows into each port and along no way: into a chamber, out to the surroundings. m³/s */
export function keptAt(element: Element, ways: readonly Way[]): Float64Array {
  const left = Float64Array.from(element.local.q)
  for (const { from, to, flow } of ways) {
    left[from] -= flow
    left[to] += flow
  }
  return left
}
