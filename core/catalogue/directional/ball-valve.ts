import { defineKind, Power, quantity } from '../kind'
import { pathCoefficient, rootDrop } from '../laws'
import { line, polygon } from '../symbol'

const [A, B] = [0, 1]

/** Q = φ·path(p_A − p_B; q_r, Δp_r); φ is how far it is open. */
export const ballValve = defineKind({
  name: 'ball-valve',
  label: 'Ball valve',
  family: 'directional',
  words: ['ball valve', 'shut-off', 'isolating', 'stop cock'],
  letter: 'V',
  description: 'Opens or shuts a line by hand.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ratedFlow: quantity('Flow, fully open', 'flow', '100 L/min', 1e-6, 0.5),
    ratedDrop: quantity('at pressure drop', 'pressure', '1 bar', 1e4, 50e5),
    opening: quantity('Opening', 'share', '100 %', 0, 1, { note: 'without a schedule' }),
  },
  inputs: [
    {
      name: 'opening',
      label: 'opening',
      quantity: 'share',
      rest: 'opening',
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'open' },
        { value: 0, label: 'shut' },
      ],
    },
  ],
  traits: { paths: [{ from: 'A', to: 'B', how: 'switched' }] },
  symbol: (values) => ({
    shapes: [
      line([-3, 0], [-1.5, 0]),
      line([1.5, 0], [3, 0]),
      polygon(values.opening > 0 ? 'paper' : 'ink', [-1.5, -1], [1.5, 1], [1.5, -1], [-1.5, 1]),
    ],
    ports: { A: { x: -3, y: 0, side: 'left' }, B: { x: 3, y: 0, side: 'right' } },
    box: { x: -1.5, y: -1, w: 3, h: 2 },
  }),
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
    l.u[0] < 1e-3
      ? `Shut, with ${show(l.p[A], 'pressure')} before and ${show(l.p[B], 'pressure')} behind it.`
      : `Open ${Math.round(l.u[0] * 100)} %, passing ${show(Math.abs(l.q[A]), 'flow')}.`,
})
