/** Scheduled inputs: piecewise linear over time, with the instants at which they break. */
import type { InputSpec } from '../../catalogue/kind'
import type { Finding } from '../../sheet/finding'
import type { Track } from '../../sheet/schema'
import { parseQuantity, showQuantity } from '../../units/text'

/** A straight piece: value(t) = from + slope·(t − start). */
export interface Segment {
  readonly start: number
  readonly from: number
  readonly slope: number
}

/** What a schedule says about one input. It holds no position in time: that is the input bank's. */
export class InputSignal {
  constructor(
    /** Ascending instants, s, with the value before and after each, SI. */
    readonly times: readonly number[],
    private readonly before: readonly number[],
    private readonly after: readonly number[],
  ) {}

  /** The piece that holds from t until the next break. @param rest value where nothing is scheduled yet, SI */
  segmentAt(t: number, rest: number): Segment {
    let i = this.times.length - 1
    while (i >= 0 && this.times[i] > t) i--
    const start = i < 0 ? 0 : this.times[i]
    const from = i < 0 ? rest : this.after[i]
    const next = i + 1
    const slope =
      next < this.times.length && this.times[next] > start
        ? (this.before[next] - from) / (this.times[next] - start)
        : 0
    return { start, from, slope }
  }

  /** The first break after t, s; Infinity where there is none. */
  nextBreak(t: number): number {
    return this.times.find((at) => at > t) ?? Infinity
  }
}

/** Whether an input has only the values on and off. */
const isSwitch = ({ positions, min, max }: Omit<InputSpec, 'rest'>) =>
  positions?.length === 2 && min === 0 && max === 1

/** Reads a track of a schedule. @param schedule id of the schedule, for findings */
export function inputSignal(
  track: Track | undefined,
  spec: Omit<InputSpec, 'rest'>,
  rest: number,
  schedule: string,
): { signal: InputSignal; problems: Finding[] } {
  const problems: Finding[] = []
  const times: number[] = []
  const before: number[] = []
  const after: number[] = []
  let value = rest
  let last = 0
  const wrong = (message: string) =>
    problems.push({
      rule: 'schedule',
      severity: 'error',
      message: `Schedule, ${track!.component} ${spec.label}: ${message}`,
      location: { component: track!.component, schedule },
    })
  for (const point of track?.points ?? []) {
    const at = parseQuantity(point.at, 'time')
    const to = parseQuantity(point.value, spec.quantity)
    if (!at.ok) wrong(at.message)
    if (!to.ok) wrong(to.message)
    if (!at.ok || !to.ok) continue
    if (at.si < 0) wrong(`time ${point.at} lies before the start.`)
    if (at.si < last) wrong(`times must not go back (${point.at}).`)
    const problem = outOfRange(spec, to.si)
    if (problem) wrong(`${point.value} ${problem}`)
    if (point.shape === 'ramp' && isSwitch(spec)) {
      // what is on or off changes over half way along a ramp, at an instant
      const share = (0.5 - value) / (to.si - value)
      if (share > 0 && share < 1) {
        times.push(last + share * (at.si - last))
        before.push(value)
        after.push(to.si)
      }
      value = to.si
      last = at.si
      continue
    }
    times.push(at.si)
    before.push(point.shape === 'ramp' ? to.si : value)
    after.push(to.si)
    value = to.si
    last = at.si
  }
  return { signal: new InputSignal(times, before, after), problems }
}

/** Why an input cannot have a value, or undefined where it can. @param value SI */
export function outOfRange(spec: Omit<InputSpec, 'rest'>, value: number): string | undefined {
  if (value >= spec.min && value <= spec.max) return undefined
  const show = (v: number) => showQuantity(v, spec.quantity, 'metric')
  return `is outside ${show(spec.min)} to ${show(spec.max)}.`
}
