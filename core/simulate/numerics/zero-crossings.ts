/** Finds where within a step the first of several measures changes its side. */

/** After so many probes that did not halve what is left, one does. */
const PATIENCE = 2

export class ZeroCrossings {
  private readonly which: Int32Array
  private readonly from: Float64Array
  private readonly scale: Float64Array
  private count = 0

  /** @param measures how many there are @param zeroIsAbove whether a measure of just 0 has crossed from below */
  constructor(
    measures: number,
    private readonly zeroIsAbove: boolean,
  ) {
    this.which = new Int32Array(measures)
    this.from = new Float64Array(measures)
    this.scale = new Float64Array(measures)
  }

  private above(value: number): boolean {
    return this.zeroIsAbove ? value >= 0 : value > 0
  }

  /** Whether any measure has changed sign; `locate` then finds where. */
  find(before: Float64Array, now: Float64Array): boolean {
    this.count = 0
    for (let k = 0; k < before.length; k++) {
      if (this.above(before[k]) === this.above(now[k])) continue
      this.which[this.count] = k
      this.from[this.count] = before[k]
      this.scale[this.count] = Math.abs(now[k] - before[k])
      this.count++
    }
    return this.count > 0
  }

  /** How far the foremost of them has gone over, in shares of its whole change; above 0 where it has. */
  private progress(now: Float64Array): number {
    let most = -1
    for (let i = 0; i < this.count; i++) {
      const value = now[this.which[i]]
      const over = this.above(value) !== this.above(this.from[i])
      const size = Math.abs(value) / this.scale[i]
      most = Math.max(most, over ? Math.max(size, Number.MIN_VALUE) : -size)
    }
    return most
  }

  /**
   * The share of a step, between two, at which the first has just gone over: false position with the Illinois rule (M. Dowell,
   * P. Jarratt 1971), and halving where that is slow, as for measures that jump.
   * @param precision as a share of the step @param evaluateAt brings the measures `now` to a share
   */
  locate(
    low: number,
    high: number,
    precision: number,
    evaluateAt: (share: number) => void,
    now: Float64Array,
  ) {
    let below = -1
    for (let i = 0; i < this.count; i++) below = Math.max(below, -Math.abs(this.from[i]) / this.scale[i])
    let over = this.progress(now)
    let side = 0
    let mark = high - low
    let probes = 0
    while (high - low > precision) {
      const width = high - low
      let at = low + (below < over ? -below / (over - below) : 0.5) * width
      if (width < 0.5 * mark) {
        mark = width
        probes = 0
      } else if (++probes > PATIENCE) at = low + 0.5 * width
      at = Math.min(high - 0.5 * precision, Math.max(low + 0.5 * precision, at))
      // the numbers cannot tell nearer
      if (!(at > low && at < high)) break
      evaluateAt(at)
      const found = this.progress(now)
      if (found > 0) {
        high = at
        over = found
        if (side === 1) below *= 0.5
        side = 1
      } else {
        low = at
        below = found
        if (side === -1) over *= 0.5
        side = -1
      }
    }
    return high
  }
}
