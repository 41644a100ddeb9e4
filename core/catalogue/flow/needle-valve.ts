import { defineKind, quantity, type Local, indices, inputSpecs } from '../kind'
import { line } from '../symbol'
import { adjustable, restriction } from '../symbol-elements'
import { throttledFaults, throttledModel, throttledParameters, throttlesBothWays } from './throttled'

const INPUT = indices('opening')

const [A, B] = [0, 1]

/**
 * By its catalogue point q_r, Δp_r and its opening φ: a sharp edge passes Q = φ·path(p_A − p_B; q_r, Δp_r), a long gap
 * the laminar Q = φ·(q_r/Δp_r)·(ν_ref/ν)·(p_A − p_B).
 */
export const needleValve = defineKind({
  name: 'needle-valve',
  label: 'Throttle valve, adjustable',
  family: 'flow',
  searchTerms: ['needle', 'throttle', 'restrictor by rated flow', 'metering orifice', 'nv'],
  designationLetter: 'V',
  description: 'A restriction given by a flow at a pressure drop, which can be opened and closed.',
  guide: {
    acts: 'Turned open or shut by hand; flow goes with the root of the pressure drop.',
    fails: 'It clogs at small openings and drifts with temperature.',
    mistakes: 'Used where a load changes and the speed must not: that needs a compensated flow control.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    ...throttledParameters('30 L/min', '20 bar', 300e5),
    edge: {
      type: 'choice',
      label: 'Restriction',
      default: 'sharp',
      choices: { sharp: 'sharp edge', viscous: 'long gap: depends on viscosity' },
    },
    opening: quantity('Opening', 'share', '100 %', 0, 1),
  },
  inputs: inputSpecs(INPUT, {
    opening: { label: 'opening', quantity: 'share', rest: 'opening', min: 0, max: 1 },
  }),
  faults: throttledFaults,
  traits: { restrictions: throttlesBothWays, paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: (values) => ({
    shapes: [
      line([-2, 0], [2, 0]),
      ...restriction(0, 0, values.edge, 'horizontal'),
      ...adjustable(0, 0, 1.5),
    ],
    ports: { A: { x: -2, y: 0, side: 'left' }, B: { x: 2, y: 0, side: 'right' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [`${show(values.ratedFlow, 'flow')} at ${show(values.ratedDrop, 'pressure')}`],
  model(values, fluid) {
    const opening = (l: Local) => l.u[INPUT.opening]
    if (values.edge === 'sharp') return throttledModel(values, opening)
    const conductance = values.ratedFlow / values.ratedDrop
    return throttledModel(values, opening, {}, (drop) => conductance * fluid.leakageFactor * drop)
  },
  describeState: (l, _values, show) =>
    `Open ${Math.round(l.u[INPUT.opening] * 100)} %, passes ${show(Math.abs(l.q[A]), 'flow')} at a drop of ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')}.`,
})
