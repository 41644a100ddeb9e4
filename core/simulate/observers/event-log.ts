/** What happens in a run, in order: for people, and for programs that read its result. */
import type { RunEvent } from '../result'

/** A valve that hunts makes thousands. */
const MOST_EVENTS = 20_000
/** What happens at one instant is listed from its cause to what follows from it. */
const RANK: Readonly<Record<RunEvent['source'], number>> = { schedule: 0, user: 1, control: 2, circuit: 3 }

export class EventLog {
  private readonly events: RunEvent[] = []
  /** Instant after which nothing more is listed, s. */
  private full?: number

  get count(): number {
    return this.events.length
  }
  get last(): RunEvent | undefined {
    return this.events.at(-1)
  }
  add(event: RunEvent): void {
    if (this.events.length < MOST_EVENTS) this.events.push(event)
    else this.full ??= event.at
  }
  /** In order of time. @param from number of the first that is wanted */
  list(from = 0): RunEvent[] {
    return this.events.slice(from).sort((a, b) => a.at - b.at || RANK[a.source] - RANK[b.source])
  }
  /** What the reader must know of the list; nothing where it is complete. */
  get warning(): string | undefined {
    if (this.full === undefined) return undefined
    return `More than ${MOST_EVENTS} events: those after ${this.full.toPrecision(5)} s are not listed.`
  }
  /** Forgets all but the first: a snapshot has only their number, the list stays with the run. */
  truncate(count: number): void {
    this.events.splice(count)
    if (count < MOST_EVENTS) this.full = undefined
  }
}
