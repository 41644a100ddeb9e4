import { GRAVITY } from '../../units/quantities'
import { dragging } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, inputSpecs, stateSpecs } from '../kind'
import { circle, line } from '../symbol'
import { rotationArrow, shaftStub } from '../symbol-elements'

const STATE = indices('angle', 'wave', 'waveCosine')
const OUTPUT = indices('speed', 'load')
const INPUT = indices('torque')

const W = 0

/**
 * On a shaft behind a gear of ratio i: J = J_l/i², and T = [T_load + T_c·sgn ω + m·g·r·cos φ + T_w·sin(2πt/t_w)]/i, T_c at rest too; ω_l = ω/i,
 * φ the angle turned from where the arm lies level. The wave or gust runs by its own pair of states, s' = Ω·c, c' = −Ω·s.
 */
/** N·m: less loads nothing. */
const NO_LOAD = 0.5
export const rotatingLoad = defineKind({
  name: 'rotating-load',
  label: 'Rotating load',
  family: 'actuators',
  searchTerms: ['inertia', 'flywheel', 'turntable', 'wave', 'gust', 'gravity arm', 'slew', 'load'],
  designationLetter: 'A',
  excludedFromPartsList: true,
  description:
    'Something heavy that turns: its inertia, its friction, an arm that gravity pulls, waves or gusts.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft' }],
  parameters: {
    inertia: quantity('Moment of inertia', 'inertia', '2000 kg·m²', 1e-4, 1e9),
    ratio: quantity('Gear ratio', 'ratio', '1', 1e-2, 1000, {
      note: 'turns of the shaft for one of the load',
    }),
    torque: quantity('Load torque, forward', 'torque', '0 N·m', -1e8, 1e8),
    friction: quantity('Friction torque', 'torque', '200 N·m', 0, 1e8),
    armMass: quantity('Mass on an arm', 'mass', '0 kg', 0, 1e7),
    arm: quantity('Arm', 'length', '1 m', 0, 100, { note: 'level at the start' }),
    waveTorque: quantity('Wave or gust, peak torque', 'torque', '0 N·m', 0, 1e8),
    wavePeriod: quantity('Wave or gust, period', 'time', '6 s', 0.05, 1000),
  },
  inputs: inputSpecs(INPUT, {
    torque: { label: 'torque', quantity: 'torque', rest: 'torque', min: -1e8, max: 1e8 },
  }),
  faults: [dragging(W)],
  traits: {
    movement: { speed: 'speed', position: 'angle', load: 'load', forward: 'turns', back: 'turns back' },
  },
  symbol: () => ({
    shapes: [
      ...shaftStub(-4, -2),
      circle(0, 0, 2),
      circle(0, 0, 0.5, 'ink'),
      line([0, 0], [1.6, -1]),
      ...rotationArrow(0, 0, 2.7, -70, 20),
    ],
    ports: { W: { x: -4, y: 0, side: 'left' } },
    box: { x: -2, y: -2.7, w: 4.9, h: 4.7 },
    reading: 'angle',
  }),
  caption: (v, show) => [show(v.inertia, 'inertia')],
  model(v) {
    const gravity = v.armMass * GRAVITY * v.arm
    const inertia = (v.inertia + v.armMass * v.arm * v.arm) / (v.ratio * v.ratio)
    const omega = (2 * Math.PI) / v.wavePeriod
    const waves = v.waveTorque > 0
    const outer = (u: number, wave: number) => u + (waves ? v.waveTorque * wave : 0)
    return {
      dryFriction: [{ port: W }],
      states: stateSpecs(STATE, {
        angle: { label: 'angle', quantity: 'angle', initial: 0, isCounter: gravity === 0, scale: 0.01 },
        wave: { label: 'wave', quantity: 'ratio', initial: 0, isCounter: true, scale: 1 },
        waveCosine: {
          label: 'wave, phase-shifted by a quarter',
          quantity: 'ratio',
          initial: 1,
          isCounter: true,
          scale: 1,
        },
      }).slice(0, waves ? 3 : 1),
      outputs: outputSpecs(OUTPUT, {
        speed: { label: 'speed', quantity: 'rotationalSpeed' },
        load: { label: 'load torque', quantity: 'torque' },
      }),
      evaluate(l) {
        const speed = l.p[W] / v.ratio
        l.dx[STATE.angle] = speed
        if (waves) {
          l.dx[STATE.wave] = omega * l.x[STATE.waveCosine]
          l.dx[STATE.waveCosine] = -omega * l.x[STATE.wave]
        }
        const torque =
          outer(l.u[INPUT.torque], waves ? l.x[STATE.wave] : 0) + gravity * Math.cos(l.x[STATE.angle])
        l.q[W] = (torque + v.friction * l.slide[0]) / v.ratio
        l.holdForward[0] = l.holdBack[0] = v.friction / v.ratio
        l.v[W] = inertia
      },
      observe(l) {
        const speed = l.p[W] / v.ratio
        const load = outer(l.u[INPUT.torque], waves ? l.x[STATE.wave] : 0)
        l.o[OUTPUT.speed] = speed
        l.o[OUTPUT.load] = l.q[W] * v.ratio
        l.power[Power.useful] = load * speed
        l.power[Power.stored] = gravity * Math.cos(l.x[STATE.angle]) * speed
        l.energy[0] = gravity * Math.sin(l.x[STATE.angle])
        l.power[Power.heat] = v.friction * l.slide[0] * speed
      },
    }
  },
  describeState: (l, _v, show) =>
    Math.abs(l.o[OUTPUT.speed]) < 1e-3
      ? Math.abs(l.o[OUTPUT.load]) < NO_LOAD
        ? `Stands at ${show(l.x[STATE.angle], 'angle')}.`
        : `Stands at ${show(l.x[STATE.angle], 'angle')} and loads its shaft with ${show(l.o[OUTPUT.load], 'torque')}.`
      : `Turns ${l.o[OUTPUT.speed] < 0 ? 'backward ' : ''}at ${show(Math.abs(l.o[OUTPUT.speed]), 'rotationalSpeed')}, now at ${show(l.x[STATE.angle], 'angle')}.`,
})
