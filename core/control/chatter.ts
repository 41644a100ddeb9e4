/** Relays that never come to rest in a run: changes that follow each other quickly again and again, with their frequency. */
import type { Program } from './program'

/** Changes in a row of which each comes so soon after the one before, s. */
const CHANGES = 12
const SOON = 0.25

/** Plain data. */
export interface ChatterState {
  readonly last: number[]
  readonly count: number[]
  readonly since: number[]
}

export class Chatter {
  private state: { last: number[]; count: number[]; since: number[] }
  /** Devices whose changes count: relays, not timers that flash on purpose. */
  private readonly relays: readonly number[]

  constructor(program: Program) {
    this.relays = program.devices.flatMap(({ type }, i) => (type.settlesAtStart ? [i] : []))
    const each = <T>(value: T) => this.relays.map(() => value)
    this.state = { last: each(-Infinity), count: each(0), since: each(0) }
  }

  /** What has changed since it was asked last. @param on whether each device was on, and is @returns changes a second, by device */
  note(before: readonly boolean[], now: readonly boolean[], t: number): { device: number; rate: number }[] {
    const { last, count, since } = this.state
    return this.relays.flatMap((device, i) => {
      if (before[device] === now[device]) return []
      const follows = t - last[i] <= SOON
      if (!follows) {
        count[i] = 0
        since[i] = t
      }
      count[i]++
      last[i] = t
      // once on and once off is one time
      return count[i] === CHANGES + 1 ? [{ device, rate: CHANGES / 2 / (t - since[i]) }] : []
    })
  }
  /** Whether each relay goes on and off without rest, in their order. */
  present(t: number): boolean[] {
    const { last, count } = this.state
    return this.relays.map((_, i) => count[i] > CHANGES && t - last[i] <= SOON)
  }
  save(): ChatterState {
    const { last, count, since } = this.state
    return { last: [...last], count: [...count], since: [...since] }
  }
  load({ last, count, since }: ChatterState): void {
    this.state = { last: [...last], count: [...count], since: [...since] }
  }
}
