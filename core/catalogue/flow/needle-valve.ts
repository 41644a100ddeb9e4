import { defineKind, Power, quantity } from '../kind'
import { pathCoefficient, rootDrop } from '../laws'
import { adjustable, line } from '../symbol'

const [A, B] = [0, 1]

/** Q = φ·path(p_A − p_B; q_r, Δp_r): a path by its catalogue point, φ its opening. */
export const needleValve = defineKind({
  name: 'needle-valve',
  label: 'Throttle valve, adjustable',
  family: 'flow',
  words: ['needle', 'throttle', 'restrictor by rated flow', 'metering orifice'],
  letter: 'V',
  description: 'A restriction given by a flow at a pressure drop, which can be opened and closed.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ratedFlow: quantity('Flow, fully open', 'flow', '30 L/min', 1e-8, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '20 bar', 1e4, 300e5),
    opening: quantity('Opening', 'share', '100 %', 0, 1),
  },
  inputs: [{ name: 'opening', label: 'opening', quantity: 'share', rest: 'opening', min: 0, max: 1 }],
  traits: { paths: [{ from: 'A', to: 'B', how: 'open' }] },
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
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    return {
      outputs: [{ name: 'flow', label: 'flow', quantity: 'flow' }],
      evaluate(l) {
        const flow = l.u[0] * coefficient * rootDrop(l.p[A] - l.p[B])
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[0] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  say: (l, _values, show) =>
    `Open ${Math.round(l.u[0] * 100)} %, passes ${show(Math.abs(l.q[A]), 'flow')} at a drop of ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')}.`,
})
