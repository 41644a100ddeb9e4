import { stuck } from '../faults'
import { defineKind, Power, quantity } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { line } from '../symbol'
import { filterParameter, transducerBox, transducerModel, STATE, OUTPUT } from './transducer'

const [A, B] = [0, 1]

/** As the flow meter, Q = path(Δp; range, drop); signal = ½ + Q/(2·range) behind a first-order filter, so that both directions read. */
export const flowTransducer = defineKind({
  name: 'flow-transducer',
  label: 'Flow transducer',
  family: 'instruments',
  searchTerms: ['flow transducer', 'flow sensor', 'ft'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the flow, in both directions.',
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    range: quantity('Range', 'flow', '100 L/min', 1e-6, 0.2, { note: 'either way' }),
    drop: quantity('Pressure drop at full scale', 'pressure', '1 bar', 1e4, 20e5),
    filter: filterParameter,
  },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  traits: { paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: () => ({
    shapes: [...transducerBox('Q'), line([0, 1.5], [0, 3]), line([0, -1.5], [0, -3])],
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model(v) {
    const coefficient = pathCoefficient(v.range, v.drop)
    const flow = (l: { p: Float64Array }) => coefficient * smoothSquareRoot(l.p[A] - l.p[B])
    const model = transducerModel(
      flow,
      -v.range,
      v.range,
      v.filter,
      { quantity: 'flow', label: 'measured flow' },
      0.5,
    )
    return {
      ...model,
      evaluate(l) {
        model.evaluate!(l)
        l.q[A] = flow(l)
        l.q[B] = -l.q[A]
      },
      observe(l) {
        model.observe!(l)
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'flow')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
