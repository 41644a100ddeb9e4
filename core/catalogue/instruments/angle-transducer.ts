import { stuck } from '../faults'
import { angleRate, angleState, shaftAngleParameters } from './shaft-angle'
import { defineKind, quantity, conditionSpecs, indices, outputSpecs, stateSpecs } from '../kind'
import { line } from '../symbol'
import { filterParameter, transducerBox } from './transducer'

const STATE = indices('angle', 'filtered')
const OUTPUT = indices('signal', 'reading')
const CONDITION = indices('overRange')

const W = 0

/** φ̇ = ω/i, signal = φ/range behind a first-order filter; φ is 0 where `start` says. */
export const angleTransducer = defineKind({
  name: 'angle-transducer',
  label: 'Angle transducer',
  family: 'instruments',
  searchTerms: ['angle transducer', 'rotary encoder', 'angle sensor', 'swing angle'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the angle that a shaft has turned.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft that is measured' }],
  parameters: {
    ...shaftAngleParameters(),
    range: quantity('Range', 'angle', '360 °', 1e-3, 1e4),
    filter: filterParameter,
  },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  symbol: () => ({
    shapes: [...transducerBox('φ'), line([-1.5, -0.25], [-3, -0.25]), line([-1.5, 0.25], [-3, 0.25])],
    ports: { W: { x: -3, y: 0, side: 'left' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model: (v) => ({
    states: stateSpecs(STATE, {
      angle: angleState(v),
      filtered: {
        label: 'filtered share',
        quantity: 'share',
        initial: v.start / v.range,
        isCounter: true,
        scale: 1,
      },
    }),
    outputs: outputSpecs(OUTPUT, {
      signal: { label: 'signal', quantity: 'share' },
      reading: { label: 'measured angle', quantity: 'angle' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    evaluate(l) {
      l.q[W] = 0
      l.dx[STATE.angle] = angleRate(l, v)
      l.dx[STATE.filtered] = (l.x[STATE.angle] / v.range - l.x[STATE.filtered]) / v.filter
    },
    observe(l) {
      l.o[OUTPUT.signal] = Math.min(Math.max(l.x[STATE.filtered], 0), 1)
      l.o[OUTPUT.reading] = l.x[STATE.filtered] * v.range
      l.c[CONDITION.overRange] = Math.abs(l.x[STATE.filtered] - 0.5) - 0.505
    },
  }),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'angle')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
