import { pressureBalance } from '../answers'
import { blocked, drifted, stuck } from '../faults'
import { defineKind, Power, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { SHORT_FLOW } from '../flow-laws'
import { arrow, dashed, line, rectangle } from '../symbol'
import { dot, spring } from '../symbol-elements'
import { compensated, compensatedParameters, compensatedHold, flowInput, INPUT } from './compensated'

const STATE = indices('excessOpening')
const OUTPUT = indices('first', 'excess')
const CONDITION = indices('short')

const [P, A, B] = [0, 1, 2]

/**
 * Serves A first: its metering edge keeps p_P − p_A at its spring as long as there is oil; what is more goes to B against whatever load
 * is there. With B at the higher pressure the spool throttles the way to A as well: Q_A = q_set·path(min(Δp, m))/path(m).
 */
export const priorityValve = defineKind({
  name: 'priority-valve',
  label: 'Priority valve',
  family: 'flow',
  searchTerms: ['priority', 'steering priority', 'flow priority', 'divider with priority'],
  designationLetter: 'V',
  description: 'Gives A its set flow first, whatever the pressures; only what is left goes to B.',
  guide: {
    acts: 'Its spool serves A first; only what A does not take goes on to B.',
    fails: 'When the pump gives less than the set flow B stands still, which looks like a failure of B.',
    mistakes: 'The steering or brake put on B; the set flow larger than the pump gives at idle.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'inlet' },
    { name: 'A', domain: 'oil', role: 'served first' },
    { name: 'B', domain: 'oil', role: 'excess' },
  ],
  parameters: compensatedParameters('12 L/min'),
  inputs: flowInput,
  faults: [drifted(INPUT.flow), stuck(STATE.excessOpening, 'spool sticks'), blocked()],
  traits: {
    paths: [
      { from: 'P', to: 'A', type: 'open' },
      { from: 'P', to: 'B', type: 'switched' },
    ],
  },
  symbol: () => ({
    shapes: [
      rectangle(-4, -2, 4, 4),
      rectangle(0, -2, 4, 4),
      line([-2, 4], [-2, 2]),
      ...arrow([-2, 2], [-3, -2]),
      line([-3, -2], [-3, -4]),
      line([-1, -2], [-1, -4]),
      line([-1, -2], [-1, -1.1]),
      line([-1.45, -1.1], [-0.55, -1.1]),
      ...arrow([2, 2], [3, -2]),
      ...arrow([2, 2], [1, -2]),
      spring(-6.2, 1, 2.2, 1.2),
      // the priority line helps the spring, the pressure before the edge pushes against them
      dashed([-3, -3], [-5.2, -3], [-5.2, -1], [-4, -1]),
      dot(-3, -3),
      dashed([-2, 3], [5, 3], [5, 0], [4, 0]),
      dot(-2, 3),
    ],
    ports: {
      P: { x: -2, y: 4, side: 'down' },
      A: { x: -3, y: -4, side: 'up' },
      B: { x: -1, y: -4, side: 'up' },
    },
    box: { x: -6.2, y: -3, w: 11.2, h: 6 },
    captionAt: { x: 0.4, y: -2.8, anchor: 'start' },
  }),
  caption: (v, show) => [show(v.flow, 'flow')],
  model(v) {
    const law = compensated(v)
    return {
      states: stateSpecs(STATE, {
        excessOpening: { label: 'opening to B', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        first: { label: 'flow to A', quantity: 'flow' },
        excess: { label: 'flow to B', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        short: { label: 'below the set flow of A', severity: 'warning' },
      }),
      evaluate(l) {
        const drop = l.p[P] - l.p[A]
        l.dx[STATE.excessOpening] = law.rate(l.x[STATE.excessOpening], drop)
        const first = l.u[INPUT.flow] * law.edge(drop)
        const excess = law.excess(l.x[STATE.excessOpening], l.p[P] - l.p[B])
        l.q[P] = first + excess
        l.q[A] = -first
        l.q[B] = -excess
      },
      observe(l) {
        l.o[OUTPUT.first] = -l.q[A]
        l.o[OUTPUT.excess] = -l.q[B]
        l.c[CONDITION.short] = l.p[P] > l.p[A] ? (1 - SHORT_FLOW) * l.u[INPUT.flow] - l.o[OUTPUT.first] : -1
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[A] * l.q[A] + l.p[B] * l.q[B]
      },
      // while its spool throttles the way to B, the inlet stands over A by the drop that it keeps
      holds: (l) => [compensatedHold(l.p, P, A, v.leastDrop, l.x[STATE.excessOpening])],
      balances: (l) => [
        pressureBalance(
          'gives B what is left',
          { 'pressure at P': l.p[P] },
          { 'pressure at A': l.p[A], spring: v.leastDrop },
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    `${show(l.o[OUTPUT.first], 'flow')} of ${show(l.u[INPUT.flow], 'flow')} go to A first, ${show(l.o[OUTPUT.excess], 'flow')} are left for B.`,
})
