/** Samples and extremes of every quantity of a network. */
import type { Network } from './network'
import type { Extremes, Signal } from './result'

const potentials = {
  oil: { name: 'pressure', quantity: 'pressure' },
  shaft: { name: 'speed', quantity: 'rotationalSpeed' },
  rod: { name: 'position', quantity: 'length' },
} as const
const flows = {
  oil: { name: 'flow', words: 'flow into', quantity: 'flow' },
  shaft: { name: 'torque', words: 'torque at', quantity: 'torque' },
  rod: { name: 'velocity', words: 'velocity at', quantity: 'speed' },
} as const

export class Recorder {
  readonly signals: Signal[] = []
  /** Where each signal is read: side by side, so that the loops over them are plain. */
  private readonly arrays: ArrayLike<number>[] = []
  private readonly indices: number[] = []
  private readonly min: Float64Array
  private readonly minAt: Float64Array
  private readonly max: Float64Array
  private readonly maxAt: Float64Array
  private times: Float64Array
  private readonly columns: Float32Array[]
  private count = 0

  constructor(network: Network, samples: number) {
    const add = (signal: Signal, array: ArrayLike<number>, index: number) => {
      this.signals.push(signal)
      this.arrays.push(array)
      this.indices.push(index)
    }
    network.nodes.forEach((node, i) => {
      const { name, quantity } = potentials[node.domain]
      add(
        { id: `${name}(${node.name})`, label: `${name} of ${node.name}`, quantity, role: name, node: i },
        network.potential,
        i,
      )
    })
    for (const e of network.elements) {
      const owner = e.pipe ? { pipe: e.pipe } : { component: e.id }
      const { model, local } = e
      e.inputSpecs.forEach((spec, i) =>
        add(
          { id: `${e.id}.${spec.name}`, label: spec.label, quantity: spec.quantity, role: 'input', ...owner },
          local.u,
          i,
        ),
      )
      model.states?.forEach((s, i) =>
        add(
          { id: `${e.id}.${s.name}`, label: s.label, quantity: s.quantity, role: 'state', ...owner },
          local.x,
          i,
        ),
      )
      model.outputs?.forEach((s, i) =>
        add(
          { id: `${e.id}.${s.name}`, label: s.label, quantity: s.quantity, role: 'output', ...owner },
          local.o,
          i,
        ),
      )
      model.modes?.forEach((_, i) =>
        add(
          { id: `${e.id}.mode${i}`, label: `mode ${i}`, quantity: 'ratio', role: 'mode', ...owner },
          local.mode,
          i,
        ),
      )
      e.portNames.forEach((port, i) => {
        const { name, words, quantity } = flows[network.nodes[e.nodes[i]].domain]
        add(
          { id: `${name}(${e.id}.${port})`, label: `${words} ${port}`, quantity, role: 'flow', ...owner },
          local.q,
          i,
        )
      })
    }
    // an input and a state of one name would be two signals of one id
    const seen = new Set<string>()
    for (const s of this.signals) {
      if (seen.has(s.id)) throw new Error(`Two signals are called ${s.id}`)
      seen.add(s.id)
    }
    this.times = new Float64Array(samples)
    this.columns = this.signals.map(() => new Float32Array(samples))
    const n = this.signals.length
    this.min = new Float64Array(n).fill(Infinity)
    this.max = new Float64Array(n).fill(-Infinity)
    this.minAt = new Float64Array(n)
    this.maxAt = new Float64Array(n)
  }

  /** Keeps a sample of the network as it was last evaluated and observed. */
  sample(t: number): void {
    const k = this.count
    if (k >= this.times.length) return
    this.times[k] = t
    for (let i = 0; i < this.columns.length; i++) this.columns[i][k] = this.value(i)
    this.count++
    this.watch(t)
  }

  /** Widens the extremes by the network as it was last evaluated and observed. */
  watch(t: number): void {
    const { arrays, indices, min, max, minAt, maxAt } = this
    for (let i = 0; i < min.length; i++) {
      const value = arrays[i][indices[i]]
      if (value < min[i]) {
        min[i] = value
        minAt[i] = t
      }
      if (value > max[i]) {
        max[i] = value
        maxAt[i] = t
      }
    }
  }

  /** A signal as the network was last evaluated and observed. */
  value(signal: number): number {
    return this.arrays[signal][this.indices[signal]]
  }

  /** The extremes so far; the network stands at the end. */
  extremes(): Extremes[] {
    const { min, max, minAt, maxAt } = this
    return this.signals.map((_, i) => ({
      min: min[i],
      minAt: minAt[i],
      max: max[i],
      maxAt: maxAt[i],
      end: this.value(i),
    }))
  }

  finish(): { times: Float64Array; columns: Float32Array[] } {
    return {
      times: this.times.slice(0, this.count),
      columns: this.columns.map((c) => c.slice(0, this.count)),
    }
  }
}
