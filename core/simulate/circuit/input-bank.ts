/** The inputs of a circuit while it runs: where each takes its value from, and its value now. */
import type { InputSpec } from '../../catalogue/kind'
import type { InputSignal } from './input-signal'

/** An input of a component, or one of its faults, with what the schedule says about it. */
export interface Input {
  readonly component: string
  readonly spec: Omit<InputSpec, 'rest'>
  readonly signal: InputSignal
  /** Value without schedule, control or hand, SI. */
  readonly rest: number
  /** Parameter that gives the value at rest, where one does. */
  readonly restParameter?: string
  /** It is a fault: at 0 the component is sound. */
  readonly fault: boolean
}

export const INPUT_SOURCES = ['schedule', 'control', 'hand'] as const
/** Who decides about an input: its schedule (or its value at rest), the control, or a person. */
export type InputSource = (typeof INPUT_SOURCES)[number]
const SCHEDULE = INPUT_SOURCES.indexOf('schedule')

/** Plain data: sources, values that were set, values at rest. */
export interface InputState {
  readonly sources: Uint8Array
  readonly set: Float64Array
  readonly rest: Float64Array
}

export class InputBank {
  readonly rest: Float64Array
  /** Inputs about which the schedule says something. */
  private readonly scheduled: Int32Array
  private readonly sources: Uint8Array
  /** Last value that control or hand gave. */
  private readonly given: Float64Array
  private readonly start: Float64Array
  private readonly from: Float64Array
  private readonly slope: Float64Array
  /** Inputs whose value changes with time now. */
  private readonly moving: Int32Array
  movingCount = 0
  /** How often values may have jumped; beside that only those change that move. */
  jumps = 0
  private frozen = false
  private readonly indexOf: ReadonlyMap<string, number>

  /** @param values where the elements read them */
  constructor(
    readonly inputs: readonly Input[],
    private readonly values: Float64Array,
  ) {
    const count = inputs.length
    this.indexOf = new Map(inputs.map(({ component, spec }, i) => [`${component}.${spec.name}`, i]))
    this.rest = Float64Array.from(inputs, (input) => input.rest)
    this.scheduled = Int32Array.from(inputs.keys()).filter((i) => inputs[i].signal.times.length > 0)
    this.sources = new Uint8Array(count)
    this.given = new Float64Array(count)
    this.start = new Float64Array(count)
    this.from = new Float64Array(count)
    this.slope = new Float64Array(count)
    this.moving = new Int32Array(count)
  }

  /** Index of an input, −1 where there is none. */
  find(component: string, name: string): number {
    return this.indexOf.get(`${component}.${name}`) ?? -1
  }
  sourceOf(input: number): InputSource {
    return INPUT_SOURCES[this.sources[input]]
  }

  /** Takes up the pieces of the schedules that hold from t on. */
  activateSegments(t: number): void {
    if (this.frozen) return
    this.movingCount = 0
    this.jumps++
    for (let i = 0; i < this.inputs.length; i++) {
      if (this.sources[i] === SCHEDULE) {
        const segment = this.inputs[i].signal.segmentAt(t, this.rest[i])
        this.start[i] = segment.start
        this.from[i] = segment.from
        this.slope[i] = segment.slope
      } else {
        this.start[i] = t
        this.from[i] = this.given[i]
        this.slope[i] = 0
      }
      this.values[i] = this.from[i] + this.slope[i] * (t - this.start[i])
      if (this.slope[i] !== 0) this.moving[this.movingCount++] = i
    }
  }
  /** Keeps the values of one time until they are released. */
  freeze(t: number): void {
    this.activateSegments(t)
    this.movingCount = 0
    this.frozen = true
  }
  unfreeze(): void {
    this.frozen = false
  }
  /** Brings the inputs that move to t. */
  evaluateAt(t: number): void {
    const { moving, values, from, slope, start } = this
    for (let k = 0; k < this.movingCount; k++) {
      const i = moving[k]
      values[i] = from[i] + slope[i] * (t - start[i])
    }
  }

  /** Gives an input a value from outside its schedule; `enter` then takes it up. @param value SI */
  set(input: number, value: number, source: Exclude<InputSource, 'schedule'>): void {
    this.sources[input] = INPUT_SOURCES.indexOf(source)
    this.given[input] = value
  }
  /** Gives an input back to its schedule. */
  release(input: number): void {
    this.sources[input] = SCHEDULE
  }

  /** The next instant after t at which a schedule breaks, s; Infinity where there is none. */
  nextBreak(t: number): number {
    let next = Infinity
    for (const i of this.scheduled)
      if (this.sources[i] === SCHEDULE) next = Math.min(next, this.inputs[i].signal.nextBreak(t))
    return next
  }

  save(): InputState {
    return { sources: this.sources.slice(), set: this.given.slice(), rest: this.rest.slice() }
  }
  load(saved: InputState): void {
    this.sources.set(saved.sources)
    this.given.set(saved.set)
    this.rest.set(saved.rest)
  }
}
