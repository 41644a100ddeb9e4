/** What is due next, from all sources: ordered by time, and in the order of arrival where times are equal. */

export type DueSource = 'schedule' | 'control' | 'user'
export interface Due<T> {
  /** s */
  readonly at: number
  readonly source: DueSource
  /** What is to be done; none where only a stop at that time was requested. */
  readonly action?: T
}

export class DueQueue<T> {
  private entries: Due<T>[] = []

  /** The next instant, s; Infinity where nothing is due. */
  get next(): number {
    return this.entries.length ? this.entries[0].at : Infinity
  }

  /** The next time requested by a source, or by all others. */
  nextOf(source: DueSource): number {
    return this.entries.find((entry) => entry.source === source)?.at ?? Infinity
  }
  nextExcept(source: DueSource): number {
    return this.entries.find((entry) => entry.source !== source)?.at ?? Infinity
  }

  add(entry: Due<T>): void {
    let i = this.entries.length
    while (i > 0 && this.entries[i - 1].at > entry.at) i--
    this.entries.splice(i, 0, entry)
  }
  /** Removes all entries of a source. */
  clear(source: DueSource): void {
    this.entries = this.entries.filter((entry) => entry.source !== source)
  }
  /** Takes the first that is due at t or before. */
  pop(t: number): Due<T> | undefined {
    return this.entries.length && this.entries[0].at <= t ? this.entries.shift() : undefined
  }

  save(): readonly Due<T>[] {
    return [...this.entries]
  }
  load(saved: readonly Due<T>[]): void {
    this.entries = [...saved]
  }
}
