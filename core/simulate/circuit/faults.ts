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

/** The model as it behaves with these faults; the sound model itself where there are none. */
export function withFaults(
  model: Model,
  faults: readonly Fault[],
  fluid: Fluid,
  values: Readonly<Record<string, unknown>>,
): Model {
  if (!faults.length) return model
  let keptPotentials = new Float64Array(0)
  let keptInputs = new Float64Array(0)
  const kept = { h: new Float64Array(0), slide: new Float64Array(0) }
  /** Runs `work` on what the faults let it see; afterwards the inputs, and unless it `imposes` the potentials, stand as they were. */
  const around = (l: Local, work: (l: Local) => void, imposes = false) => {
    if (keptPotentials.length !== l.p.length) keptPotentials = new Float64Array(l.p.length)
    if (keptInputs.length !== l.u.length) keptInputs = new Float64Array(l.u.length)
    keptPotentials.set(l.p)
    keptInputs.set(l.u)
    if (kept.h.length !== l.h.length) kept.h = new Float64Array(l.h.length)
    if (kept.slide.length !== l.slide.length) kept.slide = new Float64Array(l.slide.length)
    kept.h.set(l.h)
    kept.slide.set(l.slide)
    for (const { spec, input } of faults)
      if (keptInputs[input] !== 0) spec.beforeEvaluate?.(l, keptInputs[input])
    work(l)
    if (!imposes) l.p.set(keptPotentials)
    l.u.set(keptInputs)
    l.h.set(kept.h)
    l.slide.set(kept.slide)
  }
  const { impose, observe, evaluate: sound } = model
  let keptFlows = new Float64Array(0)
  const observing = (l: Local) => {
    if (keptFlows.length !== l.q.length) keptFlows = new Float64Array(l.q.length)
    keptFlows.set(l.q)
    // what leaves to the surroundings does so before it is in the component; its energy is lost
    for (let i = 0; i < l.q.length; i++) l.q[i] -= l.e[i]
    for (const { spec, input } of faults)
      if (keptInputs[input] !== 0) spec.duringObserve?.(l, keptInputs[input])
    observe?.(l)
    for (const { spec, input } of faults)
      if (keptInputs[input] !== 0) spec.afterObserve?.(l, keptInputs[input])
    l.q.set(keptFlows)
    for (let i = 0; i < l.q.length; i++) l.power[Power.heat] += l.p[i] * l.e[i]
  }
  const evaluate = (l: Local) => {
    l.a.fill(0)
    l.e.fill(0)
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
  const { holds, stores, storesOil } = model
  return {
    ...model,
    ...(holds ? { holds: (l: Local) => holds(l).map((hold) => withRest(l, hold)) } : {}),
    ...(stores ? { stores: seen(stores) } : {}),
    ...(storesOil ? { storesOil: seen(storesOil) } : {}),
    // reversed, what it adds to its nodes changes places
    hasVariableVolume: true,
    evaluate,
    observe: (l: Local) => around(l, observing),
    // what holds its port sees the faults as well; the potentials it writes stay
    ...(impose
      ? {
          impose(l: Local) {
            around(l, impose, true)
            for (const { spec, input } of faults) if (l.u[input] !== 0) spec.afterImpose?.(l, l.u[input])
          },
        }
      : {}),
  }
}
