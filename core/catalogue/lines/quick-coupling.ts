import { defineKind, indices, inputSpecs } from '../kind'
import { line } from '../symbol'
import { throttledFaults, throttledModel, throttledParameters } from '../flow/throttled'

const INPUT = indices('coupled')

/** Coupled, Q = path(p_A − p_B); uncoupled, both halves shut. */
export const quickCoupling = defineKind({
  name: 'quick-coupling',
  label: 'Quick coupling',
  family: 'lines',
  searchTerms: ['quick coupling', 'coupler', 'disconnect', 'hose coupling', 'qrc'],
  designationLetter: 'Z',
  description: 'Joins a hose by hand; pulled apart, both halves shut by their checks.',
  ports: [
    { name: 'A', domain: 'oil', role: 'one half' },
    { name: 'B', domain: 'oil', role: 'other half' },
  ],
  parameters: throttledParameters('60 L/min', '2 bar', 50e5),
  inputs: inputSpecs(INPUT, {
    coupled: {
      label: 'coupled',
      quantity: 'ratio',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'coupled' },
        { value: 0, label: 'disconnected' },
      ],
    },
  }),
  faults: throttledFaults,
  traits: { paths: [{ from: 'A', to: 'B', type: 'switched' }] },
  safetyNote: 'It does not come off a line under pressure, and must not be forced: bleed both sides first.',
  symbol: () => ({
    shapes: [
      line([-3, 0], [-1.6, 0]),
      line([-0.4, -0.9], [-1.2, -0.9], [-1.2, 0.9], [-0.4, 0.9]),
      line([-1, 0.5], [-1.6, 0], [-1, -0.5]),
      line([3, 0], [1.6, 0]),
      line([0.4, -0.9], [1.2, -0.9], [1.2, 0.9], [0.4, 0.9]),
      line([1, 0.5], [1.6, 0], [1, -0.5]),
      line([-0.4, -0.9], [0.4, -0.9]),
      line([-0.4, 0.9], [0.4, 0.9]),
    ],
    ports: { A: { x: -3, y: 0, side: 'left' }, B: { x: 3, y: 0, side: 'right' } },
    box: { x: -1.6, y: -0.9, w: 3.2, h: 1.8 },
  }),
  model: (v) => throttledModel(v, (l) => (l.u[INPUT.coupled] > 0.5 ? 1 : 0)),
  describeState: (l, _v, show) =>
    l.u[INPUT.coupled] > 0.5
      ? `Coupled, passing ${show(Math.abs(l.q[0]), 'flow')}.`
      : `Apart: ${show(l.p[0], 'pressure')} and ${show(l.p[1], 'pressure')} stand in its halves.`,
})
