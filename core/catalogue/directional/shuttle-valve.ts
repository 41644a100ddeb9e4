import { pressureBalance } from '../answers'
import { blocked, stuck } from '../faults'
import { defineKind, Power, quantity, indices, stateSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { circle, line } from '../symbol'

const STATE = indices('ball')

const [A, B, OUT] = [0, 1, 2]
/** Difference over which the ball crosses, Pa. */
const CROSSING = 0.2e5

/** The higher of two inlets joins the outlet: y follows ramp((p_A − p_B)/0.2 bar + ½); Q_A = y·path, Q_B = (1 − y)·path. */
export const shuttleValve = defineKind({
  name: 'shuttle-valve',
  label: 'Shuttle valve',
  family: 'directional',
  searchTerms: ['shuttle', 'or valve', 'higher of two', 'load signal', 'sv'],
  designationLetter: 'V',
  description: 'Joins the inlet with the higher pressure to its outlet and shuts the other.',
  guide: {
    acts: 'The ball goes to the side with the lower pressure and shuts it; the higher one goes on.',
    fails: 'A ball that sticks in the middle joins both; a slow ball loses a short signal.',
    mistakes:
      'Three signals taken into one shuttle; the outlet never relieved, so that a brake stays lifted.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one inlet' },
    { name: 'B', domain: 'oil', role: 'other inlet' },
    { name: 'C', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    ratedFlow: quantity('Rated flow', 'flow', '10 L/min', 1e-8, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '2 bar', 1e4, 50e5),
    timeConstant: quantity('Response', 'time', '2 ms', 1e-4, 1),
  },
  faults: [stuck(STATE.ball, 'ball sticks'), blocked()],
  traits: {
    paths: [
      { from: 'A', to: 'C', type: 'oneWay' },
      { from: 'B', to: 'C', type: 'oneWay' },
    ],
  },
  symbol: () => ({
    shapes: [
      line([-2, 0], [-3, 0]),
      line([2, 0], [3, 0]),
      line([-2, -1], [2, -1], [2, 1], [-2, 1], [-2, -1]),
      circle(-1.1, 0, 0.7),
      line([-2, 0.6], [-1.7, 0.35]),
      line([-2, -0.6], [-1.7, -0.35]),
      line([2, 0.6], [1.7, 0.35]),
      line([2, -0.6], [1.7, -0.35]),
      line([0, -1], [0, -3]),
    ],
    ports: {
      A: { x: -3, y: 0, side: 'left' },
      B: { x: 3, y: 0, side: 'right' },
      C: { x: 0, y: -3, side: 'up' },
    },
    box: { x: -2, y: -1, w: 4, h: 2 },
  }),
  model(values) {
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    return {
      states: stateSpecs(STATE, {
        ball: { label: 'share open to A', quantity: 'share', initial: 0.5, scale: 1 },
      }),
      evaluate(l) {
        l.dx[STATE.ball] =
          (smoothRamp((l.p[A] - l.p[B]) / CROSSING + 0.5) - l.x[STATE.ball]) / values.timeConstant
        l.q[A] = l.x[STATE.ball] * coefficient * smoothSquareRoot(l.p[A] - l.p[OUT])
        l.q[B] = (1 - l.x[STATE.ball]) * coefficient * smoothSquareRoot(l.p[B] - l.p[OUT])
        l.q[OUT] = -l.q[A] - l.q[B]
      },
      observe(l) {
        l.power[Power.heat] = l.p[A] * l.q[A] + l.p[B] * l.q[B] + l.p[OUT] * l.q[OUT]
      },
      balances: (l) => [
        pressureBalance('passes A on', { 'pressure at A': l.p[A] }, { 'pressure at B': l.p[B] }),
      ],
    }
  },
  describeState: (l, _values, show) =>
    `Passes on ${show(l.p[OUT], 'pressure')} from ${l.x[STATE.ball] > 0.9 ? 'A' : l.x[STATE.ball] < 0.1 ? 'B' : 'both'}.`,
})
