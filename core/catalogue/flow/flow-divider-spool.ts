import { blocked, stuck } from '../faults'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, frictionReversal, smoothSquareRoot } from '../flow-laws'
import { dashed, line, rectangle } from '../symbol'
import { adjustable, restriction } from '../symbol-elements'

const STATE = indices('spool')
const OUTPUT = indices('toA', 'toB')
const CONDITION = indices('unequal')

const [P, A, B] = [0, 1, 2]
/** The spool never shuts a side wholly. */
const NARROWEST = 0.02
/** Share of the rated flow over which dividing goes over into joining. */
const SMALL = 0.01
/** Travel of the spool from which on it throttles a side. */
const THROTTLED = 0.02
/** Drive of the spool towards equal shares, per unit of unequal flow. */
const GAIN = 3

/**
 * A spool throttles the side that passes more than its share: with e = ±(Q_A/s − Q_B/(1 − s))/q_r, + where it divides, − where it joins,
 * τ·dy/dt = clamp(y + 3·e, ±0.98) − y; Q_A = (1 − max(0, y))·path(p_P − p_A; s·q_r, Δp_r), Q_B = (1 + min(0, y))·path(p_P − p_B; (1 − s)·q_r, Δp_r).
 * It divides from P and joins to P.
 */
export const flowDividerSpool = defineKind({
  name: 'flow-divider-spool',
  label: 'Flow divider, spool',
  family: 'flow',
  searchTerms: ['flow divider', 'divider combiner', 'synchronise', 'equal flow'],
  designationLetter: 'V',
  description:
    'Divides the flow at P between A and B by its ratio, whatever their loads; joins it on the way back.',
  guide: {
    acts: 'A spool shifts until the drops over two edges are alike, whatever the loads.',
    fails: 'Outside its range of flow it divides badly; dirt holds it to one side.',
    mistakes:
      'Flow below half its range; expected to keep two cylinders level for many strokes without resetting them at a stop.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'common line' },
    { name: 'A', domain: 'oil', role: 'first share' },
    { name: 'B', domain: 'oil', role: 'second share' },
  ],
  parameters: {
    share: quantity('Flow share of A', 'share', '50 %', 0.05, 0.95),
    ratedFlow: quantity('Rated flow, both', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '8 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '15 ms', 1e-3, 1),
  },
  faults: [stuck(STATE.spool, 'spool sticks'), blocked()],
  traits: {
    paths: [
      { from: 'P', to: 'A', type: 'open' },
      { from: 'P', to: 'B', type: 'open' },
    ],
  },
  symbol: () => ({
    shapes: [
      rectangle(-4, -2, 8, 4),
      line([0, 4], [0, 1], [-2, 1], [-2, -4]),
      line([0, 1], [2, 1], [2, -4]),
      // a fixed restrictor on each side, and an edge of the spool that its pressure drop moves
      ...restriction(-2, 0.2, 'sharp', 'vertical', 0.6),
      ...restriction(2, 0.2, 'sharp', 'vertical', 0.6),
      ...restriction(-2, -1.2, 'sharp', 'vertical', 0.6),
      ...restriction(2, -1.2, 'sharp', 'vertical', 0.6),
      ...adjustable(-2, -1.2, 0.7),
      ...adjustable(2, -1.2, 0.7),
      // the spool that links both edges
      dashed([-1.4, -1.2], [1.4, -1.2]),
    ],
    ports: {
      P: { x: 0, y: 4, side: 'down' },
      A: { x: -2, y: -4, side: 'up' },
      B: { x: 2, y: -4, side: 'up' },
    },
    box: { x: -4, y: -2, w: 8, h: 4 },
  }),
  caption: (v) => [`${Math.round(v.share * 100)} : ${Math.round((1 - v.share) * 100)}`],
  model(v) {
    const a = pathCoefficient(v.share * v.ratedFlow, v.ratedDrop)
    const b = pathCoefficient((1 - v.share) * v.ratedFlow, v.ratedDrop)
    return {
      states: stateSpecs(STATE, {
        spool: { label: 'spool', quantity: 'ratio', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        toA: { label: 'flow to A', quantity: 'flow' },
        toB: { label: 'flow to B', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        unequal: { label: 'cannot keep its flow shares', severity: 'warning' },
      }),
      evaluate(l) {
        const y = l.x[STATE.spool]
        const qa = (1 - (y > 0 ? y : 0)) * a * smoothSquareRoot(l.p[P] - l.p[A])
        const qb = (1 + (y < 0 ? y : 0)) * b * smoothSquareRoot(l.p[P] - l.p[B])
        const direction = frictionReversal((qa + qb) / (SMALL * v.ratedFlow))
        const error = (direction * (qa / v.share - qb / (1 - v.share))) / v.ratedFlow
        const most = 1 - NARROWEST
        const wanted = y + GAIN * error
        l.dx[STATE.spool] = ((wanted > most ? most : wanted < -most ? -most : wanted) - y) / v.timeConstant
        l.q[P] = qa + qb
        l.q[A] = -qa
        l.q[B] = -qb
      },
      observe(l) {
        l.o[OUTPUT.toA] = -l.q[A]
        l.o[OUTPUT.toB] = -l.q[B]
        const sum = Math.abs(l.q[P])
        l.c[CONDITION.unequal] =
          sum > 0.05 * v.ratedFlow ? Math.abs(Math.abs(l.q[A]) / sum - v.share) - 0.1 : -1
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[A] * l.q[A] + l.p[B] * l.q[B]
      },
      // the side that the spool throttles takes its share whatever its load: the other one sets the pressure at P
      ways: (l) => [
        {
          from: P,
          to: A,
          flow: -l.q[A],
          element: 'edge',
          keepsFlow: l.q[P] > 0 && l.x[STATE.spool] > THROTTLED,
        },
        {
          from: P,
          to: B,
          flow: -l.q[B],
          element: 'edge',
          keepsFlow: l.q[P] > 0 && l.x[STATE.spool] < -THROTTLED,
        },
      ],
    }
  },
  describeState: (l, _v, show) =>
    l.q[P] >= 0
      ? `Divides ${show(l.q[P], 'flow')}: ${show(l.o[OUTPUT.toA], 'flow')} to A, ${show(l.o[OUTPUT.toB], 'flow')} to B.`
      : `Joins ${show(-l.o[OUTPUT.toA], 'flow')} from A and ${show(-l.o[OUTPUT.toB], 'flow')} from B.`,
})
