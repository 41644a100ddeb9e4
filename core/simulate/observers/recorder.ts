/** Samples and extremes of every quantity of a network. */
import type { Quantity } from '../../units/quantities'
import type { Element } from '../circuit/elements'
import type { Network } from '../circuit/network'
import type { Extremes, Signal } from '../result'
import type { Observer } from './observer'
import { SampleStore } from './sample-store'

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

/** An array whose entries have their least and greatest values kept, and when they were. */
class Watched {
  readonly min: Float64Array
  readonly minAt: Float64Array
  readonly max: Float64Array
  readonly maxAt: Float64Array
  constructor(readonly now: Float64Array) {
    this.min = new Float64Array(now.length).fill(Infinity)
    this.max = new Float64Array(now.length).fill(-Infinity)
    this.minAt = new Float64Array(now.length)
    this.maxAt = new Float64Array(now.length)
  }
  updateExtremes(t: number): void {
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
  save(): readonly Float64Array[] {
    return [this.min, this.minAt, this.max, this.maxAt].map((array) => array.slice())
  }
  load(saved: readonly Float64Array[]): void {
    ;[this.min, this.minAt, this.max, this.maxAt].forEach((array, i) => array.set(saved[i]))
  }
}

/** State of the recording as plain data. The samples before it stay with the recorder. */
export interface RecorderState {
  /** Number of samples that were due so far. */
  readonly due: number
  /** Inputs that were included later: element and input of it. */
  readonly included: readonly (readonly [element: string, input: number])[]
  readonly extremes: readonly (readonly Float64Array[])[]
}
export class Recorder implements Observer<RecorderState> {
  readonly signals: Signal[] = []
  private readonly ids = new Set<string>()
  /** Where each signal is read. */
  private readonly sources: Watched[] = []
  private readonly indices: number[] = []
  private readonly watched: readonly Watched[]
  readonly store: SampleStore
  /** Samples are due at multiples of `every`; this many were. */
  private due = 0
  private readonly inputValues: Watched
  /** Modes as they are, and as all other values. */
  private readonly modes: Int32Array
  private readonly modeValues: Float64Array
  /** Value of each signal as it was last read. */
  private current = new Float64Array(0)
  private readonly included: [string, number][] = []

  /** @param every s between samples @param room values of all samples that are kept */
  constructor(
    network: Network,
    private readonly every: number,
    room = Infinity,
  ) {
    this.store = new SampleStore(room)
    const { arrays } = network
    this.modes = arrays.mode
    const [potential, u, x, o, mode, q] = [
      network.potential,
      arrays.u,
      arrays.x,
      arrays.o,
      new Float64Array(arrays.mode.length),
      arrays.q,
    ].map((array) => new Watched(array))
    this.modeValues = mode.now
    this.watched = [potential, u, x, o, mode, q]
    this.inputValues = u
    const add = (signal: Signal, source: Watched, index: number) => this.add(signal, source, index)
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
      if (e.internal) return
      const from = arrays.offsets[element]
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
        e.inputs.slice(0, e.inputsRead).map((input) => input.spec),
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
  }

  private copyModes(): void {
    const { modes, modeValues } = this
    for (let i = 0; i < modes.length; i++) modeValues[i] = modes[i]
  }
  /** Values of all signals as the network is observed. */
  private read(): Float64Array {
    const { sources, indices } = this
    if (this.current.length !== sources.length) this.current = new Float64Array(sources.length)
    const { current } = this
    this.copyModes()
    for (let i = 0; i < current.length; i++) current[i] = sources[i].now[indices[i]]
    return current
  }
  private add(signal: Signal, source: Watched, index: number): void {
    // an input and a state of one name would be two signals of one id
    if (this.ids.has(signal.id)) throw new Error(`Two signals are called ${signal.id}`)
    this.ids.add(signal.id)
    this.signals.push(signal)
    this.sources.push(source)
    this.indices.push(index)
    this.store.addColumn()
  }

  /** Records an input that was not, from now on: a fault of a component that was sound. It was 0 before. */
  include(element: Element, input: number): void {
    const { name, label, quantity } = element.inputs[input].spec
    const id = `${element.id}.${name}`
    if (this.ids.has(id)) return
    this.included.push([element.id, input])
    const signal = { id, label, quantity, role: 'input', component: element.id } as const
    this.add(signal, this.inputValues, element.firstInput + input)
  }

  /** Takes inputs out that were included after the first ones that these begin with too. */
  excludeAllBut(included: RecorderState['included']): void {
    let same = 0
    const { length } = this.included
    while (same < length && included[same]?.join() === this.included[same].join()) same++
    for (let i = length; i > same; i--) {
      this.included.pop()
      this.ids.delete(this.signals.pop()!.id)
      this.sources.pop()
      this.indices.pop()
      this.store.columns.pop()
    }
  }

  /** Instant of the next sample, s. */
  get nextSample(): number {
    return this.due * this.every
  }

  /** Keeps a sample of the network as it is observed, and goes on to the next that is due. */
  sample(t: number): void {
    this.store.append(t, this.read())
    this.observe(t)
    while (this.nextSample <= t * (1 + 1e-12)) this.due++
  }

  /** Widens the extremes by the network as it is observed. */
  observe(t: number): void {
    const { watched } = this
    this.copyModes()
    for (let i = 0; i < watched.length; i++) watched[i].updateExtremes(t)
  }

  /** A signal as the network is observed. */
  value(signal: number): number {
    const source = this.sources[signal].now
    const index = this.indices[signal]
    return source === this.modeValues ? this.modes[index] : source[index]
  }

  /** The extremes so far; the network is observed at the end. */
  extremes(): Extremes[] {
    return this.signals.map((_, signal) => {
      const { min, minAt, max, maxAt } = this.sources[signal]
      const i = this.indices[signal]
      return { min: min[i], minAt: minAt[i], max: max[i], maxAt: maxAt[i], end: this.value(signal) }
    })
  }

  /** A copy of all samples so far, and one of where the network is observed at t if that was not sampled yet. */
  recording(t: number): { times: Float64Array; columns: Float32Array[] } {
    return this.store.copy(t, this.read())
  }

  save(): RecorderState {
    const { due, included } = this
    return { due, included: [...included], extremes: this.watched.map((w) => w.save()) }
  }
  load({ due, extremes }: RecorderState): void {
    // the samples of another recorder are not available: recording begins here
    this.due = due
    this.store.truncate(this.nextSample * (1 - 1e-12))
    this.watched.forEach((w, i) => w.load(extremes[i]))
  }
}
