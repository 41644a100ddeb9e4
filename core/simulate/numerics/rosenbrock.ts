/**
 * Integration of y' = f(t, y) with the Rosenbrock method RODAS of order 4(3): L-stable, stiffly
 * accurate, six stages and one factorisation a step, with a dense output of order 3.
 * E. Hairer, G. Wanner, Solving Ordinary Differential Equations II, 2nd ed., section IV.7
 * and Table 6.2 (coefficients of the transformed form).
 * It knows nothing of hydraulics; events are located by its caller on the dense output.
 */
import type { LinearSolver } from './linear'

export interface Problem {
  readonly n: number
  /** f(t, y) into `rate`. A problem that has just been evaluated there may return what it found then. */
  rate(t: number, y: Float64Array, rate: Float64Array): void
  /** ∂f/∂y at the point of the last call of `rate` into `values`, in the order of the solver's pattern. */
  jacobian(values: Float64Array): void
  /** ∂f/∂t at (t, y), where f is `here`; false where f does not depend on t. */
  timeDerivative(t: number, y: Float64Array, here: Float64Array, derivative: Float64Array): boolean
  /** Absolute error allowed in each state where it depends on the state: asked before every step, after `rate` at its start. */
  absoluteTolerance?(relative: number, absolute: Float64Array): void
  /** Whether a step may end at y; where not, it is rejected and a smaller one tried. */
  isAdmissible?(y: Float64Array): boolean
  readonly entries: number
}

export interface Statistics {
  steps: number
  rejected: number
  evaluations: number
  jacobians: number
  factorisations: number
  events: number
}

const GAMMA = 0.25
const A21 = 1.544,
  A31 = 0.9466785280815826,
  A32 = 0.2557011698983284
const A41 = 3.314825187068521,
  A42 = 2.896124015972201,
  A43 = 0.9986419139977817
const A51 = 1.221224509226641,
  A52 = 6.019134481288629,
  A53 = 12.53708332932087,
  A54 = -0.687886036105895
const C21 = -5.6688,
  C31 = -2.430093356833875,
  C32 = -0.2063599157091915
const C41 = -0.1073529058151375,
  C42 = -9.594562251023355,
  C43 = -20.47028614809616
const C51 = 7.496443313967647,
  C52 = -10.24680431464352,
  C53 = -33.99990352819905,
  C54 = 11.7089089320616
const C61 = 8.083246795921522,
  C62 = -7.981132988064893,
  C63 = -31.52159432874371,
  C64 = 16.31930543123136,
  C65 = -6.058818238834054
const T2 = 0.386,
  T3 = 0.21,
  T4 = 0.63
const G1 = 0.25,
  G2 = -0.1043,
  G3 = 0.1035,
  G4 = -0.0362
const D21 = 10.12623508344586,
  D22 = -7.487995877610167,
  D23 = -34.80091861555747,
  D24 = -7.992771707568823,
  D25 = 1.025137723295662
const D31 = -0.6762803392806898,
  D32 = 6.087714651680015,
  D33 = 16.43084320892478,
  D34 = 24.76722511418386,
  D35 = -6.594389125716872

const SAFETY = 0.85
const MOST_GROWTH = 4
const MOST_SHRINKING = 0.2
/** A step that ends where the problem does not accept it is followed by one of this share of its size. */
const NOT_ACCEPTED = 0.25

/** Everything that the next step depends on; plain data. */
export interface IntegratorState {
  readonly t: number
  readonly y: Float64Array
  readonly h: number
  readonly lastError: number
  readonly lastStep: number
  readonly statistics: Statistics
}

export class Rosenbrock {
  t = 0
  readonly y: Float64Array
  /** The last accepted step, for its dense output: start and end with their states. */
  tOld = 0
  tNew = 0
  readonly yOld: Float64Array
  readonly yNew: Float64Array
  /** Next step size tried. */
  h = 1e-6
  /** State whose error limited the last try. */
  worst = 0
  readonly statistics: Statistics = {
    steps: 0,
    rejected: 0,
    evaluations: 0,
    jacobians: 0,
    factorisations: 0,
    events: 0,
  }
  private readonly jac: Float64Array
  private readonly k: readonly Float64Array[]
  private readonly trial: Float64Array
  private readonly f: Float64Array
  private readonly f0: Float64Array
  private readonly ft: Float64Array
  private readonly dense3: Float64Array
  private readonly dense4: Float64Array
  private relative = Number.NaN
  private readonly absolute: Float64Array
  private lastError = 1
  private lastStep = 0

  constructor(
    private readonly problem: Problem,
    private readonly solver: LinearSolver,
    /** Size of each state that matters. */
    private readonly scale: Float64Array,
  ) {
    const make = () => new Float64Array(problem.n)
    this.y = make()
    this.yOld = make()
    this.yNew = make()
    this.jac = new Float64Array(problem.entries)
    this.k = [make(), make(), make(), make(), make(), make()]
    this.trial = make()
    this.f = make()
    this.f0 = make()
    this.ft = make()
    this.dense3 = make()
    this.dense4 = make()
    this.absolute = make()
  }

  /** Error allowed: in shares of the state, and that share of its scale. To be called before the first step. */
  setTolerance(relative: number): void {
    const { absolute, scale } = this
    this.relative = relative
    for (let i = 0; i < absolute.length; i++) absolute[i] = relative * scale[i]
  }

  /** Sets the state; the next step starts here without memory of earlier ones. */
  restart(t: number, y: Float64Array, h?: number): void {
    this.t = t
    this.y.set(y)
    if (h !== undefined) this.h = h
    this.lastStep = 0
  }

  /**
   * One accepted step, at most to `limit`.
   * @returns false where the step size fell below what t can resolve (see `worst`)
   */
  step(limit: number): boolean {
    const { problem, solver, statistics, y, f0, ft, jac } = this
    problem.rate(this.t, y, f0)
    problem.absoluteTolerance?.(this.relative, this.absolute)
    problem.jacobian(jac)
    const moving = problem.timeDerivative(this.t, y, f0, ft)
    statistics.evaluations++
    statistics.jacobians++
    const left = limit - this.t
    const planned = this.h
    // compared as instants: a step that ends on the limit by itself keeps its size to the last bit
    const cut = this.t + planned > limit
    let h = cut ? left : planned
    const smallest = 1e-13 * Math.max(1, Math.abs(this.t))
    let rejected = false
    for (;;) {
      if (!(h > smallest)) {
        if (left <= smallest) {
          this.storeStep(this.t, limit)
          this.yNew.set(y)
          this.dense3.fill(0)
          this.dense4.fill(0)
          this.t = limit
          return true
        }
        return false
      }
      statistics.factorisations++
      const error = solver.factorise(jac, 1 / (h * GAMMA)) ? this.tryStep(h, moving) : Number.NaN
      if (!Number.isFinite(error) || (error <= 1 && problem.isAdmissible?.(this.trial) === false)) {
        h *= Number.isFinite(error) ? NOT_ACCEPTED : 0.1
        rejected = true
        statistics.rejected++
        continue
      }
      let growth = Math.min(MOST_GROWTH, Math.max(MOST_SHRINKING, SAFETY * Math.max(error, 1e-10) ** -0.25))
      if (error <= 1) {
        // predictive control (K. Gustafsson 1994)
        if (this.lastStep > 0) {
          const predicted =
            SAFETY * (h / this.lastStep) * (this.lastError / Math.max(error, 1e-10) ** 2) ** 0.25
          growth = Math.min(growth, Math.max(MOST_SHRINKING, predicted))
        }
        this.lastStep = h
        this.lastError = Math.max(1e-2, error)
        const end = cut && h === left ? limit : this.t + h
        this.storeStep(this.t, end)
        y.set(this.trial)
        this.yNew.set(y)
        this.storeDenseOutput()
        this.t = end
        this.h = rejected ? Math.min(h, h * growth) : h * growth
        // a step that was only cut short says nothing against the size that was planned
        if (cut && !rejected && this.h < planned) this.h = planned
        statistics.steps++
        return true
      }
      rejected = true
      statistics.rejected++
      h *= growth
    }
  }

  /** The state at the share s ∈ [0, 1] of the last accepted step. */
  interpolate(s: number, out: Float64Array): void {
    const { yNew, yOld, dense3, dense4 } = this
    const r = 1 - s
    for (let i = 0; i < out.length; i++)
      out[i] = yOld[i] * r + s * (yNew[i] + r * (dense3[i] + s * dense4[i]))
  }

  save(): IntegratorState {
    const { t, y, h, lastError, lastStep, statistics } = this
    return { t, y: y.slice(), h, lastError, lastStep, statistics: { ...statistics } }
  }
  /** Goes on from a saved state as the integrator it was saved from; no step is left to interpolate in. */
  load(saved: IntegratorState): void {
    this.restart(saved.t, saved.y, saved.h)
    this.lastError = saved.lastError
    this.lastStep = saved.lastStep
    Object.assign(this.statistics, saved.statistics)
    this.storeStep(saved.t, saved.t)
    this.yNew.set(saved.y)
    this.dense3.fill(0)
    this.dense4.fill(0)
  }

  private storeStep(from: number, to: number): void {
    this.tOld = from
    this.tNew = to
    this.yOld.set(this.y)
  }

  /** One try of size h into `trial`. @returns the error in units of the tolerance */
  private tryStep(h: number, moving: boolean): number {
    const { problem, solver, statistics, t, y, f, f0, trial } = this
    const [k1, k2, k3, k4, k5, k6] = this.k
    const n = y.length
    const r = 1 / h
    k1.set(f0)
    if (moving) this.addTimeDerivative(k1, h * G1)
    solver.solve(k1)
    for (let i = 0; i < n; i++) trial[i] = y[i] + A21 * k1[i]
    problem.rate(t + T2 * h, trial, f)
    for (let i = 0; i < n; i++) k2[i] = f[i] + r * C21 * k1[i]
    if (moving) this.addTimeDerivative(k2, h * G2)
    solver.solve(k2)
    for (let i = 0; i < n; i++) trial[i] = y[i] + A31 * k1[i] + A32 * k2[i]
    problem.rate(t + T3 * h, trial, f)
    for (let i = 0; i < n; i++) k3[i] = f[i] + r * (C31 * k1[i] + C32 * k2[i])
    if (moving) this.addTimeDerivative(k3, h * G3)
    solver.solve(k3)
    for (let i = 0; i < n; i++) trial[i] = y[i] + A41 * k1[i] + A42 * k2[i] + A43 * k3[i]
    problem.rate(t + T4 * h, trial, f)
    for (let i = 0; i < n; i++) k4[i] = f[i] + r * (C41 * k1[i] + C42 * k2[i] + C43 * k3[i])
    if (moving) this.addTimeDerivative(k4, h * G4)
    solver.solve(k4)
    for (let i = 0; i < n; i++) trial[i] = y[i] + A51 * k1[i] + A52 * k2[i] + A53 * k3[i] + A54 * k4[i]
    problem.rate(t + h, trial, f)
    for (let i = 0; i < n; i++) k5[i] = f[i] + r * (C51 * k1[i] + C52 * k2[i] + C53 * k3[i] + C54 * k4[i])
    solver.solve(k5)
    for (let i = 0; i < n; i++) trial[i] += k5[i]
    problem.rate(t + h, trial, f)
    for (let i = 0; i < n; i++)
      k6[i] = f[i] + r * (C61 * k1[i] + C62 * k2[i] + C63 * k3[i] + C64 * k4[i] + C65 * k5[i])
    solver.solve(k6)
    statistics.evaluations += 5
    return this.estimateError(k6)
  }

  /** Adds the last stage to the trial. @returns the error, which that stage estimates, in units of the tolerance */
  private estimateError(last: Float64Array): number {
    const { y, trial, absolute, relative } = this
    let error = 0
    let worst = 0
    for (let i = 0; i < trial.length; i++) {
      const by = last[i]
      const value = trial[i] + by
      trial[i] = value
      const before = y[i] < 0 ? -y[i] : y[i]
      const after = value < 0 ? -value : value
      const e = (by < 0 ? -by : by) / (absolute[i] + relative * (before > after ? before : after))
      if (!(e <= error)) {
        error = e
        worst = i
      }
    }
    this.worst = worst
    return error
  }

  /** Share of ∂f/∂t in a stage. */
  private addTimeDerivative(stage: Float64Array, factor: number): void {
    const { ft } = this
    for (let i = 0; i < stage.length; i++) stage[i] += factor * ft[i]
  }

  /** What `interpolate` needs of the step just accepted. */
  private storeDenseOutput(): void {
    const { dense3, dense4 } = this
    const [k1, k2, k3, k4, k5] = this.k
    for (let i = 0; i < dense3.length; i++) {
      dense3[i] = D21 * k1[i] + D22 * k2[i] + D23 * k3[i] + D24 * k4[i] + D25 * k5[i]
      dense4[i] = D31 * k1[i] + D32 * k2[i] + D33 * k3[i] + D34 * k4[i] + D35 * k5[i]
    }
  }
}
