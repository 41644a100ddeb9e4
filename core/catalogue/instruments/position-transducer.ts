import { stuck } from '../faults'
import { defineKind, quantity } from '../kind'
import { dashed } from '../symbol'
import { filterParameter, transducerBox, transducerModel, STATE, OUTPUT } from './transducer'

/** Signal = x/range behind a first-order filter. */
export const positionTransducer = defineKind({
  name: 'position-transducer',
  label: 'Position transducer',
  family: 'instruments',
  searchTerms: ['position transducer', 'position sensor', 'stroke measuring', 'encoder'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the position of a rod.',
  ports: [{ name: 'R', domain: 'rod', role: 'rod that is measured' }],
  parameters: { range: quantity('Range', 'length', '400 mm', 1e-3, 40), filter: filterParameter },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  symbol: () => ({
    shapes: [...transducerBox('G'), dashed([-1.5, 0], [-3, 0])],
    ports: { R: { x: -3, y: 0, side: 'left' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model: (v) =>
    transducerModel((l) => l.p[0], 0, v.range, v.filter, { quantity: 'length', label: 'measured position' }),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'length')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
