import { lost } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs, inputSpecs } from '../kind'
import { circle, text } from '../symbol'
import { shaftStub } from '../symbol-elements'

const OUTPUT = indices('shaftPower', 'torque')
const CONDITION = indices('overload')
const INPUT = indices('speed')

/** Turns its shaft at a given speed whatever the torque (slip neglected). */
export const electricMotor = defineKind({
  name: 'electric-motor',
  label: 'Electric motor, fixed speed',
  family: 'supply',
  searchTerms: ['motor', 'drive', 'prime mover', 'e-motor', 'em'],
  designationLetter: 'M',
  description: 'Drives a pump at a fixed speed. A schedule may start, stop or ramp it.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft', imposes: true }],
  parameters: {
    speed: quantity('Speed', 'rotationalSpeed', '1500 rpm', 0, 700, {
      note: 'four-pole motor on 50 Hz, slip neglected',
    }),
    ratedPower: quantity('Rated power', 'power', '7.5 kW', 10, 2e6, {
      note: 'reported when the shaft takes more',
    }),
  },
  inputs: inputSpecs(INPUT, {
    speed: { label: 'speed', quantity: 'rotationalSpeed', rest: 'speed', min: 0, max: 700, electric: 'coil' },
  }),
  faults: [lost(INPUT.speed, 'supply lost')],
  traits: {
    electricFaults: () => ['lost'],
    measures: { shaftPower: 'shaftPower' },
    sizingTargets: { motorPower: 'ratedPower', shaftSpeed: 'speed' },
  },
  symbol: () => ({
    shapes: [circle(0, 0, 3), text(0, 0, 'M', 2.4), ...shaftStub(3, 4)],
    ports: { W: { x: 4, y: 0, side: 'right' } },
    box: { x: -3, y: -3, w: 6, h: 6 },
    captionAt: { x: 0, y: 4.6, anchor: 'middle' },
  }),
  caption: (values, show) => [show(values.ratedPower, 'power'), show(values.speed, 'rotationalSpeed')],
  model: ({ ratedPower }) => ({
    outputs: outputSpecs(OUTPUT, {
      shaftPower: { label: 'shaft power', quantity: 'power' },
      torque: { label: 'shaft torque', quantity: 'torque' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overload: { label: 'above its rated power', severity: 'warning', worst: 'shaftPower' },
    }),
    impose(l) {
      l.p[0] = l.u[INPUT.speed]
    },
    observe(l) {
      const power = -l.q[0] * l.p[0]
      l.o[OUTPUT.shaftPower] = power
      l.o[OUTPUT.torque] = -l.q[0]
      l.c[CONDITION.overload] = power - ratedPower
      l.power[Power.input] = power
    },
  }),
  describeState: (l, _values, show) =>
    l.p[0] === 0
      ? 'Stands still.'
      : `Turns at ${show(l.p[0], 'rotationalSpeed')} and gives ${show(l.o[OUTPUT.shaftPower], 'power')}.`,
})
