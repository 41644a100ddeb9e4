/**
 * Direct solution of (s·I − A)·x = b for a matrix whose pattern never changes: analysed once, factorised
 * often. Sparse elimination on the diagonal in a fill-reducing order where that saves work,
 * dense elimination with row exchange where the matrix is small or full.
 */

/** Pattern in compressed rows; column numbers ascend within a row; the diagonal is present. */
export interface Pattern {
  readonly n: number
  readonly rowStart: Int32Array
  readonly columns: Int32Array
}

export interface LinearSolver {
  readonly method: 'sparse' | 'dense'
  /** Multiplications of one factorisation. */
  readonly work: number
  /**
   * Factorises s·I − A.
   * @param values of A in the order of the pattern @param shift s @returns false where a pivot vanishes
   */
  factorise(values: Float64Array, shift: number): boolean
  /** Replaces b by the solution. */
  solve(b: Float64Array): void
}

export function patternOf(n: number, entries: Iterable<readonly [number, number]>): Pattern {
  const rows = Array.from({ length: n }, (_, i) => new Set([i]))
  for (const [i, j] of entries) rows[i].add(j)
  const rowStart = new Int32Array(n + 1)
  const columns: number[] = []
  rows.forEach((set, i) => {
    columns.push(...[...set].sort((a, b) => a - b))
    rowStart[i + 1] = columns.length
  })
  return { n, rowStart, columns: Int32Array.from(columns) }
}

/** Position of (row, column) in the values of a pattern. */
export function positionIn(pattern: Pattern, row: number, column: number): number {
  for (let k = pattern.rowStart[row]; k < pattern.rowStart[row + 1]; k++)
    if (pattern.columns[k] === column) return k
  throw new Error(`(${row}, ${column}) is not in the pattern`)
}

/** Minimum degree order of the pattern made symmetric, and the rows of the filled factor. */
function analyse(pattern: Pattern): { order: Int32Array; upper: number[][] } {
  const { n, rowStart, columns } = pattern
  const near = Array.from({ length: n }, () => new Set<number>())
  for (let i = 0; i < n; i++)
    for (let k = rowStart[i]; k < rowStart[i + 1]; k++) {
      const j = columns[k]
      if (i !== j) {
        near[i].add(j)
        near[j].add(i)
      }
    }
  const order = new Int32Array(n)
  const left = new Set(Array.from({ length: n }, (_, i) => i))
  const neighbours: number[][] = []
  for (let step = 0; step < n; step++) {
    let best = -1
    for (const i of left) if (best < 0 || near[i].size < near[best].size) best = i
    order[step] = best
    left.delete(best)
    const around = [...near[best]]
    neighbours.push(around)
    for (const a of around) {
      near[a].delete(best)
      for (const b of around) if (a !== b) near[a].add(b)
    }
  }
  const place = new Int32Array(n)
  order.forEach((original, step) => (place[original] = step))
  return { order, upper: neighbours.map((list) => list.map((i) => place[i]).sort((a, b) => a - b)) }
}

/** Both factors lie in one array, row by row in the order of elimination: lower part, pivot, upper part. */
class SparseLU implements LinearSolver {
  readonly method = 'sparse'
  readonly work: number
  private readonly n: number
  private readonly order: Int32Array
  /** Place of each value of the pattern among the factors; its values lie row by row in the order of elimination. */
  private readonly source: Int32Array
  private readonly place: Int32Array
  private readonly sourceStart: Int32Array
  /** Row i is rowStart[i] … pivotAt[i] … rowStart[i + 1]. */
  private readonly rowStart: Int32Array
  private readonly pivotAt: Int32Array
  private readonly column: Int32Array
  /** Places from which multiples of upper rows are taken away, in the order in which that happens. */
  private readonly target: Int32Array
  private readonly factors: Float64Array
  private readonly inverse: Float64Array
  private readonly y: Float64Array

  constructor(pattern: Pattern) {
    const { n } = pattern
    this.n = n
    const { order, upper } = analyse(pattern)
    this.order = order
    const placed = new Int32Array(n)
    order.forEach((original, step) => (placed[original] = step))
    // the pattern was made symmetric: the lower rows are the transposed upper rows
    const lower: number[][] = Array.from({ length: n }, () => [])
    upper.forEach((list, k) => list.forEach((j) => lower[j].push(k)))
    const rows = upper.map((list, i) => [...lower[i], i, ...list])
    this.rowStart = new Int32Array(n + 1)
    rows.forEach((row, i) => (this.rowStart[i + 1] = this.rowStart[i] + row.length))
    this.pivotAt = Int32Array.from(lower, (list, i) => this.rowStart[i] + list.length)
    this.column = Int32Array.from(rows.flat())
    const placeOf = rows.map((row, i) => new Map(row.map((column, k) => [column, this.rowStart[i] + k])))
    const sources: { at: number; place: number }[][] = Array.from({ length: n }, () => [])
    for (let i = 0; i < n; i++)
      for (let k = pattern.rowStart[i]; k < pattern.rowStart[i + 1]; k++)
        sources[placed[i]].push({ at: k, place: placeOf[placed[i]].get(placed[pattern.columns[k]])! })
    this.source = Int32Array.from(sources.flat(), (s) => s.at)
    this.place = Int32Array.from(sources.flat(), (s) => s.place)
    this.sourceStart = new Int32Array(n + 1)
    sources.forEach((list, i) => (this.sourceStart[i + 1] = this.sourceStart[i] + list.length))
    this.target = Int32Array.from(
      lower.flatMap((list, i) => list.flatMap((c) => upper[c].map((j) => placeOf[i].get(j)!))),
    )
    this.factors = new Float64Array(this.column.length)
    this.inverse = new Float64Array(n)
    this.y = new Float64Array(n)
    this.work = upper.reduce((sum, list) => sum + list.length * (list.length + 1), 0)
  }

  factorise(values: Float64Array, shift: number): boolean {
    const { n, factors, inverse, source, place, sourceStart, rowStart, pivotAt, column, target } = this
    factors.fill(0)
    for (let i = 0, s = 0, t = 0; i < n; i++) {
      for (const end = sourceStart[i + 1]; s < end; s++) factors[place[s]] = -values[source[s]]
      const pivot = pivotAt[i]
      factors[pivot] += shift
      // compared with its own diagonal: the columns of a row are in units of their own, and say nothing of its size
      const diagonal = Math.abs(factors[pivot])
      for (let k = rowStart[i]; k < pivot; k++) {
        const c = column[k]
        const first = pivotAt[c] + 1
        const end = rowStart[c + 1]
        const factor = factors[k] * inverse[c]
        factors[k] = factor
        if (factor === 0) t += end - first
        else for (let m = first; m < end; m++, t++) factors[target[t]] -= factor * factors[m]
      }
      const value = factors[pivot]
      const left = Math.abs(value)
      if (!(left > 1e-13 * diagonal && left > 1e-13 * shift)) return false
      inverse[i] = 1 / value
    }
    return true
  }

  solve(b: Float64Array): void {
    const { n, y, order, factors, inverse, rowStart, pivotAt, column } = this
    for (let i = 0; i < n; i++) {
      let sum = b[order[i]]
      const pivot = pivotAt[i]
      for (let k = rowStart[i]; k < pivot; k++) sum -= factors[k] * y[column[k]]
      y[i] = sum
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = y[i]
      const end = rowStart[i + 1]
      for (let k = pivotAt[i] + 1; k < end; k++) sum -= factors[k] * y[column[k]]
      sum *= inverse[i]
      y[i] = sum
      b[order[i]] = sum
    }
  }
}

class DenseLU implements LinearSolver {
  readonly method = 'dense'
  readonly work: number
  private readonly a: Float64Array
  private readonly exchange: Int32Array
  private readonly y: Float64Array

  constructor(private readonly pattern: Pattern) {
    const { n } = pattern
    this.work = (n * n * n) / 3
    this.a = new Float64Array(n * n)
    this.exchange = new Int32Array(n)
    this.y = new Float64Array(n)
  }

  factorise(values: Float64Array, shift: number): boolean {
    const { a, exchange } = this
    const { n, rowStart, columns } = this.pattern
    a.fill(0)
    for (let i = 0; i < n; i++) {
      exchange[i] = i
      for (let k = rowStart[i]; k < rowStart[i + 1]; k++) a[i * n + columns[k]] = -values[k]
      a[i * n + i] += shift
    }
    for (let k = 0; k < n; k++) {
      let p = k
      for (let i = k + 1; i < n; i++) if (Math.abs(a[i * n + k]) > Math.abs(a[p * n + k])) p = i
      if (!(Math.abs(a[p * n + k]) > 1e-300)) return false
      if (p !== k) {
        for (let j = 0; j < n; j++) {
          const keep = a[k * n + j]
          a[k * n + j] = a[p * n + j]
          a[p * n + j] = keep
        }
        const keep = exchange[k]
        exchange[k] = exchange[p]
        exchange[p] = keep
      }
      const inverse = 1 / a[k * n + k]
      for (let i = k + 1; i < n; i++) {
        const factor = a[i * n + k] * inverse
        a[i * n + k] = factor
        if (factor !== 0) for (let j = k + 1; j < n; j++) a[i * n + j] -= factor * a[k * n + j]
      }
    }
    return true
  }

  solve(b: Float64Array): void {
    const { a, y, exchange } = this
    const { n } = this.pattern
    for (let i = 0; i < n; i++) {
      let sum = b[exchange[i]]
      for (let j = 0; j < i; j++) sum -= a[i * n + j] * y[j]
      y[i] = sum
    }
    for (let i = n - 1; i >= 0; i--) {
      let sum = y[i]
      for (let j = i + 1; j < n; j++) sum -= a[i * n + j] * y[j]
      y[i] = sum / a[i * n + i]
    }
    b.set(y)
  }
}

/** An operation of the sparse method costs about this many dense ones (indirect addressing). */
const SPARSE_PRICE = 3

export function linearSolver(pattern: Pattern, method?: 'sparse' | 'dense'): LinearSolver {
  const sparse = new SparseLU(pattern)
  const dense = () => new DenseLU(pattern)
  if (method) return method === 'sparse' ? sparse : dense()
  return sparse.work * SPARSE_PRICE < pattern.n ** 3 / 3 ? sparse : dense()
}
