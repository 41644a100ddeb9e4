import { defineKind } from '../kind'
import { line } from '../symbol'
import { throttledFaults, throttledModel, throttledParameters } from '../flow/throttled'

/** Lets the return flow into the tank slowly: Q = path(p_A − p_B). */
export const diffuser = defineKind({
  name: 'diffuser',
  label: 'Diffuser',
  family: 'conditioning',
  searchTerms: ['diffuser', 'return diffuser'],
  designationLetter: 'Z',
  description: 'Spreads the oil that returns to the tank, so that it does not stir up air.',
  ports: [
    { name: 'A', domain: 'oil', role: 'return line' },
    { name: 'B', domain: 'oil', role: 'into the tank' },
  ],
  parameters: throttledParameters('60 L/min', '0.2 bar', 10e5),
  faults: throttledFaults,
  traits: { paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: () => ({
    shapes: [
      line([0, -3], [0, 2]),
      line([-1.2, -1.4], [-1.2, 1.4], [1.2, 1.4], [1.2, -1.4]),
      line([-1.2, -0.7], [-0.6, -0.7]),
      line([-1.2, 0], [-0.6, 0]),
      line([-1.2, 0.7], [-0.6, 0.7]),
      line([0.6, -0.7], [1.2, -0.7]),
      line([0.6, 0], [1.2, 0]),
      line([0.6, 0.7], [1.2, 0.7]),
    ],
    ports: { A: { x: 0, y: -3, side: 'up' }, B: { x: 0, y: 2, side: 'down' } },
    box: { x: -1.2, y: -1.4, w: 2.4, h: 2.8 },
  }),
  model: (v) => throttledModel(v, () => 1),
  describeState: (l, _v, show) =>
    `Lets ${show(l.q[0], 'flow')} into the tank at a drop of ${show(l.p[0] - l.p[1], 'pressure')}.`,
})
