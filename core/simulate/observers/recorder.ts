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

/** State of the recording as plain data. The samples before it stay with the recorder. */
export interface RecorderState {
  /** Number of samples that were due so far. */
  readonly due: number
  /** Inputs that were included later: element and input of it. */
  readonly included: readonly (readonly [element: string, input: number])[]
  /** Least values of all that is recorded and when they were, then the greatest. */
  readonly extremes: readonly Float64Array[]
}

export class Recorder implements Observer<RecorderState> {
  readonly signals: Signal[] = []
  private readonly ids = new Set<string>()
  /** Where each signal is among what is recorded. */
  private readonly places: number[] = []
  /** All that is recorded, as the network is observed, and its least and greatest values with their instants. */
  private readonly now: Float64Array
  private readonly least: Float64Array
  private readonly leastAt: Float64Array
  private readonly greatest: Float64Array
  private readonly greatestAt: Float64Array
  /** Greatest potential of every node so far: of oil its pressure, Pa. */
  readonly highest: Float64Array
  private readonly modes: Int32Array
  private readonly modeValues: Float64Array
  /** Places of the first input, of the first mode and of the first flow; before them is what changes all the time, as flows do. */
  private readonly firstInput: number
  private readonly firstMode: number
  private readonly firstFlow: number
  /** Jumps of inputs that have been recorded. */
  private jumps = -1
  readonly store: SampleStore
  /** Samples are due at multiples of `every`; this many were. */
  private due = 0
  private readonly included: [string, number][] = []

  /** @param every s between samples @param room values of all samples that are kept @param expected number of samples, where it is known */
  constructor(
    private readonly network: Network,
    private readonly every: number,
    room = Infinity,
    expected?: number,
  ) {
    this.store = new SampleStore(room, expected)
    const { arrays } = network
    const { recorded, potential, u, x, o, q, mode, modeValues } = arrays
    this.now = recorded
    this.least = new Float64Array(recorded.length).fill(Infinity)
    this.leastAt = new Float64Array(recorded.length)
    this.greatest = new Float64Array(recorded.length).fill(-Infinity)
    this.greatestAt = new Float64Array(recorded.length)
    const firstPotential = arrays.recordedAt(potential, 0)
    this.highest = this.greatest.subarray(firstPotential, firstPotential + potential.length)
    this.modes = mode
    this.modeValues = modeValues
    // none is recorded yet
    modeValues.fill(Number.NaN)
    this.firstInput = arrays.recordedAt(u, 0)
    this.firstMode = arrays.recordedAt(modeValues, 0)
    this.firstFlow = arrays.recordedAt(q, 0)
    const add = (signal: Signal, source: Float64Array, index: number) =>
      this.add(signal, arrays.recordedAt(source, index))
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
        source: Float64Array,
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
          modeValues,
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
  private add(signal: Signal, place: number): void {
    // an input and a state of one name would be two signals of one id
    if (this.ids.has(signal.id)) throw new Error(`Two signals are called ${signal.id}`)
    this.ids.add(signal.id)
    this.signals.push(signal)
    this.places.push(place)
    this.store.addColumn(place)
  }

  /** Records an input that was not, from now on: a fault of a component that was sound. It was 0 before. */
  include(element: Element, input: number): void {
    const { name, label, quantity } = element.inputs[input].spec
    const id = `${element.id}.${name}`
    if (this.ids.has(id)) return
    this.included.push([element.id, input])
    const signal = { id, label, quantity, role: 'input', component: element.id } as const
    this.add(signal, this.network.arrays.recordedAt(this.network.arrays.u, element.firstInput + input))
  }

  /** Takes inputs out that were included after the first ones that these begin with too. */
  excludeAllBut(included: RecorderState['included']): void {
    let same = 0
    const { length } = this.included
    while (same < length && included[same]?.join() === this.included[same].join()) same++
    for (let i = length; i > same; i--) {
      this.included.pop()
      this.ids.delete(this.signals.pop()!.id)
      this.places.pop()
      this.store.removeColumn()
    }
  }

  /** Instant of the next sample, s. */
  get nextSample(): number {
    return this.due * this.every
  }

  /** Keeps a sample of the network as it is observed, and goes on to the next that is due. */
  sample(t: number): void {
    this.observe(t)
    this.store.append(t, this.now)
    while (this.nextSample <= t * (1 + 1e-12)) this.due++
  }

  /** Widens the extremes by the network as it is observed. */
  observe(t: number): void {
    const { network, modes, modeValues, now, firstInput, firstMode, firstFlow } = this
    this.widen(t, 0, firstInput)
    this.widen(t, firstFlow, now.length)
    if (network.inputs.movingCount > 0 || network.inputs.jumps !== this.jumps) {
      this.jumps = network.inputs.jumps
      this.widen(t, firstInput, firstMode)
    }
    for (let i = 0; i < modes.length; i++)
      if (modes[i] !== modeValues[i]) {
        modeValues[i] = modes[i]
        this.widen(t, firstMode + i, firstMode + i + 1)
      }
  }
  /** @param from first place @param to the place after the last */
  private widen(t: number, from: number, to: number): void {
    const { now, least, leastAt, greatest, greatestAt } = this
    for (let i = from; i < to; i++) {
      const value = now[i]
      if (value < least[i]) {
        least[i] = value
        leastAt[i] = t
      }
      if (value > greatest[i]) {
        greatest[i] = value
        greatestAt[i] = t
      }
    }
  }

  /** A signal as the network is observed. */
  value(signal: number): number {
    const place = this.places[signal]
    const mode = place - this.firstMode
    return mode >= 0 && mode < this.modes.length ? this.modes[mode] : this.now[place]
  }

  /** The extremes so far; the network is observed at the end. */
  extremes(): Extremes[] {
    const { least, leastAt, greatest, greatestAt } = this
    return this.places.map((i, signal) => ({
      min: least[i],
      minAt: leastAt[i],
      max: greatest[i],
      maxAt: greatestAt[i],
      end: this.value(signal),
    }))
  }

  /** A copy of all samples so far, and one of where the network is observed at t if that was not sampled yet. */
  recording(t: number): { times: Float64Array; columns: Float32Array[] } {
    this.copyModes()
    return this.store.copy(t, this.now)
  }

  save(): RecorderState {
    const { due, included, least, leastAt, greatest, greatestAt } = this
    const extremes = [least, leastAt, greatest, greatestAt].map((array) => array.slice())
    return { due, included: [...included], extremes }
  }
  load({ due, extremes }: RecorderState): void {
    // the samples of another recorder are not available: recording begins here
    this.due = due
    this.store.truncate(this.nextSample * (1 - 1e-12))
    const { least, leastAt, greatest, greatestAt } = this
    ;[least, leastAt, greatest, greatestAt].forEach((array, i) => array.set(extremes[i]))
    this.jumps = -1
    this.modeValues.fill(Number.NaN)
  }
}
