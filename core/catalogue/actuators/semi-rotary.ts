import { defineKind, Power, quantity } from '../kind'
import { arrow, circle, line, type Shape } from '../symbol'

const [A, B] = [0, 1]
const [ANGLE, SPEED] = [0, 1]
/** Speed over which friction reverses, rad/s. */
const REVERSAL_SPEED = 0.01
/** Oil at each stop, m³. */
const DEAD_VOLUME = 5e-5
/** Stiffness of an end stop, N·m/rad. */
const STOP_STIFFNESS = 1e7
const RELEASE_GAP = 1e-9

/**
 * Vane in a chamber: V_A = V_d + D_r·φ, V_B = V_d + D_r·(φ_max − φ); J·dω/dt = D_r·(p_A − p_B) − T_load − T_f − T_stop,
 * T_f = T_c·tanh(ω/ω_t) + b·ω, ω_t = 0.01 rad/s; internal leakage G·(p_A − p_B). End stops as the cylinder's.
 */
export const semiRotary = defineKind({
  name: 'semi-rotary',
  label: 'Semi-rotary vane actuator',
  family: 'actuators',
  words: ['rotary actuator', 'vane actuator', 'rudder', 'swing'],
  letter: 'A',
  description: 'Turns through part of a turn: oil at A one way, at B the other.',
  ports: [
    { name: 'A', domain: 'oil', role: 'turns it up' },
    { name: 'B', domain: 'oil', role: 'turns it back' },
  ],
  parameters: {
    displacement: quantity('Displacement for its whole angle', 'volume', '1 L', 1e-6, 10),
    range: quantity('Whole angle', 'angle', '90 °', 0.1, 6),
    start: quantity('Starts at', 'angle', '45 °', 0, 6),
    inertia: quantity('Moment of inertia', 'inertia', '50 kg·m²', 1e-3, 1e7, { group: 'Load' }),
    loadTorque: quantity('Load torque', 'torque', '0 N·m', -1e8, 1e8, {
      group: 'Load',
      note: 'positive opposes A',
    }),
    coulombTorque: quantity('Friction torque', 'torque', '50 N·m', 0, 1e7, { group: 'Load' }),
    damping: quantity('Friction torque at 1 rpm more', 'torque', '20 N·m', 0, 1e7, { group: 'Load' }),
    leakage: quantity('Leakage past the vane at 100 bar', 'flow', '0.2 L/min', 0, 1e-2, { group: 'Losses' }),
    maxPressure: quantity('Highest pressure allowed', 'pressure', '210 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded on either side',
    }),
  },
  inputs: [
    { name: 'loadTorque', label: 'load torque', quantity: 'torque', rest: 'loadTorque', min: -1e8, max: 1e8 },
  ],
  validate: (v) =>
    v.start > v.range ? [{ parameter: 'start', message: 'The start lies beyond its angle.' }] : [],
  symbol: () => {
    const shapes: Shape[] = [
      { shape: 'arc', at: [0, 0], r: 3, from: 180, to: 360 },
      line([-3, 0], [3, 0]),
      circle(0, 0, 0.5),
      ...arrow([-1.2, -1], [1.2, -1]),
      line([-2, 0], [-2, 3]),
      line([2, 0], [2, 3]),
    ]
    return {
      shapes,
      ports: { A: { x: -2, y: 3, side: 'down' }, B: { x: 2, y: 3, side: 'down' } },
      box: { x: -3, y: -3, w: 6, h: 4 },
      reading: 'angle',
    }
  },
  caption: (values, show) => [show(values.displacement, 'volume'), show(values.range, 'angle')],
  model(values, fluid) {
    const perRadian = values.displacement / values.range
    const leakReference = values.leakage / 100e5
    const viscous = values.damping / ((2 * Math.PI) / 60)
    const stopDamping = 2 * Math.sqrt(STOP_STIFFNESS * values.inertia)
    const friction = (speed: number) =>
      values.coulombTorque * Math.tanh(speed / REVERSAL_SPEED) + viscous * speed
    const stop = (touching: number, depth: number, rate: number) =>
      touching ? Math.max(0, STOP_STIFFNESS * depth + stopDamping * rate) : 0
    return {
      states: [
        { name: 'angle', label: 'angle', quantity: 'angle', initial: values.start, scale: 1e-2 },
        { name: 'speed', label: 'speed', quantity: 'rotationalSpeed', initial: 0, scale: 1e-2 },
      ],
      outputs: [
        { name: 'torque', label: 'torque of the oil', quantity: 'torque' },
        { name: 'highest', label: 'higher port pressure', quantity: 'pressure' },
      ],
      conditions: [
        { name: 'overPressure', label: 'above its highest pressure', severity: 'danger', worst: 'highest' },
      ],
      guards: [
        { name: 'lower', label: 'reaches its lower stop', report: 1, value: 'speed' },
        { name: 'upper', label: 'reaches its upper stop', report: 1, value: 'speed' },
      ],
      modes: [0, 0],
      evaluate(l) {
        const angle = l.x[ANGLE]
        const speed = l.x[SPEED]
        const drop = l.p[A] - l.p[B]
        const stops = stop(l.mode[1], angle - values.range, speed) - stop(l.mode[0], -angle, -speed)
        l.dx[ANGLE] = speed
        l.dx[SPEED] = (perRadian * drop - l.u[0] - friction(speed) - stops) / values.inertia
        l.q[A] = perRadian * speed + leakReference * fluid.leakageFactor * drop
        l.q[B] = -l.q[A]
        l.v[A] = DEAD_VOLUME + perRadian * (angle > 0 ? angle : 0)
        l.v[B] = DEAD_VOLUME + perRadian * (angle < values.range ? values.range - angle : 0)
        l.g[0] = -angle + (l.mode[0] ? RELEASE_GAP : 0)
        l.g[1] = angle - values.range + (l.mode[1] ? RELEASE_GAP : 0)
      },
      switch(l, index, direction) {
        l.mode[index] = direction > 0 ? 1 : 0
      },
      observe(l) {
        const speed = l.x[SPEED]
        const drop = l.p[A] - l.p[B]
        l.o[0] = perRadian * drop
        l.o[1] = Math.max(l.p[A], l.p[B])
        l.c[0] = l.o[1] - values.maxPressure
        l.power[Power.useful] = l.u[0] * speed
        l.power[Power.stored] = values.inertia * l.dx[SPEED] * speed
        l.power[Power.heat] =
          l.p[A] * l.q[A] + l.p[B] * l.q[B] - l.power[Power.useful] - l.power[Power.stored]
      },
    }
  },
  say: (l, _values, show) =>
    Math.abs(l.x[SPEED]) < 1e-3
      ? `Stands at ${show(l.x[ANGLE], 'angle')}, pushed with ${show(l.o[0], 'torque')}.`
      : `Turns ${l.x[SPEED] > 0 ? 'up' : 'back'} at ${show(Math.abs(l.x[SPEED]), 'rotationalSpeed')}, now at ${show(l.x[ANGLE], 'angle')}.`,
})
