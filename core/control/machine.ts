/** The control of a sheet as a simulation runs it. */
import type {
  Control,
  ControlDefinition,
  ControlEvent,
  Readings,
  Reaction,
} from '../simulate/control-interface'
import type { Sheet } from '../sheet/schema'
import { Chatter, type ChatterState } from './chatter'
import { copyOf, Logic, Unstable, type LogicState, type Surroundings } from './logic'
import { readControl, type ReadControl } from './program'
import { racesAt } from './races'
import { checkControl } from './check'

interface SavedControl {
  /** Not in snapshots of older programs. */
  readonly chatter?: ChatterState
  readonly state: LogicState
  readonly started: boolean
  readonly conditions: readonly boolean[]
}

export class ControlMachine implements Control {
  private state: LogicState
  private started = false
  private readonly chatter: Chatter
  values: number[]
  conditions: boolean[]

  constructor(private readonly logic: Logic) {
    this.state = logic.initial()
    this.values = logic.outputValues(this.state)
    this.chatter = new Chatter(logic.program)
    this.conditions = this.conditionsAt(0)
  }

  /** In the order of `Logic.runDevices`: relays, then requirements. */
  private conditionsAt(t: number): boolean[] {
    return [...this.chatter.present(t), ...this.logic.violated(this.state, t)]
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
        const before = state.devices.map(({ on }) => on)
        events.push(...logic.expire(state, t, undefined, around))
        const now = state.devices.map(({ on }) => on)
        for (const { device, rate } of this.chatter.note(before, now, t))
          events.push({
            device: logic.program.devices[device].device.id,
            what: `does not come to rest: it goes on and off ${Number(rate.toPrecision(2))} times a second`,
          })
      }
      const ranges = this.observe(t, readings, around)
      events.push(...logic.solve(state, around, t))
      this.values = logic.outputValues(state)
      this.conditions = this.conditionsAt(t)
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
    return {
      chatter: this.chatter.save(),
      state: copyOf(this.state),
      started: this.started,
      conditions: [...this.conditions],
    }
  }
  load(saved: SavedControl): void {
    this.state = copyOf(saved.state)
    if (saved.chatter) this.chatter.load(saved.chatter)
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
