/** Breaks a model on purpose: the faults of its kind that a schedule sets act around its equations. */
import { restOf, type Hold } from '../../catalogue/answers'
import { Power, type FaultSpec, type Local, type Model } from '../../catalogue/kind'
import type { Fluid } from '../../fluid/fluid'

/** Less of a pressure counts as accounted for, Pa. */
const SMALL_REST = 1e3

export interface Fault {
  readonly spec: FaultSpec
  /** Index of its amount among the component's inputs. */
  readonly input: number
}

/** A copy of some numbers; the calls of `set` on arrays so short would take longer than the equations. */
class Kept {
  values = new Float64Array(0)
  save(from: Float64Array): void {
    if (this.values.length !== from.length) this.values = new Float64Array(from.length)
    for (let i = 0; i < from.length; i++) this.values[i] = from[i]
  }
  restore(to: Float64Array): void {
    for (let i = 0; i < to.length; i++) to[i] = this.values[i]
  }
}

/** The model as it behaves with these faults; the sound model itself where there are none. */
export function withFaults(
  model: Model,
  faults: readonly Fault[],
  fluid: Fluid,
  values: Readonly<Record<string, unknown>>,
): Model {
  if (!faults.length) return model
  /** What the faults change, as it was: potentials, inputs, forces of locks, directions of dry friction, flows. */
  const kept = { p: new Kept(), u: new Kept(), h: new Kept(), slide: new Kept(), q: new Kept() }
  const acts = ({ u }: Local) => {
    for (let i = 0; i < faults.length; i++) if (u[faults[i].input] !== 0) return true
    return false
  }
  /** Runs `work` on what the faults let it see; afterwards the inputs, and unless it `imposes` the potentials, stand as they were. */
  const around = (l: Local, work: (l: Local) => void, imposes = false) => {
    kept.p.save(l.p)
    kept.u.save(l.u)
    kept.h.save(l.h)
    kept.slide.save(l.slide)
    for (const { spec, input } of faults) {
      const amount = kept.u.values[input]
      if (amount !== 0) spec.beforeEvaluate?.(l, amount)
    }
    work(l)
    if (!imposes) kept.p.restore(l.p)
    kept.u.restore(l.u)
    kept.h.restore(l.h)
    kept.slide.restore(l.slide)
  }
  const { impose, observe, evaluate: sound } = model
  const observing = (l: Local) => {
    kept.q.save(l.q)
    // what leaves to the surroundings does so before it is in the component; its energy is lost
    for (let i = 0; i < l.q.length; i++) l.q[i] -= l.e[i]
    for (const { spec, input } of faults)
      if (kept.u.values[input] !== 0) spec.duringObserve?.(l, kept.u.values[input])
    observe?.(l)
    for (const { spec, input } of faults)
      if (kept.u.values[input] !== 0) spec.afterObserve?.(l, kept.u.values[input])
    kept.q.restore(l.q)
    for (let i = 0; i < l.q.length; i++) l.power[Power.heat] += l.p[i] * l.e[i]
  }
  const evaluate = (l: Local) => {
    for (let i = 0; i < l.a.length; i++) l.a[i] = l.e[i] = 0
    if (!acts(l)) {
      if (sound) sound(l)
      else l.q.fill(0)
      return
    }
    if (sound) around(l, sound)
    else l.q.fill(0)
    for (const { spec, input } of faults)
      if (l.u[input] !== 0) spec.afterEvaluate?.(l, l.u[input], fluid, values)
  }
  /** What the sound model does not account for is done by the faults that act. */
  const withRest = (l: Local, hold: Hold): Hold => {
    const acting = faults.filter(({ input }) => l.u[input] !== 0)
    const rest = restOf(hold, l.p)
    if (!acting.length || Math.abs(rest) < SMALL_REST) return hold
    const label = acting.map(({ spec }) => spec.label).join(', ')
    return { ...hold, leads: false, terms: [...hold.terms, { label, value: rest }] }
  }
  /** What its states keep, as the faults let it see its inputs. */
  const seen = (of: (l: Local) => number) => (l: Local) => {
    let sum = 0
    around(l, (local) => (sum = of(local)))
    return sum
  }
  const { holds, storesOil } = model
  return {
    ...model,
    ...(holds ? { holds: (l: Local) => holds(l).map((hold) => withRest(l, hold)) } : {}),
    ...(storesOil ? { storesOil: seen(storesOil) } : {}),
    // reversed, what it adds to its nodes changes places
    hasVariableVolume: true,
    evaluate,
    observe: (l: Local) => (acts(l) ? around(l, observing) : observe?.(l)),
    // what holds its port sees the faults as well; the potentials it writes stay
    ...(impose
      ? {
          impose(l: Local) {
            if (!acts(l)) return impose(l)
            around(l, impose, true)
            for (const { spec, input } of faults) if (l.u[input] !== 0) spec.afterImpose?.(l, l.u[input])
          },
        }
      : {}),
  }
}
