/** A run seen at one instant: what a component reads then, and the flow in each pipe. */
import { POWERS, type Local } from '../catalogue/kind'
import { findKind } from '../catalogue'
import { keysBeyond, pipesByEnd } from '../sheet/beyond'
import type { Sheet } from '../sheet/schema'
import { endKey, lineDomain, portKey } from '../sheet/netlist'
import { sampleAt, type RunResult, type SignalRole } from './result'

/** Values of every signal at a time, straight between samples, into `out`. */
export function valuesAt(result: RunResult, t: number, out: Float64Array): Float64Array {
  const { index, share } = sampleAt(result.times, t)
  for (let i = 0; i < result.columns.length; i++) {
    const column = result.columns[i]
    const next = index + 1 < column.length ? index + 1 : index
    out[i] = column[index] + share * (column[next] - column[index])
  }
  return out
}

const indexes = new WeakMap<readonly unknown[], ReadonlyMap<string, number>>()
/** Index of each signal by its id. */
export function signalMap(result: Pick<RunResult, 'signals'>): ReadonlyMap<string, number> {
  let map = indexes.get(result.signals)
  if (!map) {
    map = new Map(result.signals.map((s, i) => [s.id, i]))
    indexes.set(result.signals, map)
  }
  return map
}

/** The numbers of a component at a frame, as its own words (`say`) read them; none if the run lacks it. */
export function localAt(
  result: RunResult,
  frame: Float64Array,
  component: { id: string; kind: string },
): Local | undefined {
  const kind = findKind(component.kind)
  if (!kind) return undefined
  const lines = kind.ports.map((port) => result.lineOfPort[portKey(component.id, port.name)])
  if (lines.includes(undefined as never)) return undefined
  const own = (role: SignalRole) =>
    Float64Array.from(
      result.signals.flatMap((s, i) => (s.component === component.id && s.role === role ? [frame[i]] : [])),
    )
  return {
    p: Float64Array.from(lines, (line) => frame[line]),
    x: own('state'),
    u: own('input'),
    mode: Int32Array.from(own('mode')),
    q: own('flow'),
    o: own('output'),
    v: new Float64Array(0),
    a: new Float64Array(0),
    e: new Float64Array(0),
    h: new Float64Array(0),
    f: new Float64Array(0),
    slide: new Float64Array(0),
    holdForward: new Float64Array(0),
    holdBack: new Float64Array(0),
    held: new Float64Array(0),
    dx: new Float64Array(0),
    g: new Float64Array(0),
    c: new Float64Array(0),
    power: new Float64Array(POWERS),
    energy: new Float64Array(1),
  }
}

/** Flow along a pipe as a sum of port flows, by signal index. */
export interface PipeFlow {
  readonly pipe: string
  readonly signals: readonly number[]
}

/**
 * How the flow of each oil pipe, from its first end to its second, follows from the flows into
 * the ports beyond it. The oil a line swallows as its pressure changes is left out. Pipes that
 * lie in a ring have no determined flow and are not listed.
 */
export function pipeFlows(sheet: Sheet, result: Pick<RunResult, 'signals'>): PipeFlow[] {
  const map = signalMap(result)
  const pipes = sheet.pipes
    .filter((p) => lineDomain(p.lineType) === 'oil')
    .map(({ id, from, to }) => ({ id, ends: [endKey(from), endKey(to)] as const }))
  const joined = pipesByEnd(pipes)
  return pipes.flatMap((pipe): PipeFlow[] => {
    const keys = keysBeyond(pipe, 1, joined)
    if (!keys) return []
    return [{ pipe: pipe.id, signals: [...keys].flatMap((key) => map.get(`flow(${key})`) ?? []) }]
  })
}
