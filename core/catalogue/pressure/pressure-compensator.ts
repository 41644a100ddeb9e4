import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { blocked, drifted, stuck } from '../faults'
import { dashed } from '../symbol'
import { pressureBody } from './body'

const STATE = indices('opening')
const OUTPUT = indices('flow', 'kept')
const CONDITION = indices('wide')
const INPUT = indices('margin')

const [A, B, Y] = [0, 1, 2]
/** Opening below which it throttles. */
const COMPENSATES = 0.95

/**
 * Before the metering edge (pre-compensated): normally open, keeps its outlet above the load at Y by its spring,
 * d = p_Y + m − p_B. Behind the edge (post-compensated, flow sharing): normally shut, keeps its inlet at the highest load at Y
 * plus its spring, d = p_A − p_Y − m, and lets no oil back. τ·dφ/dt = ramp(d/r) − φ; Q = φ·path(p_A − p_B).
 */
export const pressureCompensator = defineKind({
  name: 'pressure-compensator',
  label: 'Pressure compensator',
  family: 'pressure',
  searchTerms: [
    'compensator',
    'hydrostat',
    'pre-compensated',
    'post-compensated',
    'flow sharing',
    'pressure balance',
  ],
  designationLetter: 'V',
  description:
    'Keeps the pressure drop of a metering edge: its own before the edge, that of all edges alike behind it.',
  guide: {
    acts: 'It throttles so that the drop over its metering edge stays equal to its spring, whatever load and pump do.',
    fails:
      'A sticking spool makes the speed change with the load; too little pressure leaves it wide open, and the flow falls.',
    mistakes:
      'The signal taken behind the wrong port; the margin of the pump below its spring and the losses on the way.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
    { name: 'Y', domain: 'oil', role: 'load signal' },
  ],
  parameters: {
    place: {
      type: 'choice',
      label: 'Position in the circuit',
      default: 'before',
      choices: { before: 'before the metering edge', behind: 'behind it: flow sharing' },
      note: 'before: Y is the own load; behind: Y is the highest load of all sections',
    },
    margin: quantity('Spring', 'pressure', '7 bar', 1e4, 100e5, {
      note: 'pressure drop of the metering edge; behind the edge that of the spring alone',
    }),
    range: quantity('Pressure rise to full travel', 'pressure', '3 bar', 1e4, 50e5),
    ratedFlow: quantity('Rated flow', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
  },
  inputs: inputSpecs(INPUT, {
    margin: { label: 'spring', quantity: 'pressure', rest: 'margin', min: 0, max: 100e5 },
  }),
  faults: [drifted(INPUT.margin), stuck(STATE.opening), blocked()],
  traits: { paths: [{ from: 'A', to: 'B', type: 'open' }] },
  symbol: (v) => ({
    shapes: [
      ...pressureBody({
        open: v.place === 'before',
        flow: 'up',
        pilot: v.place === 'before' ? 'top' : 'bottom',
        adjustable: false,
      }),
      dashed([4, 0], [5, 0]),
    ],
    ports: {
      A: { x: 0, y: 4, side: 'down' },
      B: { x: 0, y: -4, side: 'up' },
      Y: { x: 5, y: 0, side: 'right' },
    },
    box: { x: -3, y: -3, w: 7.4, h: 6 },
  }),
  caption: (v, show) => [show(v.margin, 'pressure')],
  model(v) {
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const before = v.place === 'before'
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: before ? 1 : 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow', quantity: 'flow' },
        kept: {
          label: before ? 'drop kept at the edge' : 'inlet above the load signal',
          quantity: 'pressure',
        },
      }),
      conditions: conditionSpecs(CONDITION, {
        wide: {
          label: 'fully open: pressure too low to compensate',
          severity: 'info',
          begins: 'is fully open: the pressure is too low to compensate',
          ends: 'compensates again',
        },
      }),
      evaluate(l) {
        const driving = before ? l.p[Y] + l.u[INPUT.margin] - l.p[B] : l.p[A] - l.p[Y] - l.u[INPUT.margin]
        l.dx[STATE.opening] = (smoothRamp(driving / v.range) - l.x[STATE.opening]) / v.timeConstant
        const drop = l.p[A] - l.p[B]
        const flow = !before && drop < 0 ? 0 : l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        l.q[A] = flow
        l.q[B] = -flow
        l.q[Y] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.o[OUTPUT.kept] = before ? l.p[B] - l.p[Y] : l.p[A] - l.p[Y]
        l.c[CONDITION.wide] = l.q[A] > 1e-3 * v.ratedFlow ? l.x[STATE.opening] - 0.98 : -1
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      ways: (l) => [
        { from: A, to: B, flow: l.q[A], element: 'edge', keepsFlow: l.x[STATE.opening] < COMPENSATES },
      ],
      balances: (l) => [
        {
          name: 'opens',
          quantity: 'pressure',
          pushing: before
            ? [
                { label: 'load signal at Y', value: l.p[Y] },
                { label: 'spring', value: l.u[INPUT.margin] },
              ]
            : [{ label: 'pressure at A', value: l.p[A] }],
          opposing: before
            ? [{ label: 'pressure at B', value: l.p[B] }]
            : [
                { label: 'load signal at Y', value: l.p[Y] },
                { label: 'spring', value: l.u[INPUT.margin] },
              ],
        },
      ],
    }
  },
  describeState: (l, v, show) =>
    l.q[A] < 1e-3 * v.ratedFlow
      ? `Passes nothing; ${show(l.o[OUTPUT.kept], 'pressure')} above its load signal.`
      : `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(l.q[A], 'flow')} with ${show(l.o[OUTPUT.kept], 'pressure')} above its load signal.`,
})
