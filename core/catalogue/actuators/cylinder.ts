/** The cylinder, shared by every kind of it: load, friction, end stops, chambers. */
import { GRAVITY } from '../../units/quantities'
import type { Fluid } from '../../fluid/fluid'
import { Power, quantity, type Local, type Model, type Show } from '../kind'

const [X, V] = [0, 1]
/** Oil in each end of the barrel and its port at the stop, m³. */
const DEAD_VOLUME = 5e-5
/** Stiffness of an end stop, N/m. */
const STOP_STIFFNESS = 2e8
/** Speeds at which Stribeck friction fades and over which friction reverses, m/s. */
const STRIBECK_SPEED = 0.02
const REVERSAL_SPEED = 0.001
/** A contact ends when the gap is this wide, m, so that resting on a stop is one contact. */
const RELEASE_GAP = 1e-9

export const cylinderAreas = (bore: number, rod: number) => ({
  cap: (Math.PI * bore * bore) / 4,
  annulus: (Math.PI * (bore * bore - rod * rod)) / 4,
})

export const cylinderGeometry = {
  bore: quantity('Bore', 'length', '63 mm', 1e-3, 2),
  rod: quantity('Rod', 'length', '36 mm', 1e-3, 2),
  stroke: quantity('Stroke', 'length', '400 mm', 1e-3, 20),
  start: quantity('Starts at', 'length', '0 mm', 0, 20, { note: '0 is retracted' }),
} as const
/** Load, friction and rating. */
export const cylinderParameters = {
  mass: quantity('Moved mass', 'mass', '500 kg', 0.1, 1e7, { group: 'Load' }),
  loadForce: quantity('Constant force', 'force', '0 kN', -1e8, 1e8, {
    group: 'Load',
    note: 'positive opposes extension',
  }),
  angle: quantity('Angle above horizontal', 'angle', '0 °', -Math.PI / 2, Math.PI / 2, {
    group: 'Load',
    note: 'at 90° the rod points up and lifts its mass',
  }),
  springRate: quantity('Spring', 'stiffness', '0 N/mm', 0, 1e10, {
    group: 'Load',
    note: 'force grows from zero at the retracted end',
  }),
  damping: quantity('Damper', 'damping', '0 kN·s/m', 0, 1e9, { group: 'Load' }),
  workPieceAt: quantity('Work-piece met at', 'length', '0 mm', 0, 20, { group: 'Load' }),
  workPieceStiffness: quantity('Work-piece stiffness', 'stiffness', '0 kN/mm', 0, 1e11, {
    group: 'Load',
    note: '0 is no work-piece; it only pushes back',
  }),
  coulombFriction: quantity('Running friction', 'force', '0.4 kN', 0, 1e7, { group: 'Friction' }),
  breakawayFriction: quantity('Breakaway friction', 'force', '0.6 kN', 0, 1e7, {
    group: 'Friction',
  }),
  viscousFriction: quantity('Viscous friction', 'damping', '1 kN·s/m', 0, 1e8, {
    group: 'Friction',
  }),
  leakage: quantity('Piston leakage at 100 bar', 'flow', '0 L/min', 0, 1e-2, {
    group: 'Friction',
    note: 'past the piston, laminar',
  }),
  ratedPressure: quantity('Rated pressure', 'pressure', '250 bar', 1e5, 1000e5, {
    group: 'Rating',
    note: 'reported when exceeded on either side',
  }),
} as const

export const cylinderInputs = [
  { name: 'force', label: 'load force', quantity: 'force', rest: 'loadForce', min: -1e8, max: 1e8 },
] as const

/** What a cylinder takes from sizing. */
export const cylinderSized = {
  bore: 'bore',
  rod: 'rod',
  stroke: 'stroke',
  mass: 'mass',
  workPieceAt: 'workPieceAt',
  workPieceStiffness: 'workPieceStiffness',
} as const

export interface CylinderValues {
  readonly bore: number
  readonly rod: number
  readonly stroke: number
  readonly start: number
  readonly mass: number
  readonly loadForce: number
  readonly angle: number
  readonly springRate: number
  readonly damping: number
  readonly workPieceAt: number
  readonly workPieceStiffness: number
  readonly coulombFriction: number
  readonly breakawayFriction: number
  readonly viscousFriction: number
  readonly leakage: number
  readonly ratedPressure: number
}

type Problem = { parameter: 'rod' | 'start' | 'breakawayFriction'; message: string }
export function cylinderProblems(v: CylinderValues): Problem[] {
  const problems: Problem[] = []
  if (v.rod >= v.bore) problems.push({ parameter: 'rod', message: 'The rod must be thinner than the bore.' })
  if (v.start > v.stroke) problems.push({ parameter: 'start', message: 'The start lies beyond the stroke.' })
  if (v.breakawayFriction < v.coulombFriction)
    problems.push({
      parameter: 'breakawayFriction',
      message: 'Breakaway friction cannot be below running friction.',
    })
  return problems
}

/**
 * V1 = V1d + A1·x, V2 = V2d + A2·(stroke − x); m·dv/dt = p1·A1 − p2·A2 − F_load − F_f(v) − F_stop.
 * F_f = (F_c + (F_s − F_c)·exp(−|v|/v_s))·tanh(v/v_t) + b·v.
 * F_stop = max(0, k·δ + c·δ̇) for δ ≥ 0, k = 2e8 N/m, c = 2√(k·m).
 * @param areas of the piston, m², at port A (extends) and at port B (retracts); an end without a port is open to air
 */
export function cylinderModel(
  v: CylinderValues,
  fluid: Fluid,
  areas: { readonly cap: number; readonly annulus: number },
  ports: { readonly A: number; readonly B: number },
): Model {
  const { cap, annulus } = areas
  const { A, B } = ports
  const pressureA = (l: Local) => (A < 0 ? 0 : l.p[A])
  const pressureB = (l: Local) => (B < 0 ? 0 : l.p[B])
  const weight = v.mass * GRAVITY * Math.sin(v.angle)
  const stopDamping = 2 * Math.sqrt(STOP_STIFFNESS * v.mass)
  // oil past the piston of a single-acting cylinder would be lost: its seal is taken as tight
  const leakReference = A < 0 || B < 0 ? 0 : v.leakage / 100e5
  const extraFriction = v.breakawayFriction - v.coulombFriction
  const friction = (speed: number) =>
    (v.coulombFriction + extraFriction * Math.exp(-Math.abs(speed) / STRIBECK_SPEED)) *
      Math.tanh(speed / REVERSAL_SPEED) +
    v.viscousFriction * speed
  const stop = (touching: number, depth: number, rate: number) =>
    touching ? Math.max(0, STOP_STIFFNESS * depth + stopDamping * rate) : 0
  const workPiece = (x: number) => (x > v.workPieceAt ? v.workPieceStiffness * (x - v.workPieceAt) : 0)
  return {
    states: [
      { name: 'position', label: 'stroke', quantity: 'length', initial: v.start, scale: 1e-3 },
      { name: 'velocity', label: 'speed', quantity: 'speed', initial: 0, scale: 0.01 },
    ],
    outputs: [
      { name: 'loadForce', label: 'load force', quantity: 'force' },
      { name: 'pushForce', label: 'force of the oil', quantity: 'force' },
      { name: 'capPressure', label: 'cap-side pressure', quantity: 'pressure' },
      { name: 'rodPressure', label: 'rod-side pressure', quantity: 'pressure' },
      { name: 'travelled', label: 'stroke share', quantity: 'share' },
    ],
    conditions: [
      {
        name: 'capOver',
        label: 'cap side above its rated pressure',
        severity: 'danger',
        worst: 'capPressure',
      },
      {
        name: 'rodOver',
        label: 'rod side above its rated pressure',
        severity: 'danger',
        worst: 'rodPressure',
      },
      {
        name: 'intensified',
        label: 'intensified: rod side above its rated pressure while extending',
        severity: 'warning',
        worst: 'rodPressure',
      },
    ],
    guards: [
      { name: 'retracted', label: 'reaches its retracted stop', report: 1, value: 'velocity' },
      { name: 'extended', label: 'reaches its extended stop', report: 1, value: 'velocity' },
      {
        name: 'contact',
        label: 'meets the work-piece',
        report: v.workPieceStiffness > 0 ? 1 : 0,
        value: 'velocity',
      },
    ],
    modes: [0, 0],
    evaluate(l) {
      const x = l.x[X]
      const speed = l.x[V]
      const pA = pressureA(l)
      const pB = pressureB(l)
      const leakage = leakReference * fluid.leakageFactor * (pA - pB)
      const load = l.u[0] + weight + v.springRate * x + v.damping * speed + workPiece(x)
      const stops = stop(l.mode[1], x - v.stroke, speed) - stop(l.mode[0], -x, -speed)
      const force = pA * cap - pB * annulus - load - friction(speed) - stops
      l.dx[X] = speed
      l.dx[V] = force / v.mass
      if (A >= 0) {
        l.q[A] = cap * speed + leakage
        l.v[A] = DEAD_VOLUME + cap * (x > 0 ? x : 0)
      }
      if (B >= 0) {
        l.q[B] = -annulus * speed - leakage
        l.v[B] = DEAD_VOLUME + annulus * (x < v.stroke ? v.stroke - x : 0)
      }
      l.g[0] = -x + (l.mode[0] ? RELEASE_GAP : 0)
      l.g[1] = x - v.stroke + (l.mode[1] ? RELEASE_GAP : 0)
      l.g[2] = v.workPieceStiffness > 0 ? x - v.workPieceAt : -1
    },
    switch(l, index, direction) {
      if (index < 2) l.mode[index] = direction > 0 ? 1 : 0
    },
    observe(l) {
      const pA = pressureA(l)
      const pB = pressureB(l)
      const x = l.x[X]
      const speed = l.x[V]
      const outer = l.u[0] + v.damping * speed + workPiece(x)
      const stops = stop(l.mode[1], x - v.stroke, speed) - stop(l.mode[0], -x, -speed)
      l.o[0] = outer + weight + v.springRate * x
      l.o[1] = pA * cap - pB * annulus
      l.o[2] = pA
      l.o[3] = pB
      l.o[4] = x / v.stroke
      l.c[0] = pA - v.ratedPressure
      l.c[1] = pB - v.ratedPressure
      l.c[2] = speed > REVERSAL_SPEED && pB > pA ? pB - v.ratedPressure : -1
      l.power[Power.useful] = outer * speed
      l.power[Power.stored] = (weight + v.springRate * x + v.mass * l.dx[V]) * speed
      l.power[Power.heat] = (friction(speed) + stops) * speed + leakReference * fluid.leakageFactor * (pA - pB) * (pA - pB)
    },
  }
}

export function cylinderSay(l: Local, show: Show): string {
  const at = show(l.x[X], 'length')
  if (l.mode[1]) return `On its extended stop, pushed with ${show(l.o[1], 'force')}.`
  if (l.mode[0]) return `On its retracted stop.`
  if (Math.abs(l.x[V]) < 1e-3) return `Stands at ${at}, pushed with ${show(l.o[1], 'force')}.`
  return `${l.x[V] > 0 ? 'Extends' : 'Retracts'} at ${show(Math.abs(l.x[V]), 'speed')}, now at ${at}, against ${show(l.o[0], 'force')}.`
}
