import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs } from '../kind'
import { arrow } from '../symbol'
import { DIAMOND, conditioningBody } from '../symbol-elements'
import { throttledModel, throttledParameters } from '../flow/throttled'

const OUTPUT = indices('flow', 'taken')

const [A, B] = [0, 1]

/**
 * Takes P = k·(T − T_c)·ε from the oil, ε = min(1, |Q|/q_r): the whole of its rating from its rated flow on, and in proportion below. Its drop is a path.
 */
export const cooler = defineKind({
  name: 'cooler',
  label: 'Cooler',
  family: 'conditioning',
  searchTerms: ['cooler', 'heat exchanger', 'oil cooler', 'radiator'],
  designationLetter: 'Z',
  description:
    'Takes heat from the oil that flows through it. It counts where the sheet lets its oil warm up.',
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    rating: quantity('Heat transfer per kelvin', 'heatTransfer', '150 W/K', 0, 1e6, {
      note: 'at its rated flow',
    }),
    coolant: quantity('Coolant', 'temperature', '20 °C', 233.15, 353.15),
    ...throttledParameters('60 L/min', '1 bar', 20e5),
    on: { type: 'switch', label: 'Coolant on', default: true },
  },
  faults: [blocked()],
  traits: {
    sizingTargets: { coolerTransfer: 'rating' },
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  symbol: () => ({
    shapes: [
      ...conditioningBody(),
      // the heat goes out
      ...arrow([0, -0.3], [0, -DIAMOND]),
      ...arrow([0, 0.3], [0, DIAMOND]),
    ],
    ports: { A: { x: -4, y: 0, side: 'left' }, B: { x: 4, y: 0, side: 'right' } },
    box: { x: -3, y: -3, w: 6, h: 6 },
  }),
  caption: (v, show) => [show(v.rating, 'heatTransfer')],
  model: (v, fluid) =>
    throttledModel(v, () => 1, {
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
        taken: { label: 'heat removed from the oil', quantity: 'power' },
      }),
      observe(l) {
        const share = Math.abs(l.q[A]) / v.ratedFlow
        l.o[OUTPUT.taken] = v.on ? v.rating * (fluid.temperature - v.coolant) * Math.min(1, share) : 0
        l.power[Power.cooled] = l.o[OUTPUT.taken]
      },
    }),
  describeState: (l, _v, show) =>
    `Takes ${show(l.o[OUTPUT.taken], 'power')} from ${show(Math.abs(l.q[A]), 'flow')} at a drop of ${show(l.p[A] - l.p[B], 'pressure')}.`,
})
