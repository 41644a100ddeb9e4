import { blocked, leak } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { circle, dashed, line } from '../symbol'
import { dot, rotationArrow } from '../symbol-elements'

const OUTPUT = indices('flow', 'drained')

const [A, B, L] = [0, 1, 2]

/** Q = path(p_A − p_B), and past its seals G·p from the line to its drain, scaled with ν_ref/ν. */
export const rotaryJoint = defineKind({
  name: 'rotary-joint',
  label: 'Rotary joint',
  family: 'lines',
  searchTerms: ['rotary joint', 'swivel', 'rotating union', 'centre junction'],
  designationLetter: 'Z',
  description: 'Leads a line through something that turns; its seals leak a little to the drain.',
  ports: [
    { name: 'A', domain: 'oil', role: 'standing side' },
    { name: 'B', domain: 'oil', role: 'turning side' },
    { name: 'L', domain: 'oil', role: 'drain of the seals' },
  ],
  parameters: {
    ratedFlow: quantity('Rated flow', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '1.5 bar', 1e4, 50e5),
    leakage: quantity('Leakage at 200 bar', 'flow', '0.05 L/min', 0, 1e-3),
  },
  faults: [blocked(), leak(A, L, 'seals worn', 'worn')],
  traits: {
    drainPorts: ['L'],
    paths: [
      { from: 'A', to: 'B', type: 'open' },
      { from: 'A', to: 'L', type: 'switched' },
    ],
  },
  symbol: () => ({
    shapes: [
      line([-3, 0], [-1.2, 0]),
      line([1.2, 0], [3, 0]),
      circle(0, 0, 1.2),
      dot(0, 0),
      ...rotationArrow(0, 0, 1.7, 210, 330),
      dashed([0, 1.2], [0, 3]),
    ],
    ports: {
      A: { x: -3, y: 0, side: 'left' },
      B: { x: 3, y: 0, side: 'right' },
      L: { x: 0, y: 3, side: 'down' },
    },
    box: { x: -1.7, y: -1.7, w: 3.4, h: 3 },
  }),
  model(v, fluid) {
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const seal = v.leakage / 200e5
    return {
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
        drained: { label: 'flow to the drain', quantity: 'flow' },
      }),
      evaluate(l) {
        const through = coefficient * smoothSquareRoot(l.p[A] - l.p[B])
        const drained = seal * fluid.leakageFactor * (l.p[A] - l.p[L])
        l.q[A] = through + drained
        l.q[B] = -through
        l.q[L] = -drained
      },
      observe(l) {
        l.o[OUTPUT.flow] = -l.q[B]
        l.o[OUTPUT.drained] = -l.q[L]
        l.power[Power.heat] = l.p[A] * l.q[A] + l.p[B] * l.q[B] + l.p[L] * l.q[L]
      },
    }
  },
  describeState: (l, _v, show) =>
    `Passes ${show(Math.abs(l.o[OUTPUT.flow]), 'flow')}; ${show(l.o[OUTPUT.drained], 'flow')} go to its drain.`,
})
