import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { arrow, circle, line } from '../symbol'

const OUTPUT = indices('reading')
const CONDITION = indices('overRange')

const [A, B] = [0, 1]

/** Reads the flow from A to B with a small loss: Q = path(Δp; q_r, Δp_r). */
export const flowMeter = defineKind({
  name: 'flow-meter',
  label: 'Flow meter',
  family: 'instruments',
  searchTerms: ['flow meter', 'flowmeter', 'turbine', 'fm'],
  designationLetter: 'S',
  description: 'Shows the flow through it.',
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    range: quantity('Range', 'flow', '100 L/min', 1e-6, 0.2, {
      note: 'reported when the flow goes beyond it',
    }),
    drop: quantity('Pressure drop at full scale', 'pressure', '1 bar', 1e4, 20e5),
  },
  faults: [blocked()],
  traits: { paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: () => ({
    shapes: [
      circle(0, 0, 2),
      line([0, 3], [0, 2]),
      line([0, -2], [0, -3]),
      ...arrow([0, 1.4], [0, -1.3]),
      line([-1.2, 0.9], [-0.7, 0.4], [-1.2, -0.1]),
      line([1.2, 0.9], [0.7, 0.4], [1.2, -0.1]),
    ],
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -2, y: -2, w: 4, h: 4 },
    reading: 'reading',
  }),
  model(values) {
    const coefficient = pathCoefficient(values.range, values.drop)
    return {
      outputs: outputSpecs(OUTPUT, {
        reading: { label: 'reading', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
      }),
      evaluate(l) {
        const flow = coefficient * smoothSquareRoot(l.p[A] - l.p[B])
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[OUTPUT.reading] = l.q[A]
        l.c[CONDITION.overRange] = Math.abs(l.q[A]) - values.range
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState: (l, _values, show) => `Reads ${show(l.q[A], 'flow')}.`,
})
