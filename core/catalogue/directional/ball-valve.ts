import { defineKind, quantity, indices, inputSpecs } from '../kind'
import { line, polygon } from '../symbol'
import { throttledFaults, throttledModel, throttledParameters } from '../flow/throttled'

const INPUT = indices('opening')

const [A, B] = [0, 1]

/** Q = φ·path(p_A − p_B; q_r, Δp_r); φ is how far it is open. */
export const ballValve = defineKind({
  name: 'ball-valve',
  label: 'Ball valve',
  family: 'directional',
  searchTerms: ['ball valve', 'shut-off', 'isolating', 'stop cock', 'bv'],
  designationLetter: 'V',
  description: 'Opens or shuts a line by hand.',
  guide: {
    acts: 'Turned by hand, open or shut, with hardly any drop.',
    fails: 'Left shut before a pump it ruins it; seals creep with time.',
    mistakes: 'In a suction line without a switch that sees it; in the line between pump and relief.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ...throttledParameters('100 L/min', '1 bar', 50e5),
    opening: quantity('Opening', 'share', '100 %', 0, 1, { note: 'without a schedule' }),
  },
  inputs: inputSpecs(INPUT, {
    opening: {
      label: 'opening',
      quantity: 'share',
      rest: 'opening',
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'open', action: 'is opened' },
        { value: 0, label: 'shut', action: 'is shut' },
      ],
    },
  }),
  faults: throttledFaults,
  traits: { paths: [{ from: 'A', to: 'B', type: 'switched' }] },
  symbol: (values) => ({
    shapes: [
      line([-3, 0], [-1.5, 0]),
      line([1.5, 0], [3, 0]),
      polygon(values.opening > 0 ? 'paper' : 'ink', [-1.5, -1], [1.5, 1], [1.5, -1], [-1.5, 1]),
    ],
    ports: { A: { x: -3, y: 0, side: 'left' }, B: { x: 3, y: 0, side: 'right' } },
    box: { x: -1.5, y: -1, w: 3, h: 2 },
  }),
  model: (values) => throttledModel(values, (l) => l.u[INPUT.opening]),
  describeState: (l, _values, show) =>
    l.u[INPUT.opening] < 1e-3
      ? `Shut, with ${show(l.p[A], 'pressure')} before and ${show(l.p[B], 'pressure')} behind it.`
      : `Open ${Math.round(l.u[INPUT.opening] * 100)} %, passing ${show(Math.abs(l.q[A]), 'flow')}.`,
})
