/** Hydraulic motors of fixed and of variable displacement: what they share. */
import { heldByTorque, torqueBalance } from '../answers'
import type { Fluid } from '../../fluid/fluid'
import { leak, leakOut } from '../faults'
import {
  Power,
  quantity,
  type Local,
  type Model,
  type PortSpec,
  type Show,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { holdShaft, shaftTorque } from '../displacement-machine'
import { inletFilling, SHAFT_REVERSAL, starvation } from '../flow-laws'
import { circle, line, type Shape, type SymbolDrawing, drained } from '../symbol'
import { inwardTriangle, shaftStub } from '../symbol-elements'

const INPUT = indices('loadTorque')
const STATE = indices('angle')
const OUTPUT = indices('speed', 'torque', 'highest', 'casePressure')
const CONDITION = indices('overPressure', 'caseOver', 'starved')

const [A, B, L, W] = [0, 1, 2, 3]

export const motorPorts = [
  { name: 'A', domain: 'oil', role: 'working line A' },
  { name: 'B', domain: 'oil', role: 'working line B' },
  { name: 'L', domain: 'oil', role: 'case drain' },
  { name: 'W', domain: 'shaft', role: 'shaft', mayStayOpen: true },
] as const satisfies readonly PortSpec[]

export const motorParameters = {
  inertia: quantity('Moment of inertia', 'inertia', '0.5 kg·m²', 1e-4, 1e6, {
    group: 'Load',
    note: 'motor and load',
  }),
  loadTorque: quantity('Load torque', 'torque', '0 N·m', -1e7, 1e7, {
    group: 'Load',
    note: 'positive opposes turning from A to B',
  }),
  coulombTorque: quantity('Friction torque', 'torque', '5 N·m', 0, 1e6, { group: 'Load' }),
  viscousFriction: quantity('Friction torque per 1000 r/min', 'torque', '10 N·m', 0, 1e6, {
    group: 'Load',
    note: 'grows with the speed',
  }),
  efficiency: quantity('Mechanical efficiency', 'share', '92 %', 0.3, 1, { group: 'Losses' }),
  crossLeakage: quantity('Leakage A to B at 250 bar', 'flow', '1.5 L/min', 0, 1e-2, { group: 'Losses' }),
  caseLeakage: quantity('Leakage to the case, each port, at 250 bar', 'flow', '1 L/min', 0, 1e-2, {
    group: 'Losses',
  }),
  maxPressure: quantity('Maximum pressure', 'pressure', '350 bar', 1e5, 1000e5, {
    group: 'Rating',
    note: 'reported when exceeded at A or B',
  }),
  maxCasePressure: quantity('Maximum case pressure', 'pressure', '3 bar', 1e4, 50e5, {
    group: 'Rating',
    note: 'reported when exceeded: the shaft seal fails',
  }),
} as const
export interface MotorValues {
  readonly displacement: number
  readonly inertia: number
  readonly coulombTorque: number
  readonly viscousFriction: number
  readonly efficiency: number
  readonly crossLeakage: number
  readonly caseLeakage: number
  readonly maxPressure: number
  readonly maxCasePressure: number
}

/** The first input of every motor. */
export const loadTorqueInput = {
  label: 'load torque',
  quantity: 'torque',
  rest: 'loadTorque',
  min: -1e7,
  max: 1e7,
} as const

export const motorFaults = [
  leak(A, B, 'worn: leaks more', 'worn'),
  leakOut(L, 'shaft seal leaks outwards'),
] as const
export const motorTraits = {
  drainPorts: ['L'],
  ratedPressure: 'maxPressure',
  continuousRotation: ['A', 'B'],
  measures: { speed: 'speed', pressure: 'highest', load: 'torque' },
  movement: { speed: 'speed', drive: 'torque', forward: 'turns', back: 'turns backward' },
  sizingTargets: { motorDisplacement: 'displacement' },
  paths: [
    { from: 'A', to: 'B', type: 'switched' },
    { from: 'A', to: 'L', type: 'switched' },
    { from: 'B', to: 'L', type: 'switched' },
  ],
} as const
export const motorSafetyNote = 'A motor leaks and cannot hold a load: a brake must.'

export const motorSymbol = (more: readonly Shape[] = []): SymbolDrawing => ({
  shapes: [
    circle(0, 0, 3),
    inwardTriangle(0, 0, 3, 0, 1),
    inwardTriangle(0, 0, 3, 0, -1),
    line([0, -3], [0, -4]),
    line([0, 3], [0, 4]),
    ...shaftStub(3, 4),
    drained([-3, 0], [-4, 0], [-4, 4]),
    ...more,
  ],
  ports: {
    A: { x: 0, y: -4, side: 'up' },
    B: { x: 0, y: 4, side: 'down' },
    L: { x: -4, y: 4, side: 'down' },
    W: { x: 4, y: 0, side: 'right' },
  },
  box: { x: -3, y: -3, w: 6, h: 6 },
  captionAt: { x: 3.4, y: -2.2, anchor: 'start' },
  reading: 'speed',
})

/**
 * J·dω/dt = u·D·(p_A − p_B)/(2π)·η_m^σ − T_load − T_f, σ = sgn ω·sgn(p_A − p_B);
 * Q_A = u·D·ω/(2π)·f + G_x·(p_A − p_B) + G_c·p_A, Q_B the like, the two G_c parts leave by the case drain L.
 * T_f = T_c·sgn ω + b·ω; at rest T_c and the losses of η_m hold it. Speed is that of the shaft W, to which J belongs. The load torque is the first input.
 * @param swing u, the share of the displacement that turns now
 */
export function motorModel(values: MotorValues, fluid: Fluid, swing: (l: Local) => number): Model {
  const full = values.displacement / (2 * Math.PI)
  const crossReference = values.crossLeakage / 250e5
  const caseReference = values.caseLeakage / 250e5
  const viscous = values.viscousFriction / ((1000 * 2 * Math.PI) / 60)
  const eta = values.efficiency
  /** Friction that brakes it as it turns, or that holds it. */
  const friction = (l: Local) =>
    l.slide[0] === 0 ? l.held[0] : values.coulombTorque * l.slide[0] + viscous * l.p[W]
  const idealTorque = (l: Local) => full * swing(l) * (l.p[A] - l.p[B])
  const oilTorque = (l: Local) => -shaftTorque(-idealTorque(l), l.slide[0], eta, 0)
  return {
    dryFriction: [{ port: W }],
    states: stateSpecs(STATE, {
      angle: { label: 'angle turned', quantity: 'angle', initial: 0, isCounter: true, scale: 0.1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      speed: { label: 'speed', quantity: 'rotationalSpeed' },
      torque: { label: 'hydraulic torque', quantity: 'torque' },
      highest: { label: 'higher port pressure', quantity: 'pressure' },
      casePressure: { label: 'case pressure', quantity: 'pressure' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
      caseOver: { label: 'case above its maximum pressure', severity: 'danger', worst: 'casePressure' },
      starved: { label: 'starved at its inlet', severity: 'warning' },
    }),
    evaluate(l) {
      const speed = l.p[W]
      const turned = full * swing(l) * speed * inletFilling(speed >= 0 ? l.p[A] : l.p[B])
      const across = crossReference * fluid.leakageFactor * (l.p[A] - l.p[B])
      const toCase = caseReference * fluid.leakageFactor
      const drainA = toCase * (l.p[A] - l.p[L])
      const drainB = toCase * (l.p[B] - l.p[L])
      l.q[A] = turned + across + drainA
      l.q[B] = -turned - across + drainB
      l.q[L] = -drainA - drainB
      const ideal = -idealTorque(l)
      l.q[W] =
        l.u[INPUT.loadTorque] + viscous * speed + shaftTorque(ideal, l.slide[0], eta, values.coulombTorque)
      if (l.slide[0] === 0) holdShaft(l, 0, ideal, eta, values.coulombTorque)
      l.v[W] = values.inertia
      l.dx[STATE.angle] = speed
    },
    observe(l) {
      const speed = l.p[W]
      l.o[OUTPUT.speed] = speed
      l.o[OUTPUT.torque] = oilTorque(l)
      l.o[OUTPUT.highest] = Math.max(l.p[A], l.p[B])
      l.o[OUTPUT.casePressure] = l.p[L]
      l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - values.maxPressure
      l.c[CONDITION.caseOver] = l.p[L] - values.maxCasePressure
      const inlet = speed >= 0 ? l.p[A] : l.p[B]
      l.c[CONDITION.starved] = Math.abs(speed) > SHAFT_REVERSAL ? starvation(inlet) : -1
      l.power[Power.useful] = l.u[INPUT.loadTorque] * speed
      const turned = full * swing(l) * speed * inletFilling(inlet)
      const past = l.p[A] * (l.q[A] - turned) + l.p[B] * (l.q[B] + turned) + l.p[L] * l.q[L]
      const mechanical = turned * (l.p[A] - l.p[B]) - oilTorque(l) * speed
      l.power[Power.heat] = past + mechanical + friction(l) * speed
    },
    ways(l) {
      const toCase = caseReference * fluid.leakageFactor
      const drainA = toCase * (l.p[A] - l.p[L])
      return [
        { from: A, to: B, flow: l.q[A] - drainA, element: 'motor' },
        { from: A, to: L, flow: drainA, element: 'leak' },
        { from: B, to: L, flow: toCase * (l.p[B] - l.p[L]), element: 'leak' },
      ]
    },
    balances: (l) => [torqueBalance(l.o[OUTPUT.torque], l.u[INPUT.loadTorque], friction(l), 0)],
    holds(l) {
      const torque = l.o[OUTPUT.torque]
      // without displacement no torque stands against the oil
      if (Math.abs(full * swing(l)) < 1e-12 || torque === 0) return []
      const resisting = { load: l.u[INPUT.loadTorque], friction: friction(l) }
      return heldByTorque({ A, B, W }, l.p[A] - l.p[B], torque, resisting, 'behind it')
    },
  }
}

export function describeMotor(l: Local, show: Show): string {
  if (Math.abs(l.o[OUTPUT.speed]) < 0.5) return `Stands, pushed with ${show(l.o[OUTPUT.torque], 'torque')}.`
  const driven = l.o[OUTPUT.torque] * l.o[OUTPUT.speed] < 0
  const speed = l.o[OUTPUT.speed]
  return `Turns ${speed < 0 ? 'backward ' : ''}at ${show(Math.abs(speed), 'rotationalSpeed')}, ${driven ? 'driven by its load and held back' : 'driven'} with ${show(Math.abs(l.o[OUTPUT.torque]), 'torque')}.`
}
