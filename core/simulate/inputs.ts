/** Scheduled inputs: piecewise straight lines, with the instants at which they break. */
import type { InputSpec } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import type { Track } from '../sheet/schema'
import { parseQuantity, showQuantity } from '../units/text'

export class InputSignal {
  /** Current segment: value = from + slope·(t − start). */
  private start = 0
  private from: number
  slope = 0

  constructor(
    /** Ascending times with the value before and after each, SI. */
    private readonly times: readonly number[],
    private readonly before: readonly number[],
    private readonly after: readonly number[],
    private readonly rest: number,
  ) {
    this.from = rest
  }

  value(t: number): number {
    return this.from + this.slope * (t - this.start)
  }

  /** Chooses the segment that begins at or before t; `value` then holds until the next break. */
  enter(t: number): void {
    let i = this.times.length - 1
    while (i >= 0 && this.times[i] > t) i--
    this.start = i < 0 ? 0 : this.times[i]
    this.from = i < 0 ? this.rest : this.after[i]
    const next = i + 1
    this.slope =
      next < this.times.length && this.times[next] > this.start
        ? (this.before[next] - this.from) / (this.times[next] - this.start)
        : 0
  }

  get breaks(): readonly number[] {
    return this.times
  }
}

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
  const wrong = (message: string) =>
    problems.push({
      rule: 'schedule',
      severity: 'error',
      message: `Schedule, ${track!.component} ${spec.label}: ${message}`,
      place: { component: track!.component, schedule },
    })
  for (const point of track?.points ?? []) {
    const at = parseQuantity(point.at, 'time')
    const to = parseQuantity(point.value, spec.quantity)
    if (!at.ok) wrong(at.message)
    if (!to.ok) wrong(to.message)
    if (!at.ok || !to.ok) continue
    if (at.si < 0) wrong(`time ${point.at} lies before the start.`)
    if (times.length && at.si < times[times.length - 1]) wrong(`times must not go back (${point.at}).`)
    if (to.si < spec.min || to.si > spec.max) {
      const show = (v: number) => showQuantity(v, spec.quantity, 'metric')
      wrong(`${point.value} is outside ${show(spec.min)} to ${show(spec.max)}.`)
    }
    times.push(at.si)
    before.push(point.shape === 'ramp' ? to.si : value)
    after.push(to.si)
    value = to.si
  }
  return { signal: new InputSignal(times, before, after, rest), problems }
}
