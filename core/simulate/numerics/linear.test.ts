import { describe, expect, it } from 'vitest'
import { linearSolver, patternOf, positionIn } from './linear'

/** A band matrix A with a few far entries; with the shift s, s·I − A is diagonally dominant; deterministic pseudo-random. */
const SHIFT = 5
function example(n: number) {
  let seed = 12345
  const random = () => ((seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648) * 2 - 1
  const entries: [number, number][] = []
  for (let i = 0; i < n; i++)
    for (const j of [i - 1, i + 1, (i * 7) % n]) if (j >= 0 && j < n) entries.push([i, j])
  const pattern = patternOf(n, entries)
  const values = new Float64Array(pattern.columns.length)
  const dense = Array.from({ length: n }, () => new Float64Array(n))
  for (let i = 0; i < n; i++)
    for (let k = pattern.rowStart[i]; k < pattern.rowStart[i + 1]; k++) {
      values[k] = random()
      dense[i][pattern.columns[k]] = (pattern.columns[k] === i ? SHIFT : 0) - values[k]
    }
  const b = Float64Array.from({ length: n }, random)
  return { pattern, values, dense, b }
}

describe('linear solver', () => {
  it.each(['sparse', 'dense'] as const)('solves (s·I − A)·x = b (%s)', (method) => {
    const { pattern, values, dense, b } = example(40)
    const solver = linearSolver(pattern, method)
    expect(solver.factorise(values, SHIFT)).toBe(true)
    const x = Float64Array.from(b)
    solver.solve(x)
    dense.forEach((row, i) => expect(row.reduce((sum, a, j) => sum + a * x[j], 0)).toBeCloseTo(b[i], 10))
  })
  it('exchanges rows where the diagonal is empty (dense)', () => {
    const pattern = patternOf(2, [
      [0, 1],
      [1, 0],
    ])
    const values = new Float64Array(4)
    values[positionIn(pattern, 0, 1)] = -2
    values[positionIn(pattern, 1, 0)] = -4
    const solver = linearSolver(pattern, 'dense')
    expect(solver.factorise(values, 0)).toBe(true)
    const x = Float64Array.from([6, 8])
    solver.solve(x)
    expect([...x]).toEqual([2, 3])
  })
  it('refuses a singular matrix', () => {
    const pattern = patternOf(2, [
      [0, 1],
      [1, 0],
    ])
    for (const method of ['sparse', 'dense'] as const)
      expect(linearSolver(pattern, method).factorise(Float64Array.from([1, 1, 1, 1]), 2)).toBe(false)
  })
  it.each(['sparse', 'dense'] as const)('does not mistake units for a singular matrix (%s)', (method) => {
    // a row in pascals a second by cubic metres: the other column is sixteen decades larger than the diagonal
    const pattern = patternOf(2, [
      [0, 1],
      [1, 0],
    ])
    const values = Float64Array.of(-1, -1, -1, -1)
    values[positionIn(pattern, 0, 1)] = 2e18
    values[positionIn(pattern, 1, 0)] = -1e-19
    const solver = linearSolver(pattern, method)
    expect(solver.factorise(values, 1e3)).toBe(true)
    const x = Float64Array.of(1e3 * 5 + 5 - 2e18 * 3e-18, 1e-19 * 5 + 1001 * 3e-18)
    solver.solve(x)
    expect(x[0]).toBeCloseTo(5, 9)
    expect(x[1] / 3e-18).toBeCloseTo(1, 9)
  })
  it('takes the sparse way for a large chain, the dense way for a full matrix', () => {
    expect(linearSolver(example(200).pattern).method).toBe('sparse')
    const full: [number, number][] = []
    for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) full.push([i, j])
    expect(linearSolver(patternOf(6, full)).method).toBe('dense')
  })
})
