import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs } from '../kind'
import { circleArea, smoothSquareRoot } from '../flow-laws'
import { line } from '../symbol'
import { restriction } from '../symbol-elements'
import { throttlesBothWays } from './throttled'

const OUTPUT = indices('flow')

const [A, B] = [0, 1]

/** Sharp-edged orifice: Q = C_d·A·√(2/ρ)·Δp/(Δp² + Δp_t²)^¼, C_d = 0.7, Δp_t = 0.1 bar. */
export const orifice = defineKind({
  name: 'orifice',
  label: 'Orifice, fixed',
  family: 'flow',
  searchTerms: ['restrictor', 'jet', 'nozzle', 'orf'],
  designationLetter: 'V',
  description: 'A fixed sharp-edged hole. Its flow hardly depends on viscosity.',
  guide: {
    acts: 'A fixed sharp hole: flow goes with the root of the pressure drop, hardly with viscosity.',
    fails: 'Dirt blocks it: whatever it feeds or bleeds no longer follows.',
    mistakes:
      'Chosen by eye; without a strainer before it; drilled in a thick plate, where it becomes a viscous throttle.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'other side' },
  ],
  parameters: {
    diameter: quantity('Diameter', 'length', '1 mm', 1e-5, 0.1),
  },
  faults: [blocked()],
  traits: {
    sizingTargets: { orifice: 'diameter' },
    restrictions: throttlesBothWays,
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  symbol: () => ({
    shapes: [line([-2, 0], [2, 0]), ...restriction(0, 0, 'sharp', 'horizontal')],
    ports: { A: { x: -2, y: 0, side: 'left' }, B: { x: 2, y: 0, side: 'right' } },
    box: { x: -1, y: -1, w: 2, h: 2 },
  }),
  caption: (values, show) => [`⌀ ${show(values.diameter, 'length')}`],
  model(values, fluid) {
    const area = circleArea(values.diameter)
    return {
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
      }),
      evaluate(l) {
        const flow = area * fluid.orificeFactor * smoothSquareRoot(l.p[A] - l.p[B])
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState: (l, _values, show) =>
    `Passes ${show(Math.abs(l.q[A]), 'flow')} at a drop of ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')}.`,
})
