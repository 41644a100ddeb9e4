import { pressureBalance } from '../answers'
import { defineKind, Power, indices, stateSpecs, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { checkInLine } from '../symbol-elements'
import { leak, reversed, stuck } from '../faults'
import { checkNominal, checkParameters, checkValveMotion } from './check'

const STATE = indices('opening')
const OUTPUT = indices('flow')

const [A, B] = [0, 1]

/** Q = φ·path(p_A − p_B); φ follows ramp((p_A − p_B − p_crack)/p_open) with a lag. */
export const checkValve = defineKind({
  name: 'check-valve',
  label: 'Check valve',
  family: 'directional',
  searchTerms: ['check', 'non-return', 'one way', 'nrv', 'cv'],
  designationLetter: 'V',
  description: 'Lets oil pass from A to B and holds it back the other way.',
  guide: {
    acts: 'The inlet pressure lifts its cone off the seat, against the outlet pressure and a light spring.',
    fails: 'Dirt on the seat lets oil back; a strong spring before a pump inlet starves it.',
    mistakes: 'The wrong way round; in a suction line without regard for its cracking pressure.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet of the free flow' },
    { name: 'B', domain: 'oil', role: 'outlet of the free flow' },
  ],
  parameters: checkParameters(),
  faults: [leak(A, B, 'leaks shut'), stuck(STATE.opening), reversed(A, B)],
  traits: { nominalPoint: checkNominal, paths: [{ from: 'A', to: 'B', type: 'oneWay' }] },
  safetyNote: 'Oil can stay trapped under pressure behind a check: bleed it before opening a line.',
  symbol: (values) => ({
    shapes: checkInLine([0, 3], [0, -3], { spring: values.crackingPressure > 0 }),
    ports: { A: { x: 0, y: 3, side: 'down' }, B: { x: 0, y: -3, side: 'up' } },
    box: { x: -1, y: -1, w: 2, h: 2.2 },
  }),
  caption: (values, show) => [show(values.crackingPressure, 'pressure')],
  model(values) {
    const moveCheck = checkValveMotion(values)
    const coefficient = pathCoefficient(values.checkFlow, values.checkDrop)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        moveCheck(l, STATE.opening, A, B)
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      balances: (l) => [
        pressureBalance(
          'opens',
          { 'pressure at A': l.p[A] },
          { 'pressure at B': l.p[B], spring: values.crackingPressure },
        ),
      ],
    }
  },
  describeState: (l, _values, show) =>
    l.x[STATE.opening] > 0.01
      ? `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(l.q[A], 'flow')}.`
      : `Shut, holding back ${show(Math.max(0, l.p[B] - l.p[A]), 'pressure')}.`,
})
