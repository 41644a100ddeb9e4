/** Flat arrays of all that the elements of a circuit read and write; each element works on views of its own part. */
import { POWERS, type Local, type Model } from '../../catalogue/kind'

/** How much an element has of everything. */
export interface ArraysPart {
  readonly model: Model
  readonly ports: number
  readonly inputs: number
}

/** Number of values, or index of the first, by what they are. */
interface Counts {
  readonly ports: number
  readonly states: number
  readonly inputs: number
  readonly modes: number
  readonly eventFunctions: number
  readonly outputs: number
  readonly conditions: number
  readonly powers: number
  readonly frictions: number
}

const countsOf = ({ model, ports, inputs }: ArraysPart): Counts => ({
  ports,
  states: model.states?.length ?? 0,
  inputs,
  modes: model.modes?.length ?? 0,
  eventFunctions: model.eventFunctions?.length ?? 0,
  outputs: model.outputs?.length ?? 0,
  conditions: model.conditions?.length ?? 0,
  powers: POWERS,
  frictions: model.dryFriction?.length ?? 0,
})

/** Flat arrays, named as in `Local`, so that gathering, scattering and watching are plain loops. */
export class CircuitArrays implements Local {
  /** All that is recorded, in one piece: `x`, `o`, `potential`, `u`, `modeValues`, `q`. */
  readonly recorded: Float64Array
  /** Potential of each node. */
  readonly potential: Float64Array
  /** The modes as they were last copied by whoever records them. */
  readonly modeValues: Float64Array
  /** What the equations of elements read: potentials at ports, then states. */
  readonly modelInputs: Float64Array
  /** What they find: flows at ports, then rates of states. */
  readonly modelOutputs: Float64Array
  readonly p: Float64Array
  readonly q: Float64Array
  readonly v: Float64Array
  readonly a: Float64Array
  readonly e: Float64Array
  readonly h: Float64Array
  readonly f: Float64Array
  readonly x: Float64Array
  readonly dx: Float64Array
  readonly u: Float64Array
  readonly mode: Int32Array
  readonly g: Float64Array
  readonly o: Float64Array
  readonly c: Float64Array
  readonly power: Float64Array
  readonly energy: Float64Array
  readonly slide: Float64Array
  readonly holdForward: Float64Array
  readonly holdBack: Float64Array
  readonly held: Float64Array
  /** Where the values of each element begin; the last entry is where all end. */
  readonly offsets: readonly Counts[]
  /** The view of each element. */
  readonly locals: readonly Local[]

  /** @param nodes number of nodes of the circuit */
  constructor(parts: readonly ArraysPart[], nodes = 0) {
    const sum: { -readonly [K in keyof Counts]: number } = {
      ports: 0,
      states: 0,
      inputs: 0,
      modes: 0,
      eventFunctions: 0,
      outputs: 0,
      conditions: 0,
      powers: 0,
      frictions: 0,
    }
    const keys = Object.keys(sum) as (keyof Counts)[]
    const starts: Counts[] = [{ ...sum }]
    for (const part of parts) {
      const counts = countsOf(part)
      for (const key of keys) sum[key] += counts[key]
      starts.push({ ...sum })
    }
    this.offsets = starts
    // one after the other: p, then what is recorded, then dx
    const all = new Float64Array(2 * (sum.ports + sum.states) + sum.inputs + sum.outputs + nodes + sum.modes)
    let end = 0
    const next = (length: number) => all.subarray(end, (end += length))
    this.p = next(sum.ports)
    this.x = next(sum.states)
    this.o = next(sum.outputs)
    this.potential = next(nodes)
    this.u = next(sum.inputs)
    this.modeValues = next(sum.modes)
    this.q = next(sum.ports)
    this.recorded = all.subarray(sum.ports, end)
    this.dx = next(sum.states)
    this.modelInputs = all.subarray(0, sum.ports + sum.states)
    this.modelOutputs = all.subarray(end - sum.ports - sum.states, end)
    this.v = new Float64Array(sum.ports)
    this.a = new Float64Array(sum.ports)
    this.e = new Float64Array(sum.ports)
    this.h = new Float64Array(sum.ports)
    this.f = new Float64Array(sum.ports)
    this.mode = Int32Array.from(parts.flatMap(({ model }) => model.modes ?? []))
    this.g = new Float64Array(sum.eventFunctions)
    this.c = new Float64Array(sum.conditions)
    this.power = new Float64Array(sum.powers)
    this.energy = new Float64Array(parts.length)
    this.slide = new Float64Array(sum.frictions)
    this.holdForward = new Float64Array(sum.frictions)
    this.holdBack = new Float64Array(sum.frictions)
    this.held = new Float64Array(sum.frictions)
    this.locals = parts.map((_, i): Local => {
      const [from, to] = [starts[i], starts[i + 1]]
      return {
        p: this.p.subarray(from.ports, to.ports),
        q: this.q.subarray(from.ports, to.ports),
        v: this.v.subarray(from.ports, to.ports),
        a: this.a.subarray(from.ports, to.ports),
        e: this.e.subarray(from.ports, to.ports),
        h: this.h.subarray(from.ports, to.ports),
        f: this.f.subarray(from.ports, to.ports),
        x: this.x.subarray(from.states, to.states),
        dx: this.dx.subarray(from.states, to.states),
        u: this.u.subarray(from.inputs, to.inputs),
        mode: this.mode.subarray(from.modes, to.modes),
        g: this.g.subarray(from.eventFunctions, to.eventFunctions),
        o: this.o.subarray(from.outputs, to.outputs),
        c: this.c.subarray(from.conditions, to.conditions),
        power: this.power.subarray(from.powers, to.powers),
        energy: this.energy.subarray(i, i + 1),
        slide: this.slide.subarray(from.frictions, to.frictions),
        holdForward: this.holdForward.subarray(from.frictions, to.frictions),
        holdBack: this.holdBack.subarray(from.frictions, to.frictions),
        held: this.held.subarray(from.frictions, to.frictions),
      }
    })
  }

  /** Place among what is recorded of an entry of one of those arrays. */
  recordedAt(array: Float64Array, index: number): number {
    return (array.byteOffset - this.recorded.byteOffset) / array.BYTES_PER_ELEMENT + index
  }
}
