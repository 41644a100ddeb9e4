/** The control of a sheet as a simulation runs it. */
import type {
  Control,
  ControlDefinition,
  ControlEvent,
  Readings,
  Reaction,
} from '../simulate/control-interface'
import type { Sheet } from '../sheet/schema'
import { copyOf, Logic, Unstable, type LogicState, type Surroundings } from './logic'
import { readControl, type ReadControl } from './program'
import { racesAt } from './races'
import { checkControl } from './check'

interface SavedControl {
  readonly state: LogicState
  readonly started: boolean
  readonly conditions: readonly boolean[]
}

export class ControlMachine implements Control {
  private state: LogicState
  private started = false
  values: number[]
  conditions: boolean[]

  constructor(private readonly logic: Logic) {
    this.state = logic.initial()
    this.values = logic.outputValues(this.state)
    this.conditions = logic.violated(this.state, 0)
  }

  react(t: number, readings: Readings): Reaction {
    const { logic } = this
    const { state } = this
    const around: Surroundings = {
      isOn: (component) => readings.isOn(component),
      input: (id, name) => readings.input(id, name) ?? 0,
    }
    const events: ControlEvent[] = []
    try {
      if (!this.started) {
        this.started = true
        this.observe(t, readings, around)
        if (!logic.settle(state, around))
          events.push({ device: '', what: 'relays do not come to rest before the start' })
      } else {
        events.push(...racesAt(logic, state, around, t))
        events.push(...logic.expire(state, t, undefined, around))
      }
      const ranges = this.observe(t, readings, around)
      events.push(...logic.solve(state, around, t))
      this.values = logic.outputValues(state)
      this.conditions = logic.violated(state, t)
      return { outputs: logic.outputs(state), nextDue: logic.nextDue(state, t), events, ranges }
    } catch (error) {
      if (!(error instanceof Unstable)) throw error
      events.push({ device: '', what: error.message })
      return { outputs: logic.outputs(state), nextDue: Infinity, events }
    }
  }

  /** Devices look at what they watch. @returns ranges in which nothing changes */
  private observe(t: number, readings: Readings, around: Surroundings): [number, number][] {
    const { watching, devices } = this.logic.program
    const ranges: [number, number][] = []
    watching.forEach(({ device }, i) => {
      const { type } = devices[device]
      const view = this.logic.viewOf(this.state, device, around)
      const [low, high] = type.observe!(view, readings.watched(i), t)
      ranges.push([low, high])
    })
    for (const { device, name } of watchedInputs(this.logic)) {
      const { type, values, device: data } = devices[device]
      const value = readings.input(data.id, name)
      const resolution = type.inputResolution!(values)
      ranges.push([value - resolution, value + resolution])
    }
    return ranges
  }

  save(): SavedControl {
    return { state: copyOf(this.state), started: this.started, conditions: [...this.conditions] }
  }
  load(saved: SavedControl): void {
    this.state = copyOf(saved.state)
    this.started = saved.started
    this.conditions = [...saved.conditions]
    this.values = this.logic.outputValues(this.state)
  }
}

/** Inputs of devices that may move with time and are watched like signals. */
function watchedInputs({ program }: Logic): { readonly device: number; readonly name: string }[] {
  return program.watching.flatMap(({ device }) => {
    const { type, values } = program.devices[device]
    if (!type.inputResolution) return []
    return (type.inputs?.(values) ?? []).map(({ name }: { name: string }) => ({ device, name }))
  })
}

/** The control of a sheet for a run; nothing where it has none. */
export function controlOf(sheet: Sheet): ControlDefinition | undefined {
  const { devices, rungs, sequences, requirements } = sheet.control
  if (![devices, rungs, sequences, requirements].some((list) => list.length)) return undefined
  const read: ReadControl = readControl(sheet)
  const logic = new Logic(read.program)
  return {
    devices: logic.runDevices(),
    watched: [
      ...read.program.watching.map(({ component, signal }) => ({ component, signal })),
      ...watchedInputs(logic).map(({ device, name }) => ({
        component: read.program.devices[device].device.id,
        signal: name,
      })),
    ],
    findings: checkControl(sheet, read),
    create: () => new ControlMachine(logic),
  }
}
