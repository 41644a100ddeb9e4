/** The ways in which components fail, as the kinds declare them. Each rests at 0 and is set by a schedule. */
import { ATMOSPHERE } from '../units/quantities'
import { Power, type FaultSpec } from './kind'

export const yesNo = {
  quantity: 'ratio',
  min: 0,
  max: 1,
  positions: [
    { value: 1, label: 'yes' },
    { value: 0, label: 'no' },
  ],
} as const
/** Exponent of trapped air that is pressed together quickly. */
const AIR_EXPONENT = 1.4

/** A moving part stays where it is: its state no longer changes. */
export const stuck = (state: number, label = 'stuck where it is'): FaultSpec => ({
  name: state === 0 ? 'stuck' : `stuck${state}`,
  label,
  form: 'stuck',
  ...yesNo,
  afterEvaluate(l, amount) {
    if (amount > 0.5) l.dx[state] = 0
  },
})

/** The same for a piston that moves the oil of a port by itself: with it, that oil stops. */
export const stuckPiston = (state: number, port: number, label: string): FaultSpec => {
  const still = stuck(state, label)
  return {
    ...still,
    afterEvaluate(l, amount, fluid, values) {
      still.afterEvaluate!(l, amount, fluid, values)
      if (amount > 0.5) l.q[port] = 0
    },
  }
}

/** Laminar leakage from one port to another: Q = G·Δp, given as a flow at 100 bar, scaled with ν_ref/ν. */
export const leak = (from: number, to: number, label: string, form: 'leak' | 'worn' = 'leak'): FaultSpec => ({
  name: form,
  label: `${label}, at 100 bar`,
  form,
  quantity: 'flow',
  min: 0,
  max: 0.01,
  afterEvaluate(l, amount, fluid) {
    const flow = (amount / 100e5) * fluid.leakageFactor * (l.p[from] - l.p[to])
    l.q[from] += flow
    l.q[to] -= flow
  },
})

/** Oil that leaves a port to the surroundings through a worn seal, laminar: given as a flow at 100 bar, scaled with ν_ref/ν. */
export const leakOut = (port: number, label: string): FaultSpec => ({
  name: 'outward',
  label: `${label}, at 100 bar`,
  form: 'leak',
  quantity: 'flow',
  min: 0,
  max: 0.001,
  afterEvaluate(l, amount, fluid) {
    const flow = (amount / 100e5) * fluid.leakageFactor * l.p[port]
    // nothing comes back in
    if (flow <= 0) return
    l.q[port] += flow
    l.e[port] += flow
  },
})

/** Coupled so that it is driven the wrong way round. */
export const wrongRotation = (shaft: number): FaultSpec => ({
  name: 'wrongRotation',
  label: 'driven in the wrong direction of rotation',
  form: 'reversed',
  ...yesNo,
  beforeEvaluate(l, amount) {
    if (amount <= 0.5) return
    l.p[shaft] = -l.p[shaft]
    l.slide[0] = -l.slide[0]
  },
  afterEvaluate(l, amount) {
    if (amount <= 0.5) return
    l.q[shaft] = -l.q[shaft]
    const forward = l.holdForward[0]
    l.holdForward[0] = l.holdBack[0]
    l.holdBack[0] = forward
  },
  duringObserve(l, amount) {
    if (amount > 0.5) l.q[shaft] = -l.q[shaft]
  },
})

/** A share of the way through is closed by dirt; for parts whose flows are all through flows. */
export const blocked = (label = 'blocked'): FaultSpec => ({
  name: 'blocked',
  label,
  form: 'blocked',
  quantity: 'share',
  min: 0,
  max: 1,
  afterEvaluate(l, amount) {
    for (let i = 0; i < l.q.length; i++) l.q[i] *= 1 - amount
  },
})

/** A share of the way into a store is closed; what it holds (a state) changes with what still comes in. */
export const blockedStore = (state: number): FaultSpec => {
  const way = blocked('way in blocked')
  return {
    ...way,
    afterEvaluate(l, amount, fluid, values) {
      way.afterEvaluate!(l, amount, fluid, values)
      l.dx[state] *= 1 - amount
    },
  }
}

/** The setting (an input) has drifted by this share of itself. */
export const drifted = (input: number, label = 'setting drifted by'): FaultSpec => ({
  name: 'drift',
  label,
  form: 'drift',
  quantity: 'share',
  min: -1,
  max: 2,
  beforeEvaluate(l, amount) {
    l.u[input] *= 1 + amount
  },
})

/** Worn bearings of what turns: a drag on its shaft against either way round, that of dry friction. */
export const dragging = (shaft: number): FaultSpec => ({
  name: 'worn',
  label: 'bearings worn: additional drag torque',
  form: 'worn',
  quantity: 'torque',
  min: 0,
  max: 1e6,
  afterEvaluate(l, amount) {
    l.q[shaft] += amount * l.slide[0]
    l.holdForward[0] += amount
    l.holdBack[0] += amount
  },
  afterObserve(l, amount) {
    l.power[Power.heat] += amount * l.slide[0] * l.p[shaft]
  },
})

/** Nothing comes in at an input any longer. */
const gone = (form: 'springBroken' | 'lost', input: number, label: string): FaultSpec => ({
  name: form,
  label,
  form,
  ...yesNo,
  beforeEvaluate(l, amount) {
    if (amount > 0.5) l.u[input] = 0
  },
})
/** The spring no longer pushes: the setting (an input) is gone. */
export const springBroken = (input: number) => gone('springBroken', input, 'spring broken')
/** The command does not arrive: coil without voltage, lever disconnected. */
export const lost = (input: number, label = 'command lost') => gone('lost', input, label)

/** What takes nothing from its line reads more or less than is there, by this share; its words say what it reads. */
export const misread = (port: number): FaultSpec => ({
  name: 'drift',
  label: 'zero offset',
  form: 'drift',
  quantity: 'share',
  min: -1,
  max: 2,
  beforeEvaluate(l, amount) {
    l.p[port] *= 1 + amount
  },
})

/** A contact no longer changes: its guards stay on the side of their modes. */
export const stuckContact: FaultSpec = {
  name: 'stuck',
  label: 'contact stuck',
  form: 'stuck',
  ...yesNo,
  afterEvaluate(l, amount) {
    if (amount <= 0.5) return
    for (let i = 0; i < l.g.length; i++) l.g[i] = l.mode[i] ? 1 : -1
  },
}

function exchange(values: Float64Array, a: number, b: number): void {
  const value = values[a]
  values[a] = values[b]
  values[b] = value
}
/** Plumbed the wrong way round: two ports exchanged. */
export const reversed = (a: number, b: number): FaultSpec => ({
  name: 'reversed',
  label: 'installed the wrong way round',
  form: 'reversed',
  ...yesNo,
  beforeEvaluate(l, amount) {
    if (amount > 0.5) exchange(l.p, a, b)
  },
  afterEvaluate(l, amount) {
    if (amount <= 0.5) return
    exchange(l.q, a, b)
    exchange(l.v, a, b)
  },
  duringObserve(l, amount) {
    if (amount > 0.5) exchange(l.q, a, b)
  },
})

/**
 * Air trapped at a port, as its volume V_a at atmospheric pressure: it adds its compliance V_a·(p_atm/P)^(1/n)/(n·P) to
 * that of the line.
 */
export const air = (port: number, label: string): FaultSpec => ({
  name: 'air',
  label,
  form: 'air',
  quantity: 'volume',
  min: 0,
  max: 0.1,
  afterEvaluate(l, amount) {
    const absolute = Math.max(l.p[port] + ATMOSPHERE, 1)
    const volume = amount * (ATMOSPHERE / absolute) ** (1 / AIR_EXPONENT)
    l.a[port] = volume / (AIR_EXPONENT * absolute)
  },
})
