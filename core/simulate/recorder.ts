/** Samples and extremes of every quantity of a network. */
import type { Quantity } from '../units/quantities'
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

/** An array that is watched as a whole, with the least and greatest values of its entries and when they were. */
class Watched {
  readonly min: Float64Array
  readonly minAt: Float64Array
  readonly max: Float64Array
  readonly maxAt: Float64Array
  constructor(readonly now: Float64Array | Int32Array) {
    this.min = new Float64Array(now.length).fill(Infinity)
    this.max = new Float64Array(now.length).fill(-Infinity)
    this.minAt = new Float64Array(now.length)
    this.maxAt = new Float64Array(now.length)
  }
  look(t: number): void {
    const { now, min, minAt, max, maxAt } = this
    for (let i = 0; i < now.length; i++) {
      const value = now[i]
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
}

export class Recorder {
  readonly signals: Signal[] = []
  /** Where each signal is read. */
  private readonly sources: Watched[] = []
  private readonly indices: number[] = []
  private readonly watched: readonly Watched[]
  private times: Float64Array
  private readonly columns: Float32Array[]
  private count = 0

  constructor(network: Network, samples: number) {
    const { board } = network
    const [potential, u, x, o, mode, q] = [
      network.potential,
      board.u,
      board.x,
      board.o,
      board.mode,
      board.q,
    ].map((array) => new Watched(array))
    this.watched = [potential, u, x, o, mode, q]
    const add = (signal: Signal, source: Watched, index: number) => {
      this.signals.push(signal)
      this.sources.push(source)
      this.indices.push(index)
    }
    network.nodes.forEach((node, i) => {
      const { name, quantity } = potentials[node.domain]
      add(
        { id: `${name}(${node.name})`, label: `${name} of ${node.name}`, quantity, role: name, node: i },
        potential,
        i,
      )
    })
    network.elements.forEach((e, element) => {
      const owner = e.pipe ? { pipe: e.pipe } : { component: e.id }
      const { model } = e
      const from = board.starts[element]
      const named = (
        specs: readonly { name: string; label: string; quantity: Quantity }[],
        role: 'input' | 'state' | 'output',
        source: Watched,
        first: number,
      ) =>
        specs.forEach(({ name, label, quantity }, i) =>
          add({ id: `${e.id}.${name}`, label, quantity, role, ...owner }, source, first + i),
        )
      named(
        e.inputs.map((input) => input.spec),
        'input',
        u,
        from.inputs,
      )
      named(e.states, 'state', x, from.states)
      named(model.outputs ?? [], 'output', o, from.outputs)
      model.modes?.forEach((_, i) =>
        add(
          { id: `${e.id}.mode${i}`, label: `mode ${i}`, quantity: 'ratio', role: 'mode', ...owner },
          mode,
          from.modes + i,
        ),
      )
      e.portNames.forEach((port, i) => {
        const { name, words, quantity } = flows[network.nodes[e.nodes[i]].domain]
        add(
          { id: `${name}(${e.id}.${port})`, label: `${words} ${port}`, quantity, role: 'flow', ...owner },
          q,
          from.ports + i,
        )
      })
    })
    // an input and a state of one name would be two signals of one id
    const seen = new Set<string>()
    for (const s of this.signals) {
      if (seen.has(s.id)) throw new Error(`Two signals are called ${s.id}`)
      seen.add(s.id)
    }
    this.times = new Float64Array(samples)
    this.columns = this.signals.map(() => new Float32Array(samples))
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
    for (const watched of this.watched) watched.look(t)
  }

  /** A signal as the network was last evaluated and observed. */
  value(signal: number): number {
    return this.sources[signal].now[this.indices[signal]]
  }

  /** The extremes so far; the network stands at the end. */
  extremes(): Extremes[] {
    return this.signals.map((_, signal) => {
      const { min, minAt, max, maxAt } = this.sources[signal]
      const i = this.indices[signal]
      return { min: min[i], minAt: minAt[i], max: max[i], maxAt: maxAt[i], end: this.value(signal) }
    })
  }

  finish(): { times: Float64Array; columns: Float32Array[] } {
    return {
      times: this.times.slice(0, this.count),
      columns: this.columns.map((c) => c.slice(0, this.count)),
    }
  }
}
