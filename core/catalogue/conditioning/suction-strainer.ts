import { blocked } from '../faults'
import { defineKind, Power, quantity, conditionSpecs, indices, outputSpecs } from '../kind'
import { elementFlow, elementParameters, elementShapes } from './element'

const OUTPUT = indices('drop')
const CONDITION = indices('clogged')

const [A, B] = [0, 1]

/** A coarse mesh at the end of a suction line, laminar as a filter (element.ts), without a bypass. */
export const suctionStrainer = defineKind({
  name: 'suction-strainer',
  label: 'Suction strainer',
  family: 'conditioning',
  searchTerms: ['strainer', 'suction filter', 'suction screen', 'mesh'],
  designationLetter: 'Z',
  description: 'Keeps coarse dirt out of a pump. Clogged, it lets the pump starve.',
  ports: [
    { name: 'A', domain: 'oil', role: 'towards the tank' },
    { name: 'B', domain: 'oil', role: 'towards the pump' },
  ],
  parameters: {
    ...elementParameters('80 L/min', '0.03 bar'),
    allowed: quantity('Allowed pressure drop', 'pressure', '0.15 bar', 1e3, 1e5, {
      note: 'reported when exceeded',
    }),
  },
  faults: [blocked()],
  traits: {
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  symbol: () => ({
    shapes: elementShapes(),
    ports: { A: { x: -4, y: 0, side: 'left' }, B: { x: 4, y: 0, side: 'right' } },
    box: { x: -3, y: -3, w: 6, h: 6 },
  }),
  model(values, fluid) {
    const passed = elementFlow(values, fluid)
    return {
      outputs: outputSpecs(OUTPUT, { drop: { label: 'pressure drop', quantity: 'pressure' } }),
      conditions: conditionSpecs(CONDITION, {
        clogged: { label: 'clogged: the pump may starve', severity: 'warning', worst: 'drop' },
      }),
      evaluate(l) {
        l.q[A] = passed(l.p[A] - l.p[B])
        l.q[B] = -l.q[A]
      },
      observe(l) {
        l.o[OUTPUT.drop] = l.p[A] - l.p[B]
        l.c[CONDITION.clogged] = l.o[OUTPUT.drop] - values.allowed
        l.power[Power.heat] = l.q[A] * l.o[OUTPUT.drop]
      },
    }
  },
  describeState: (l, _values, show) =>
    `Passes ${show(l.q[A], 'flow')} at a drop of ${show(l.o[OUTPUT.drop], 'pressure')}.`,
})
