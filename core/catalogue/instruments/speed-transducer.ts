import { stuck } from '../faults'
import { defineKind, quantity } from '../kind'
import { line } from '../symbol'
import { filterParameter, transducerBox, transducerModel, STATE, OUTPUT } from './transducer'

/** Signal = ω/range behind a first-order filter. */
export const speedTransducer = defineKind({
  name: 'speed-transducer',
  label: 'Speed transducer',
  family: 'instruments',
  searchTerms: ['speed transducer', 'tachometer', 'speed sensor', 'revolutions'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the speed of a shaft.',
  ports: [{ name: 'W', domain: 'shaft', role: 'shaft that is measured' }],
  parameters: {
    range: quantity('Range', 'rotationalSpeed', '3000 rpm', 0.01, 3000),
    filter: filterParameter,
  },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  symbol: () => ({
    shapes: [...transducerBox('n'), line([-1.5, -0.25], [-3, -0.25]), line([-1.5, 0.25], [-3, 0.25])],
    ports: { W: { x: -3, y: 0, side: 'left' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model: (v) =>
    transducerModel((l) => l.p[0], 0, v.range, v.filter, {
      quantity: 'rotationalSpeed',
      label: 'measured speed',
    }),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'rotationalSpeed')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
