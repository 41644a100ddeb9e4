import { pressureBalance } from '../answers'
import { blocked, drifted, stuck } from '../faults'
import { SHORT_FLOW } from '../flow-laws'
import { defineKind, Power, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { arrowHead, line, rectangle } from '../symbol'
import { adjustable, restriction } from '../symbol-elements'
import { compensated, compensatedParameters, compensatedHold, flowInput, INPUT } from './compensated'

const STATE = indices('bypass')
const OUTPUT = indices('regulated', 'excess')
const CONDITION = indices('short')

const [A, B, T] = [0, 1, 2]

/**
 * Three-way: keeps p_A − p_B at its spring by letting the excess from A to T, so the flow to B holds at its setting and the pump
 * works only a little above the load. The law is that of compensated.ts; A→T at p_A − p_T.
 */
export const flowControl3Way = defineKind({
  name: 'flow-control-3-way',
  label: 'Flow control valve, pressure-compensated, three-way',
  family: 'flow',
  searchTerms: ['three-way flow control', '3-way', 'bypass flow control', 'compensated flow'],
  designationLetter: 'V',
  description: 'Keeps the flow to B at its setting and lets what the pump gives more go from A to T.',
  guide: {
    acts: 'As the two-way, and its compensator sends the rest to tank at the pressure of the load: less heat.',
    fails: 'A blocked tank side stops regulation; the pump always runs at the pressure of this one load.',
    mistakes: 'Only in the pump line before one load: metering out or two in parallel do not work.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'regulated outlet' },
    { name: 'T', domain: 'oil', role: 'excess, to tank' },
  ],
  parameters: compensatedParameters('12 L/min'),
  inputs: flowInput,
  faults: [drifted(INPUT.flow), stuck(STATE.bypass, 'compensator sticks'), blocked()],
  traits: {
    sizingTargets: { flowSetting: 'flow' },
    paths: [
      { from: 'A', to: 'B', type: 'open' },
      { from: 'A', to: 'T', type: 'switched' },
    ],
  },
  symbol: () => ({
    shapes: [
      rectangle(-2, -2, 4, 4),
      line([0, 4], [0, -4]),
      ...restriction(0, 0, 'sharp'),
      arrowHead(0, -1.7, 0, -1, 0.7),
      ...adjustable(0, 0, 1.6),
      line([0, 1.2], [1.4, 1.2], [1.4, 2.6], [3, 2.6], [3, 4]),
      arrowHead(3, 3.8, 0, 1, 0.7),
    ],
    ports: {
      A: { x: 0, y: 4, side: 'down' },
      B: { x: 0, y: -4, side: 'up' },
      T: { x: 3, y: 4, side: 'down' },
    },
    box: { x: -2, y: -2.5, w: 5.2, h: 6 },
  }),
  caption: (v, show) => [show(v.flow, 'flow')],
  model(v) {
    const law = compensated(v)
    return {
      states: stateSpecs(STATE, {
        bypass: { label: 'opening to T', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        regulated: { label: 'flow to B', quantity: 'flow' },
        excess: { label: 'flow to T', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        short: {
          label: 'pump delivers less than its setting',
          severity: 'info',
          begins: 'no longer keeps its flow: the pump delivers less',
          ends: 'keeps its flow again',
        },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        l.dx[STATE.bypass] = law.rate(l.x[STATE.bypass], drop)
        const regulated = l.u[INPUT.flow] * law.edge(drop)
        const excess = law.excess(l.x[STATE.bypass], l.p[A] - l.p[T])
        l.q[A] = regulated + excess
        l.q[B] = -regulated
        l.q[T] = -excess
      },
      observe(l) {
        l.o[OUTPUT.regulated] = -l.q[B]
        l.o[OUTPUT.excess] = -l.q[T]
        l.c[CONDITION.short] =
          l.o[OUTPUT.regulated] > 0 ? (1 - SHORT_FLOW) * l.u[INPUT.flow] - l.o[OUTPUT.regulated] : -1
        l.power[Power.heat] = l.p[A] * l.q[A] + l.p[B] * l.q[B] + l.p[T] * l.q[T]
      },
      // while it lets the excess go, the inlet stands over the load by the drop that it keeps
      holds: (l) => [compensatedHold(l.p, A, B, v.leastDrop, l.x[STATE.bypass])],
      balances: (l) => [
        pressureBalance(
          'lets the excess go to T',
          { 'pressure at A': l.p[A] },
          { 'pressure at B': l.p[B], spring: v.leastDrop },
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    `Passes ${show(l.o[OUTPUT.regulated], 'flow')} of ${show(l.u[INPUT.flow], 'flow')} to B and lets ${show(l.o[OUTPUT.excess], 'flow')} go to T.`,
})
