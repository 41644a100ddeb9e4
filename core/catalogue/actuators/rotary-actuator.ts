/** Actuators that turn through part of a turn: what the vane and the rack have in common. */
import { heldByTorque, torqueBalance } from '../answers'
import type { Fluid } from '../../fluid/fluid'
import { air, leak } from '../faults'
import {
  Power,
  quantity,
  type Local,
  type Model,
  type Motion,
  type Movement,
  type PortSpec,
  type Show,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  eventSpecs,
  inputSpecs,
} from '../kind'
import { endStopChamber, DEAD_VOLUME } from '../flow-laws'

const INPUT = indices('loadTorque')
const STATE = indices('angle')
const OUTPUT = indices('speed', 'torque', 'highest')
const CONDITION = indices('overPressure')
const EVENT = indices('lower', 'upper')

const [A, B, W] = [0, 1, 2]
/** How far a vane may stand within its stop and still be on it, rad. */
const STOP_REACH = 0.02
/** Stiffness of an end stop, N·m/rad. */
const STOP_STIFFNESS = 1e7
const RELEASE_GAP = 1e-9

export const rotaryPorts = [
  { name: 'A', domain: 'oil', role: 'turns it up' },
  { name: 'B', domain: 'oil', role: 'turns it back' },
  { name: 'W', domain: 'shaft', role: 'shaft', mayStayOpen: true },
] as const satisfies readonly PortSpec[]

export const rotaryParameters = {
  range: quantity('Full angle', 'angle', '90 °', 0.1, 20),
  start: quantity('Starts at', 'angle', '45 °', 0, 20),
  inertia: quantity('Moment of inertia', 'inertia', '50 kg·m²', 1e-3, 1e7, { group: 'Load' }),
  loadTorque: quantity('Load torque', 'torque', '0 N·m', -1e8, 1e8, {
    group: 'Load',
    note: 'positive opposes A',
  }),
  coulombTorque: quantity('Friction torque', 'torque', '50 N·m', 0, 1e7, { group: 'Load' }),
  damping: quantity('Friction torque per 1 r/min', 'torque', '20 N·m', 0, 1e7, { group: 'Load' }),
  maxPressure: quantity('Maximum pressure', 'pressure', '210 bar', 1e5, 1000e5, {
    group: 'Rating',
    note: 'reported when exceeded on either side',
  }),
} as const
export interface RotaryValues {
  readonly range: number
  readonly start: number
  readonly inertia: number
  readonly loadTorque: number
  readonly coulombTorque: number
  readonly damping: number
  readonly maxPressure: number
}
/** How it moves its load, D_r m³ a radian at either port. */
export function rotaryMotions(v: RotaryValues, perRadian: number): Motion[] {
  const way = (into: string, outOf: string, load: number): Motion => ({
    inletPort: into,
    outletPort: outOf,
    area: perRadian,
    outletArea: perRadian,
    load,
    minimumLoad: load,
    friction: v.coulombTorque,
  })
  return [way('A', 'B', v.loadTorque), way('B', 'A', -v.loadTorque)]
}
export const rotaryFaults = [leak(A, B, 'leaks past its seals'), air(A, 'air in the chamber at A')] as const
export const rotaryInputs = inputSpecs(INPUT, {
  loadTorque: { label: 'load torque', quantity: 'torque', rest: 'loadTorque', min: -1e8, max: 1e8 },
})
/** How a vane or rack actuator turns. */
export const rotaryMovement: Movement = {
  isAtStop: (l: Local) => l.mode[0] + l.mode[1] > 0,
  speed: 'speed',
  position: 'angle',
  drive: 'torque',
  forward: 'turns forward',
  back: 'turns back',
}
export const rotaryProblems = (v: RotaryValues): { parameter: 'start'; message: string }[] =>
  v.start > v.range ? [{ parameter: 'start', message: 'The start lies beyond its angle.' }] : []

/**
 * V_A = V_d + D_r·φ, V_B = V_d + D_r·(φ_max − φ); J·dω/dt = D_r·(p_A − p_B) − T_load − T_f − T_stop,
 * T_f = T_c·sgn ω + b·ω, T_c at rest; internal leakage G·(p_A − p_B). Its speed is that of its shaft W, to which J
 * belongs. End stops as the cylinder's.
 * @param perRadian D_r, m³/rad @param leakReference G at the reference viscosity, m³/s/Pa
 */
export function rotaryModel(
  values: RotaryValues,
  fluid: Fluid,
  perRadian: number,
  leakReference: number,
): Model {
  const viscous = values.damping / ((2 * Math.PI) / 60)
  const stopDamping = 2 * Math.sqrt(STOP_STIFFNESS * values.inertia)
  /** Friction that brakes it as it turns, or that holds it. */
  const friction = (l: Local) =>
    l.slide[0] === 0 ? l.held[0] : values.coulombTorque * l.slide[0] + viscous * l.p[W]
  const endStop = endStopChamber(perRadian)
  /** Torque of the end stop that is given back. */
  const elasticTorque = (l: Local) => {
    const angle = l.x[STATE.angle]
    if (l.mode[1]) return STOP_STIFFNESS * (angle - values.range)
    return l.mode[0] ? STOP_STIFFNESS * angle : 0
  }
  const stop = (touching: number, depth: number, rate: number) =>
    touching ? Math.max(0, STOP_STIFFNESS * depth + stopDamping * rate) : 0
  return {
    hasVariableVolume: true,
    states: stateSpecs(STATE, {
      angle: { label: 'angle', quantity: 'angle', initial: values.start, scale: 1e-2 },
    }),
    outputs: outputSpecs(OUTPUT, {
      speed: { label: 'speed', quantity: 'rotationalSpeed' },
      torque: { label: 'hydraulic torque', quantity: 'torque' },
      highest: { label: 'higher port pressure', quantity: 'pressure' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
    }),
    eventFunctions: eventSpecs(EVENT, {
      lower: { label: 'reaches its lower stop', report: 1, value: 'speed' },
      upper: { label: 'reaches its upper stop', report: 1, value: 'speed' },
    }),
    dryFriction: [{ port: W }],
    modes: [0, 0],
    evaluate(l) {
      const angle = l.x[STATE.angle]
      const speed = l.p[W]
      const drop = l.p[A] - l.p[B]
      const stops = stop(l.mode[1], angle - values.range, speed) - stop(l.mode[0], -angle, -speed)
      l.dx[STATE.angle] = speed
      const leakage = leakReference * fluid.leakageFactor * drop
      const over = angle - values.range
      l.q[A] = perRadian * speed * (angle < 0 ? endStop.share(-angle) : 1) + leakage
      l.q[B] = -perRadian * speed * (over > 0 ? endStop.share(over) : 1) - leakage
      l.v[A] = DEAD_VOLUME + perRadian * (angle < 0 ? -endStop.gone(-angle) : angle)
      l.v[B] = DEAD_VOLUME - perRadian * (over > 0 ? endStop.gone(over) : over)
      l.q[W] =
        l.u[INPUT.loadTorque] + values.coulombTorque * l.slide[0] + viscous * speed + stops - perRadian * drop
      l.holdForward[0] = l.holdBack[0] = values.coulombTorque
      l.v[W] = values.inertia
      l.g[EVENT.lower] = -angle + (l.mode[0] ? RELEASE_GAP : 0)
      l.g[EVENT.upper] = angle - values.range + (l.mode[1] ? RELEASE_GAP : 0)
    },
    refuses: (l) =>
      l.x[STATE.angle] > values.range + STOP_REACH
        ? `it stands at ${((180 / Math.PI) * l.x[STATE.angle]).toFixed(0)}°, beyond a range of ${((180 / Math.PI) * values.range).toFixed(0)}°.`
        : undefined,
    switch(l, index, direction) {
      l.mode[index] = direction > 0 ? 1 : 0
    },
    observe(l) {
      const speed = l.p[W]
      l.o[OUTPUT.speed] = speed
      l.o[OUTPUT.torque] = perRadian * (l.p[A] - l.p[B])
      l.o[OUTPUT.highest] = Math.max(l.p[A], l.p[B])
      l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - values.maxPressure
      l.power[Power.useful] = l.u[INPUT.loadTorque] * speed
      const angle = l.x[STATE.angle]
      const stops = stop(l.mode[1], angle - values.range, speed) - stop(l.mode[0], -angle, -speed)
      const past = l.p[A] * (l.q[A] - perRadian * speed) + l.p[B] * (l.q[B] + perRadian * speed)
      const elastic = elasticTorque(l)
      l.power[Power.stored] = elastic * speed
      l.energy[0] = (0.5 * elastic * elastic) / STOP_STIFFNESS
      // its inertia belongs to the shaft
      l.power[Power.heat] = past + friction(l) * speed + stops * speed - l.power[Power.stored]
    },
    balances(l) {
      const [speed, angle] = [l.p[W], l.x[STATE.angle]]
      const stops = stop(l.mode[1], angle - values.range, speed) - stop(l.mode[0], -angle, -speed)
      return [torqueBalance(l.o[OUTPUT.torque], l.u[INPUT.loadTorque], friction(l), stops)]
    },
    holds(l) {
      const [speed, angle, drop] = [l.p[W], l.x[STATE.angle], l.p[A] - l.p[B]]
      const stops = stop(l.mode[1], angle - values.range, speed) - stop(l.mode[0], -angle, -speed)
      // an end stop takes what the pressures leave
      if (drop === 0 || stops !== 0) return []
      const resisting = { load: l.u[INPUT.loadTorque], friction: friction(l) }
      return heldByTorque({ A, B, W }, drop, perRadian * drop, resisting, 'other chamber')
    },
  }
}

export const describeRotaryActuator = (l: Local, show: Show) =>
  Math.abs(l.o[OUTPUT.speed]) < 1e-3
    ? `Stands at ${show(l.x[STATE.angle], 'angle')}, pushed with ${show(l.o[OUTPUT.torque], 'torque')}.`
    : `Turns ${l.o[OUTPUT.speed] > 0 ? 'up' : 'back'} at ${show(Math.abs(l.o[OUTPUT.speed]), 'rotationalSpeed')}, now at ${show(l.x[STATE.angle], 'angle')}.`
