import { inletFilling, starvation } from '../flow-laws'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs, inputSpecs } from '../kind'
import { arrow, circle, line } from '../symbol'

const OUTPUT = indices('delivered')
const CONDITION = indices('starved')
const INPUT = indices('flow')

const [A, B] = [0, 1]

/**
 * Moves a given flow from A to B whatever the pressures: Q = Q(t)·f(p of the port it draws from);
 * f falls from 1 to 0 as that absolute pressure falls from 0.3 bar to 0, as at a pump's inlet.
 */
export const flowSource = defineKind({
  name: 'flow-source',
  label: 'Ideal flow source',
  family: 'sources',
  searchTerms: ['prescribed flow', 'ideal source', 'constant flow'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  description:
    'Moves a prescribed flow from A to B without leakage, which a schedule may change. For rigs and verification.',
  ports: [
    { name: 'A', domain: 'oil', role: 'drawn from' },
    { name: 'B', domain: 'oil', role: 'delivered to' },
  ],
  parameters: { flow: quantity('Flow', 'flow', '10 L/min', -0.1, 0.1) },
  inputs: inputSpecs(INPUT, {
    flow: { label: 'flow', quantity: 'flow', rest: 'flow', min: -0.1, max: 0.1 },
  }),
  traits: { greatestFlow: (v) => v.flow, paths: [{ from: 'A', to: 'B', type: 'oneWay' }] },
  symbol: () => ({
    shapes: [circle(0, 0, 1.5), ...arrow([0, 1], [0, -1]), line([0, 1.5], [0, 3]), line([0, -1.5], [0, -3])],
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [show(values.flow, 'flow')],
  model: () => ({
    conditions: conditionSpecs(CONDITION, {
      starved: { label: 'starved at its inlet', severity: 'warning' },
    }),
    outputs: outputSpecs(OUTPUT, {
      delivered: { label: 'flow delivered', quantity: 'flow' },
    }),
    evaluate(l) {
      const inlet = l.u[INPUT.flow] >= 0 ? l.p[A] : l.p[B]
      const flow = l.u[INPUT.flow] * inletFilling(inlet)
      l.q[A] = flow
      l.q[B] = -flow
    },
    observe(l) {
      l.o[OUTPUT.delivered] = l.q[A]
      const inlet = l.u[INPUT.flow] >= 0 ? l.p[A] : l.p[B]
      l.c[CONDITION.starved] = l.u[INPUT.flow] === 0 ? -1 : starvation(inlet)
      // what it does to the oil comes from outside
      l.power[Power.input] = -l.p[A] * l.q[A] - l.p[B] * l.q[B]
    },
  }),
  describeState: (l, _values, show) =>
    `Moves ${show(Math.abs(l.q[A]), 'flow')}${l.q[A] < 0 ? ' from B to A' : ''}.`,
})
