import { lost } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs, inputSpecs } from '../kind'
import { interpolate } from '../flow-laws'
import { rectangle, text } from '../symbol'
import { shaftStub } from '../symbol-elements'

const OUTPUT = indices('running', 'torque', 'shaftPower')
const CONDITION = indices('lugged')
const INPUT = indices('speed')

/**
 * A governed engine: T = T_r·(n_set·(1 + δ) − n)/(δ·n_set), between its drag and its torque curve T_max(n); J·dω/dt = T − T_load. At the
 * set speed it gives its rated torque, unloaded it turns faster by the droop δ; overloaded its speed falls along the curve.
 */
export const combustionEngine = defineKind({
  name: 'combustion-engine',
  label: 'Combustion engine',
  family: 'supply',
  searchTerms: ['engine', 'diesel', 'droop', 'governor', 'prime mover'],
  designationLetter: 'M',
  description: 'A governed engine: its speed droops under load and falls when it is overloaded.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft' }],
  parameters: {
    speed: quantity('Set speed', 'rotationalSpeed', '1800 rpm', 1, 700, { note: 'at rated torque' }),
    ratedPower: quantity('Rated power', 'power', '30 kW', 10, 5e6, { note: 'at the set speed' }),
    droop: quantity('Droop of the governor', 'share', '6 %', 0.002, 0.5, {
      note: 'how much faster it turns unloaded',
    }),
    reserve: quantity('Torque reserve', 'share', '20 %', 0, 1, {
      note: 'peak torque over rated torque, at the speed below',
    }),
    peakAt: quantity('Speed at peak torque', 'share', '65 %', 0.2, 0.95, { note: 'of the set speed' }),
    inertia: quantity('Moment of inertia', 'inertia', '1.2 kg·m²', 1e-3, 1e5, { note: 'with its flywheel' }),
  },
  inputs: inputSpecs(INPUT, {
    speed: { label: 'set speed', quantity: 'rotationalSpeed', rest: 'speed', min: 0, max: 700 },
  }),
  faults: [lost(INPUT.speed, 'stopped')],
  traits: {
    measures: { shaftPower: 'shaftPower' },
    sizingTargets: { motorPower: 'ratedPower', shaftSpeed: 'speed' },
  },
  symbol: () => ({
    shapes: [rectangle(-3, -3, 6, 6), text(0, 0, 'M', 2.4), ...shaftStub(3, 4)],
    ports: { W: { x: 4, y: 0, side: 'right' } },
    box: { x: -3, y: -3, w: 6, h: 6 },
    captionAt: { x: 0, y: 4.6, anchor: 'middle' },
    reading: 'running',
  }),
  caption: (v, show) => [show(v.ratedPower, 'power'), show(v.speed, 'rotationalSpeed')],
  model(v) {
    const rated = v.ratedPower / v.speed
    const speeds = [0, 0.3 * v.peakAt, v.peakAt, 1, 1.3].map((share) => share * v.speed)
    const torques = [0, 0.6, 1 + v.reserve, 1, 0.6].map((share) => share * rated)
    /** Friction of the engine itself when it is driven, a tenth of its rated torque. */
    const drag = 0.1 * rated
    const torqueAt = (speed: number, set: number, direction: number) => {
      const governed = set > 0 ? (rated * (set * (1 + v.droop) - speed)) / (v.droop * set) : -drag
      const most = interpolate(speeds, torques, speed)
      const least = direction > 0 ? -drag : 0
      return governed > most ? most : governed < least ? least : governed
    }
    return {
      dryFriction: [{ port: 0 }],
      initialPotentials: [{ port: 0, value: v.speed }],
      outputs: outputSpecs(OUTPUT, {
        running: { label: 'speed', quantity: 'rotationalSpeed' },
        torque: { label: 'shaft torque', quantity: 'torque' },
        shaftPower: { label: 'shaft power', quantity: 'power' },
      }),
      conditions: conditionSpecs(CONDITION, {
        lugged: { label: 'overloaded: its speed falls', severity: 'warning', worst: 'torque' },
      }),
      evaluate(l) {
        l.q[0] = -torqueAt(l.p[0], l.u[INPUT.speed], l.slide[0])
        // it brakes one way only
        l.holdForward[0] = l.u[INPUT.speed] > 0 ? 0 : drag
        l.holdBack[0] = 0
        l.v[0] = v.inertia
      },
      observe(l) {
        const torque = -l.q[0]
        l.o[OUTPUT.running] = l.p[0]
        l.o[OUTPUT.torque] = torque
        l.o[OUTPUT.shaftPower] = torque * l.p[0]
        l.c[CONDITION.lugged] = l.u[INPUT.speed] > 0 ? 0.97 * l.u[INPUT.speed] - l.p[0] : -1
        const power = torque * l.p[0]
        // dragged along by its load it turns that into heat
        l.power[Power.input] = power > 0 ? power : 0
        l.power[Power.heat] = power > 0 ? 0 : -power
      },
    }
  },
  describeState: (l, _v, show) =>
    `Turns at ${show(l.o[OUTPUT.running], 'rotationalSpeed')} and gives ${show(l.o[OUTPUT.shaftPower], 'power')}${l.o[OUTPUT.running] < 0.97 * l.u[INPUT.speed] ? ', overloaded' : ''}.`,
})
