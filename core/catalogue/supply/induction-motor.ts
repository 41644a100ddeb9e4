import { lost } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs, inputSpecs } from '../kind'
import { circle, text } from '../symbol'
import { shaftStub } from '../symbol-elements'

const OUTPUT = indices('shaftPower', 'torque')
const CONDITION = indices('overload')
const INPUT = indices('on')

/** The torque of a squirrel-cage motor is limited to this many times its rated torque. */
const BREAKDOWN = 2.5

/**
 * n = n_0·(1 − s_r·T/T_r), so T = T_r·(n_0 − n)/(s_r·n_0), limited to 2.5·T_r; run-up against its inertia:
 * J·dω/dt = T − T_load. T is what the shaft gives: bearings and fan are paid for. Switched off they brake it: T = −T_f·sgn ω, and hold it up to T_f.
 */
export const inductionMotor = defineKind({
  name: 'induction-motor',
  label: 'Electric motor, induction',
  family: 'supply',
  searchTerms: ['induction', 'asynchronous', 'motor start', 'slip', 'squirrel cage'],
  designationLetter: 'M',
  description: 'Runs up against its inertia and slips under load. A schedule may switch it on and off.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft' }],
  parameters: {
    synchronousSpeed: quantity('No-load speed', 'rotationalSpeed', '1500 rpm', 1, 700),
    ratedPower: quantity('Rated power', 'power', '7.5 kW', 10, 2e6, {
      note: 'reported when the shaft takes more',
    }),
    slip: quantity('Slip at rated power', 'share', '3 %', 0.001, 0.2),
    friction: quantity('Friction of bearings and fan', 'share', '2 %', 0, 0.5, {
      note: 'in shares of the rated torque: it brakes a motor that is switched off',
    }),
    inertia: quantity('Moment of inertia', 'inertia', '0.05 kg·m²', 1e-4, 1e4, {
      note: 'motor and coupling',
    }),
  },
  inputs: inputSpecs(INPUT, {
    on: {
      label: 'supply',
      electric: 'coil',
      quantity: 'ratio',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'on', action: 'is switched on' },
        { value: 0, label: 'off', action: 'is switched off' },
      ],
    },
  }),
  faults: [lost(INPUT.on, 'supply lost')],
  traits: {
    electricFaults: () => ['lost'],
    measures: { shaftPower: 'shaftPower' },
    sizingTargets: { motorPower: 'ratedPower', shaftSpeed: 'synchronousSpeed' },
  },
  symbol: () => ({
    shapes: [circle(0, 0, 3), text(0, -0.5, 'M', 2.2), text(0, 1.4, '3~', 1.4), ...shaftStub(3, 4)],
    ports: { W: { x: 4, y: 0, side: 'right' } },
    box: { x: -3, y: -3, w: 6, h: 6 },
    captionAt: { x: 0, y: 4.6, anchor: 'middle' },
  }),
  caption: (values, show) => [
    show(values.ratedPower, 'power'),
    show(values.synchronousSpeed, 'rotationalSpeed'),
  ],
  model(values) {
    const rated = values.ratedPower / (values.synchronousSpeed * (1 - values.slip))
    const drag = values.friction * rated
    const torqueAt = (speed: number, on: number, direction: number) => {
      if (on < 0.5) return -drag * direction
      const torque = (rated * (values.synchronousSpeed - speed)) / (values.slip * values.synchronousSpeed)
      const most = BREAKDOWN * rated
      return torque > most ? most : torque < -most ? -most : torque
    }
    return {
      dryFriction: [{ port: 0 }],
      outputs: outputSpecs(OUTPUT, {
        shaftPower: { label: 'shaft power', quantity: 'power' },
        torque: { label: 'torque', quantity: 'torque' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overload: { label: 'above its rated power', severity: 'warning', worst: 'shaftPower' },
      }),
      evaluate(l) {
        l.q[0] = -torqueAt(l.p[0], l.u[INPUT.on], l.slide[0])
        l.holdForward[0] = l.holdBack[0] = l.u[INPUT.on] < 0.5 ? drag : 0
        l.v[0] = values.inertia
      },
      observe(l) {
        const torque = -l.q[0]
        l.o[OUTPUT.shaftPower] = torque * l.p[0]
        l.o[OUTPUT.torque] = torque
        l.c[CONDITION.overload] = l.o[OUTPUT.shaftPower] - values.ratedPower
        // the air gap passes torque at synchronous speed; the slip turns into heat
        l.power[Power.input] = l.u[INPUT.on] < 0.5 ? 0 : torque * values.synchronousSpeed
        l.power[Power.heat] = l.power[Power.input] - torque * l.p[0]
      },
    }
  },
  describeState: (l, _values, show) =>
    l.u[INPUT.on] < 0.5
      ? `Off, ${Math.abs(l.p[0]) < 1 ? 'standing' : `coasting at ${show(l.p[0], 'rotationalSpeed')}`}.`
      : `Turns at ${show(l.p[0], 'rotationalSpeed')} and gives ${show(l.o[OUTPUT.shaftPower], 'power')}.`,
})
