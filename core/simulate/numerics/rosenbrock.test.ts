import { describe, expect, it } from 'vitest'
import { linearSolver, patternOf } from './linear'
import { Rosenbrock, type Problem } from './rosenbrock'

/** y' = −λ(y − cos t) − sin t has the solution cos t, however stiff. */
const prothero = (lambda: number): Problem => ({
  n: 1,
  entries: 1,
  rate: (t, y, rate) => void (rate[0] = -lambda * (y[0] - Math.cos(t)) - Math.sin(t)),
  jacobian: (values) => void (values[0] = -lambda),
  timeDerivative(t, _y, _here, rate) {
    rate[0] = -lambda * Math.sin(t) - Math.cos(t)
    return true
  },
})
/** A stiff chemical network (H. Robertson, 1966), in full. */
let at: ArrayLike<number> & Iterable<number> = []
const robertson: Problem = {
  n: 3,
  entries: 9,
  rate(_t, y, rate) {
    const [a, b, c] = y
    at = y
    rate[0] = -0.04 * a + 1e4 * b * c
    rate[2] = 3e7 * b * b
    rate[1] = -rate[0] - rate[2]
  },
  jacobian(v) {
    const [, b, c] = at
    v.set([-0.04, 1e4 * c, 1e4 * b, 0.04, -1e4 * c - 6e7 * b, -1e4 * b, 0, 6e7 * b, 0])
  },
  timeDerivative: () => false,
}
const all = (n: number) => {
  const pairs: [number, number][] = []
  for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) pairs.push([i, j])
  return patternOf(n, pairs)
}
function integrate(problem: Problem, start: number[], end: number, tolerance: number, absolute = tolerance) {
  const scale = new Float64Array(problem.n).fill(absolute / tolerance)
  const solver = new Rosenbrock(problem, linearSolver(all(problem.n), 'dense'), scale)
  solver.setTolerance(tolerance)
  solver.restart(0, Float64Array.from(start), 1e-4)
  while (solver.t < end) expect(solver.step(end)).toBe(true)
  return solver
}

describe('stiff integrator', () => {
  it.each([1, 1e3, 1e6])('follows a slow solution at stiffness %d', (lambda) => {
    const solver = integrate(prothero(lambda), [1], 5, 1e-7)
    expect(Math.abs(solver.y[0] - Math.cos(5))).toBeLessThan(1e-5)
    expect(solver.statistics.steps).toBeLessThan(1000)
  })
  it('gains with the tolerance as an order of three to four should', () => {
    const error = (tolerance: number) =>
      Math.abs(integrate(prothero(1), [1], 5, tolerance).y[0] - Math.cos(5))
    const steps = (tolerance: number) => integrate(prothero(1), [1], 5, tolerance).statistics.steps
    expect(error(1e-9)).toBeLessThan(error(1e-5) / 50)
    expect(steps(1e-9)).toBeLessThan(steps(1e-5) * 30)
  })
  it('solves the Robertson problem', () => {
    // reference values at t = 40: Hairer & Wanner II, section IV.10
    const { y } = integrate(robertson, [1, 0, 0], 40, 1e-7, 1e-11)
    expect(y[0]).toBeCloseTo(0.7158270688, 5)
    expect(y[1] * 1e5).toBeCloseTo(0.9185534765, 4)
    expect(y[0] + y[1] + y[2]).toBeCloseTo(1, 9)
  })
  it('interpolates inside a step', () => {
    const solver = integrate(prothero(1), [1], 3, 1e-6)
    const out = new Float64Array(1)
    const t = solver.tOld + 0.4 * (solver.t - solver.tOld)
    solver.interpolate(0.4, out)
    expect(out[0]).toBeCloseTo(Math.cos(t), 4)
    solver.interpolate(0, out)
    expect(out[0]).toBe(solver.yOld[0])
    solver.interpolate(1, out)
    expect(out[0]).toBe(solver.y[0])
  })
  it('says so where no step is small enough', () => {
    const bad: Problem = { ...prothero(1), rate: (_t, _y, rate) => void (rate[0] = Number.NaN) }
    const solver = new Rosenbrock(bad, linearSolver(all(1), 'dense'), Float64Array.of(1))
    solver.setTolerance(1e-6)
    solver.restart(0, Float64Array.of(1))
    expect(solver.step(1)).toBe(false)
  })
})
