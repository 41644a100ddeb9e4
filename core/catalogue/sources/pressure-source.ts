import { defineKind, quantity, indices, inputSpecs } from '../kind'
import { circle, line, text } from '../symbol'

const INPUT = indices('pressure')

/** Holds its line at a given pressure whatever the flow: p = p(t). For rigs and verification. */
export const pressureSource = defineKind({
  name: 'pressure-source',
  label: 'Ideal pressure source',
  family: 'sources',
  searchTerms: ['prescribed pressure', 'ideal source', 'load pressure'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  description:
    'An ideal tank at a prescribed pressure, which a schedule may change. For rigs and verification.',
  ports: [{ name: 'P', domain: 'oil', role: 'line held at the pressure', imposes: true }],
  parameters: {
    pressure: quantity('Pressure', 'pressure', '0 bar', -1e5, 1000e5),
  },
  inputs: inputSpecs(INPUT, {
    pressure: { label: 'pressure', quantity: 'pressure', rest: 'pressure', min: -1e5, max: 1000e5 },
  }),
  traits: { tankPorts: ['P'], greatestFlow: () => Infinity },
  symbol: () => ({
    shapes: [circle(0, 0, 1.5), text(0, 0, 'p', 1.8), line([0, 1.5], [0, 3])],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [show(values.pressure, 'pressure')],
  model: () => ({
    impose(l) {
      l.p[0] = l.u[INPUT.pressure]
    },
  }),
  describeState: (l, _values, show) =>
    `Holds ${show(l.p[0], 'pressure')} and ${l.q[0] >= 0 ? 'takes' : 'gives'} ${show(Math.abs(l.q[0]), 'flow')}.`,
})
