import { stuck } from '../faults'
import { defineKind, quantity } from '../kind'
import { line } from '../symbol'
import { filterParameter, transducerBox, transducerModel, STATE, OUTPUT } from './transducer'

/** Signal = p/p_range behind a first-order filter. Takes no oil. */
export const pressureTransducer = defineKind({
  name: 'pressure-transducer',
  label: 'Pressure transducer',
  family: 'instruments',
  searchTerms: ['pressure transducer', 'pressure sensor', 'transmitter', 'pt'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the pressure.',
  ports: [{ name: 'P', domain: 'oil', role: 'line to be measured' }],
  parameters: { range: quantity('Range', 'pressure', '250 bar', 1e5, 2000e5), filter: filterParameter },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  traits: { measuringPort: 'P', measuringRange: 'range' },
  symbol: () => ({
    shapes: [...transducerBox('p'), line([0, 1.5], [0, 3])],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model: (v) =>
    transducerModel((l) => l.p[0], 0, v.range, v.filter, {
      quantity: 'pressure',
      label: 'measured pressure',
    }),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'pressure')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
