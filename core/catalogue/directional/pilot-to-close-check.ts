import { pressureBalance } from '../answers'
import { leak, reversed, stuck } from '../faults'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { dashed } from '../symbol'
import { checkInLine } from '../symbol-elements'
import { checkParameters } from './check'

const STATE = indices('opening')
const OUTPUT = indices('flow')

const [A, B, X] = [0, 1, 2]

/**
 * Free flow A to B until pressure at X shuts it: d = (p_A − p_B) − R·max(0, p_X − p_A) − p_crack, the pilot piston
 * pushing the poppet onto its seat; τ·dφ/dt = ramp(d/p_open) − φ; Q = φ·path(p_A − p_B).
 */
export const pilotToCloseCheck = defineKind({
  name: 'pilot-to-close-check',
  label: 'Check valve, pilot to close',
  family: 'directional',
  searchTerms: ['pilot to close', 'prefill shut', 'blocking check'],
  designationLetter: 'V',
  description:
    'Lets oil pass from A to B, never back, and not at all while its pilot at X is under pressure.',
  guide: {
    acts: 'A check from A to B that pressure at X holds shut.',
    fails: 'A pilot that does not fall keeps the line shut.',
    mistakes: 'X taken from the line that it should let pass.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet of the free flow' },
    { name: 'B', domain: 'oil', role: 'outlet of the free flow' },
    { name: 'X', domain: 'oil', role: 'pilot to close' },
  ],
  parameters: {
    ...checkParameters(),
    pilotRatio: quantity('Pilot ratio', 'ratio', '2', 0.5, 20, { note: 'pilot area to seat area' }),
  },
  faults: [leak(B, A, 'leaks shut'), stuck(STATE.opening), reversed(A, B)],
  traits: { pilotPorts: ['X'], paths: [{ from: 'A', to: 'B', type: 'oneWay' }] },
  safetyNote: 'Oil can stay trapped under pressure behind a check: bleed it before opening a line.',
  symbol: (values) => ({
    shapes: [
      ...checkInLine([0, 3], [0, -3], { spring: values.crackingPressure > 0 }),
      // it pushes the ball on its seat
      dashed([-3, -1], [-0.55, -1], [-0.55, -0.6]),
    ],
    ports: {
      A: { x: 0, y: 3, side: 'down' },
      B: { x: 0, y: -3, side: 'up' },
      X: { x: -3, y: -1, side: 'left' },
    },
    box: { x: -2, y: -2, w: 4, h: 4 },
  }),
  caption: (v) => [`${v.pilotRatio} : 1`],
  model(v) {
    const coefficient = pathCoefficient(v.checkFlow, v.checkDrop)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const push = l.p[X] - l.p[A]
        const driving = drop - (push > 0 ? v.pilotRatio * push : 0) - v.crackingPressure
        l.dx[STATE.opening] = (smoothRamp(driving / v.openingRange) - l.x[STATE.opening]) / v.checkResponse
        l.q[A] = l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        l.q[B] = -l.q[A]
        l.q[X] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      balances: (l) => [
        pressureBalance(
          'opens',
          { 'pressure at A': l.p[A] },
          {
            'pressure at B': l.p[B],
            spring: v.crackingPressure,
            [`pilot over A, ${v.pilotRatio} times`]: v.pilotRatio * Math.max(0, l.p[X] - l.p[A]),
          },
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    l.x[STATE.opening] > 0.01
      ? `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(l.q[A], 'flow')}.`
      : l.p[X] > l.p[A]
        ? `Shut by ${show(l.p[X], 'pressure')} at its pilot.`
        : `Shut, holding back ${show(Math.max(0, l.p[B] - l.p[A]), 'pressure')}.`,
})
