/**
 * A circuit at an instant of a run: the network stands evaluated in the state that the run has recorded, so that every component can
 * be asked what it does. Parameters that were changed in flight, and faults, are those of the instant.
 */
import { compileMachine, compileMachineLive, devicesOf } from '../control/run'
import { resolveComponent } from '../sheet/resolve'
import type { Sheet } from '../sheet/schema'
import type { Element } from '../simulate/circuit/elements'
import { Network } from '../simulate/circuit/network'
import { sampleAt, type RunResult } from '../simulate/result'

/** What of a run is needed: its signals, actions and how it was started. */
export type RunSource = Pick<RunResult, 'signals' | 'actions' | 'schedule' | 'live'>

/** Reads a recorded value, SI, by its index among the signals. */
export type ReadSignal = (signal: number) => number

/** Where a signal goes in the network. */
interface Target {
  readonly signal: number
  readonly array: Float64Array | Int32Array
  readonly index: number
}

export class Moments {
  readonly network: Network
  /** Relative tolerance of the run. */
  readonly tolerance: number
  /** Instant that is shown, s. */
  time = Number.NaN
  private readonly y: Float64Array
  private readonly targets: readonly Target[]
  private readonly inputs: readonly { readonly signal: number; readonly input: number }[]
  /** How each component stands rebuilt: its changed parameters, and whether its faults are around it. */
  private readonly built = new Map<string, string>()
  private readonly faultInputs: ReadonlyMap<string, readonly number[]>

  /** @throws Error where the sheet cannot be simulated */
  constructor(
    readonly sheet: Sheet,
    private readonly run: RunSource,
  ) {
    const { compiled, findings } = run.live
      ? compileMachineLive(sheet, run.schedule, run.live.held)
      : compileMachine(sheet, run.schedule)
    if (!compiled) throw new Error(findings.find((f) => f.severity === 'error')!.message)
    const network = new Network(compiled)
    this.network = network
    this.tolerance = compiled.settings.tolerance
    network.freezeInputs(0)
    this.y = Float64Array.from(network.initial)
    const { elements, arrays, nodeState } = network
    const byId = new Map(elements.map((e, i) => [e.id, i]))
    const targets: Target[] = []
    const inputs: { signal: number; input: number }[] = []
    const faults = new Map<string, number[]>()
    const devices = new Set(devicesOf(sheet).map(({ id }) => id))
    run.signals.forEach(({ id, role, node, component, pipe }, signal) => {
      if (node !== undefined) {
        if (nodeState[node] >= 0) targets.push({ signal, array: this.y, index: nodeState[node] })
        return
      }
      const owner = component ?? (pipe === undefined ? '' : `pipe:${pipe}`)
      const element = byId.get(owner)
      const name = id.slice(owner.length + 1)
      if (role === 'input' && component !== undefined) {
        const input = network.inputs.find(component, name)
        if (input < 0) return
        inputs.push({ signal, input })
        if (network.inputs.inputs[input].fault && !devices.has(component))
          faults.set(component, [...(faults.get(component) ?? []), signal])
      } else if (element === undefined) return
      else if (role === 'state') {
        const state = elements[element].states.findIndex((s) => s.name === name)
        if (state >= 0) targets.push({ signal, array: this.y, index: elements[element].firstState + state })
      } else if (role === 'mode')
        targets.push({
          signal,
          array: arrays.mode,
          index: arrays.offsets[element].modes + Number(name.slice(4)),
        })
    })
    this.targets = targets
    this.inputs = inputs
    this.faultInputs = faults
  }

  /** Shows a sample of a recording: the last one at or before t. */
  showRecorded(result: Pick<RunResult, 'times' | 'columns'>, t: number): void {
    const { index } = sampleAt(result.times, t)
    this.show((signal) => result.columns[signal][index], result.times[index])
  }

  /** Shows the state that the signals give. @param t s */
  show(read: ReadSignal, t: number): void {
    const { network, y } = this
    for (const { signal, array, index } of this.targets) array[index] = read(signal)
    for (const { signal, input } of this.inputs) network.inputs.set(input, read(signal), 'hand')
    network.unfreezeInputs()
    network.freezeInputs(t)
    this.rebuild(read, t)
    this.time = t
    network.slideAsMoving(t, y)
    network.observe(t, y)
  }

  /** A copy of the state that is shown. */
  state(): Float64Array {
    return Float64Array.from(this.y)
  }

  element(component: string): Element | undefined {
    return this.network.elements.find((e) => e.id === component)
  }

  /** Gives components the parameters and faults that they have at t. */
  private rebuild(read: ReadSignal, t: number): void {
    const changes = new Map<string, Record<string, unknown>>()
    for (const action of this.run.actions)
      if (action.kind === 'parameter' && action.at <= t)
        changes.set(action.component, { ...changes.get(action.component), [action.target]: action.value })
    const faulty = new Set(
      [...this.faultInputs].filter(([, signals]) => signals.some((s) => read(s) !== 0)).map(([id]) => id),
    )
    for (const id of new Set([...changes.keys(), ...faulty, ...this.built.keys()])) {
      const parameters = changes.get(id) ?? {}
      const wanted = JSON.stringify([parameters, faulty.has(id)])
      if (this.built.get(id) === wanted) continue
      const component = this.sheet.components.find((c) => c.id === id)
      const index = this.network.elements.findIndex((e) => e.id === id)
      if (!component || index < 0) continue
      const { resolved } = resolveComponent({
        ...component,
        parameters: { ...component.parameters, ...(parameters as typeof component.parameters) },
      })
      if (!resolved) continue
      this.network.replace(index, resolved, faulty.has(id), t, this.y)
      this.built.set(id, wanted)
    }
  }
}

/**
 * Reads an output or a state of a component by its name from the observed network of any run of the sheet.
 * @returns nothing where it has none of that name
 */
export function readerOf(
  { elements }: Network,
  component: string,
  name: string,
): ((network: Network) => number) | undefined {
  const index = elements.findIndex((e) => e.id === component)
  if (index < 0) return undefined
  const { model, states } = elements[index]
  const output = model.outputs?.findIndex((o) => o.name === name) ?? -1
  if (output >= 0) return (network) => network.elements[index].local.o[output]
  const state = states.findIndex((s) => s.name === name)
  return state >= 0 ? (network) => network.elements[index].local.x[state] : undefined
}
