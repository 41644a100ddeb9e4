/**
 * Samples of many signals over time in flat arrays. A store with limited room makes some by merging its older samples four to two: the
 * least and the greatest of four stay, in their order, so that no peak is lost however long it runs.
 * New samples wait as rows until there are some: written one by one, each value of a sample would touch another part of the memory.
 */

const FIRST_CAPACITY = 256
/** Samples that are kept however many signals there are. */
const FEWEST = 64
/** Share of a full store, at its recent end, that is never thinned. */
const RECENT = 0.25
/** Rows that wait at the most. */
const WAITING = 32

export class SampleStore {
  times: Float64Array
  count = 0
  private stored: Float32Array[] = []
  /** Where in a row each signal is. */
  private places: number[] = []
  /** The last samples, row by row, which are not in the columns yet. */
  private rows = new Float32Array(0)
  private width = 0
  private waiting = 0
  /** Samples that lie closer together than this, s, are merged when room is wanted. */
  private spacing = 0

  /**
   * @param room values that are kept of all signals together
   * @param expected number of samples, where it is known: so many need no growth
   */
  constructor(
    private readonly room = Infinity,
    expected = FIRST_CAPACITY,
  ) {
    this.times = new Float64Array(expected)
  }

  /** Most samples that are kept. */
  private get capacity(): number {
    return Math.max(FEWEST, Math.floor(this.room / Math.max(1, this.stored.length)))
  }

  /** Values of each signal; those beyond `count` are of no sample. */
  get columns(): readonly Float32Array[] {
    this.writeRows()
    return this.stored
  }
  /** Adds a signal; it is 0 in the samples before. @param place where it is in the rows that are appended */
  addColumn(place = this.stored.length): void {
    this.writeRows()
    this.stored.push(new Float32Array(this.times.length))
    this.places.push(place)
  }
  /** Takes the last signal out. */
  removeColumn(): void {
    this.writeRows()
    this.stored.pop()
    this.places.pop()
  }
  /** @param t s, not before the last sample @param row with the values of all signals at their places, as long as the rows before */
  append(t: number, row: ArrayLike<number>): void {
    if (this.count >= this.capacity) this.thin()
    if (this.count === this.times.length) this.grow()
    if (this.waiting === WAITING || this.width !== row.length) this.writeRows()
    if (this.width !== row.length) {
      this.width = row.length
      this.rows = new Float32Array(WAITING * row.length)
    }
    this.rows.set(row, this.waiting++ * this.width)
    this.times[this.count++] = t
  }
  /** Forgets the samples at t and after it. @param t s */
  truncate(t: number): void {
    this.writeRows()
    while (this.count && this.times[this.count - 1] >= t) this.count--
  }
  /** Takes samples in the place of its own. */
  load(times: Float64Array, columns: readonly Float32Array[]): void {
    this.count = 0
    this.waiting = 0
    this.times = new Float64Array(FIRST_CAPACITY)
    this.stored = columns.map(() => new Float32Array(FIRST_CAPACITY))
    this.places = columns.map((_, i) => i)
    this.appendAll(times, columns)
  }
  /** Appends samples that lie in columns. */
  appendAll(times: Float64Array, columns: readonly Float32Array[]): void {
    const values = new Float32Array(columns.length)
    times.forEach((t, k) => {
      for (let i = 0; i < values.length; i++) values[i] = columns[i][k]
      this.append(t, values)
    })
  }
  /** A copy of all samples, and of one more at t where the last is older. @param now row at t */
  copy(t: number, now: ArrayLike<number>): { times: Float64Array; columns: Float32Array[] } {
    const { count, times, columns } = this
    if (count && times[count - 1] >= t)
      return { times: times.slice(0, count), columns: columns.map((c) => c.slice(0, count)) }
    if (count === times.length) this.grow(count + 1)
    const longer = {
      times: this.times.slice(0, count + 1),
      columns: this.columns.map((c) => c.slice(0, count + 1)),
    }
    longer.times[count] = t
    longer.columns.forEach((column, i) => (column[count] = now[this.places[i]]))
    return longer
  }

  /** Puts the rows that wait into the columns. */
  private writeRows(): void {
    const { rows, width, waiting, stored, places, count } = this
    if (!waiting) return
    const first = count - waiting
    for (let i = 0; i < stored.length; i++) {
      const column = stored[i]
      for (let k = 0, at = places[i]; k < waiting; k++, at += width) column[first + k] = rows[at]
    }
    this.waiting = 0
  }

  /** @param least samples that it has room for afterwards */
  private grow(least = 0): void {
    const twice = Math.max(FIRST_CAPACITY, this.times.length * 2)
    const longer = Math.max(least, Math.min(this.capacity, twice))
    const times = new Float64Array(longer)
    times.set(this.times)
    this.times = times
    this.stored = this.columns.map((column) => {
      const grown = new Float32Array(longer)
      grown.set(column)
      return grown
    })
  }

  /** Merges the older samples until a sixteenth of the capacity is free. */
  private thin(): void {
    const { times } = this
    const recent = Math.ceil(this.count * RECENT)
    const older = this.count - recent
    const wanted = this.count - Math.ceil(this.capacity / 16)
    if (!this.spacing) this.spacing = (1.5 * (times[older - 1] - times[0])) / Math.max(1, older - 1)
    for (;;) {
      this.mergeOlder(this.count - recent)
      if (this.count <= wanted) return
      this.spacing *= 2
    }
  }
  /** Merges each four of the first samples that lie closer together than the spacing into two. */
  private mergeOlder(older: number): void {
    const { times, columns, count, spacing } = this
    let to = 0
    let from = 0
    while (from < count) {
      if (from + 4 <= older && times[from + 3] - times[from] < 3 * spacing) {
        this.mergeFour(from, to)
        from += 4
        to += 2
        continue
      }
      times[to] = times[from]
      for (const column of columns) column[to] = column[from]
      from++
      to++
    }
    this.count = to
  }
  private mergeFour(from: number, to: number): void {
    const { times, columns } = this
    for (const column of columns) {
      let least = from
      let most = from
      for (let k = from + 1; k < from + 4; k++) {
        if (column[k] < column[least]) least = k
        if (column[k] > column[most]) most = k
      }
      const [first, second] = least <= most ? [column[least], column[most]] : [column[most], column[least]]
      column[to] = first
      column[to + 1] = second
    }
    const [first, second] = [times[from], times[from + 2]]
    times[to] = first
    times[to + 1] = second
  }
}
