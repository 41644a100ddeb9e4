import { defineKind, quantity, indices, inputSpecs } from '../kind'
import { adjustable, line } from '../symbol'
import { throttledFaults, throttledModel, throttledParameters, throttlesBothWays } from './throttled'

const INPUT = indices('opening')

const [A, B] = [0, 1]

/** Q = φ·path(p_A − p_B; q_r, Δp_r): a path by its catalogue point, φ its opening. */
export const needleValve = defineKind({
  name: 'needle-valve',
  label: 'Throttle valve, adjustable',
  family: 'flow',
  searchTerms: ['needle', 'throttle', 'restrictor by rated flow', 'metering orifice', 'nv'],
  designationLetter: 'V',
  description: 'A restriction given by a flow at a pressure drop, which can be opened and closed.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ...throttledParameters('30 L/min', '20 bar', 300e5),
    opening: quantity('Opening', 'share', '100 %', 0, 1),
  },
  inputs: inputSpecs(INPUT, {
    opening: { label: 'opening', quantity: 'share', rest: 'opening', min: 0, max: 1 },
  }),
  faults: throttledFaults,
  traits: { restrictions: throttlesBothWays, paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: () => ({
    shapes: [
      line([-2, 0], [2, 0]),
      line([-0.6, -0.9], [0, -0.3], [0.6, -0.9]),
      line([-0.6, 0.9], [0, 0.3], [0.6, 0.9]),
      ...adjustable(0, 0, 1.5),
    ],
    ports: { A: { x: -2, y: 0, side: 'left' }, B: { x: 2, y: 0, side: 'right' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [`${show(values.ratedFlow, 'flow')} at ${show(values.ratedDrop, 'pressure')}`],
  model: (values) => throttledModel(values, (l) => l.u[INPUT.opening]),
  describeState: (l, _values, show) =>
    `Open ${Math.round(l.u[INPUT.opening] * 100)} %, passes ${show(Math.abs(l.q[A]), 'flow')} at a drop of ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')}.`,
})
