/** The flow in every pipe of oil, also where several join their ends to one node without loss. */
import { pipeFriction } from '../../catalogue/lines/pipe'
import type { Fluid } from '../../fluid/fluid'
import type { SpeedClass } from '../../sheet/line-speeds'
import { keysBeyond, pipesByEnd } from '../../sheet/beyond'
import type { LineModel, Netlist } from '../../sheet/netlist'
import type { CircuitArrays } from './arrays'
import type { Element } from './elements'

/** A pipe of oil in a run. */
export interface OilLine {
  readonly pipe: string
  readonly name: string
  readonly model: LineModel
  readonly service: SpeedClass
  /** Node at its first end. */
  readonly node: number
  /** Area of its bore, m². */
  readonly area: number
  /** Writes the pressure drop by the law of friction, Pa, of one of some flows, m³/s, by their indices: see `addPathFlows`. */
  writeLoss(flows: Float64Array, flow: number, drops: Float64Array, drop: number): void
  /** The flow from its first end to its second is the sum of those into these ports, times the sign. */
  readonly ports: Int32Array
  readonly sign: 1 | -1
}

/** Index of each port of oil among all, by its key; the ends of pipes with a loss count as ports where they lie. */
function portsAt(elements: readonly Element[], arrays: CircuitArrays, { pipes, oilPipes }: Netlist) {
  const at = new Map<string, number[]>()
  const add = (key: string, port: number) => at.set(key, [...(at.get(key) ?? []), port])
  const ends = new Map(oilPipes.map(({ pipe, ends }) => [pipe.id, ends]))
  const lossy = new Set(pipes.map(({ pipe }) => pipe.id))
  elements.forEach((element, e) => {
    const first = arrays.offsets[e].ports
    if (element.resolved) element.portNames.forEach((name, i) => add(`${element.id}.${name}`, first + i))
    else if (element.pipe !== undefined && lossy.has(element.pipe) && element.id === `pipe:${element.pipe}`)
      ends.get(element.pipe)!.forEach((key, i) => add(key, first + i))
  })
  return at
}

/** @param services by pipe */
export function oilLines(
  netlist: Netlist,
  services: ReadonlyMap<string, SpeedClass>,
  elements: readonly Element[],
  arrays: CircuitArrays,
  fluid: Fluid,
): OilLine[] {
  const ports = portsAt(elements, arrays, netlist)
  const joined = pipesByEnd(netlist.oilPipes.filter(({ model }) => model === 'lossFree'))
  return netlist.oilPipes.flatMap((oilPipe): OilLine[] => {
    const { pipe, bore, length, model } = oilPipe
    const friction = length > 0 ? pipeFriction({ length, bore }, fluid) : undefined
    const line = {
      pipe: pipe.id,
      name: pipe.name ?? pipe.id,
      model,
      service: services.get(pipe.id) ?? 'pressure',
      node: netlist.nodeOfPipe.get(pipe.id) ?? -1,
      area: (Math.PI * bore * bore) / 4,
      writeLoss: (flows: Float64Array, flow: number, drops: Float64Array, drop: number) => {
        drops[drop] = friction ? friction.loss(flows[flow]) : 0
      },
    }
    if (model !== 'lossFree') {
      const e = elements.findIndex((element) => element.id === `pipe:${pipe.id}`)
      return e < 0 ? [] : [{ ...line, ports: Int32Array.of(arrays.offsets[e].ports), sign: 1 }]
    }
    const sides = ([1, 0] as const).map((end) => keysBeyond(oilPipe, end, joined))
    if (!sides[0] || !sides[1]) return []
    const lists = sides.map((keys) => [...keys!].flatMap((key) => ports.get(key) ?? []))
    // the side with fewer ports: oil that gathers in the pipes is left out
    const nearer = lists[1].length < lists[0].length ? 1 : 0
    return [{ ...line, ports: Int32Array.from(lists[nearer]), sign: nearer === 0 ? 1 : -1 }]
  })
}
