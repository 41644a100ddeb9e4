import { type Balance, pressureBalance } from '../answers'
import { blocked, leak, lost, stuck } from '../faults'
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
import { arrow, arrowHead, circle, line, partOf, rectangle, type Shape } from '../symbol'
import { solenoid, spring } from '../symbol-elements'
import { BOX } from './spool'

const STATE = indices('opening')
const OUTPUT = indices('flow', 'held', 'switched')
const CONDITION = indices('overPressure')
const INPUT = indices('command')

const [A, B] = [0, 1]

/**
 * Its seat does not leak. Switched open Q = φ·path(p_A − p_B) both ways. Switched shut it holds back B→A and, as a seat
 * that blocks one way, opens A→B like a check from its spring on; as one that blocks both ways it holds both.
 */
export const poppetValve = defineKind({
  name: 'poppet-valve',
  label: 'Isolating valve, poppet 2/2',
  family: 'directional',
  searchTerms: ['poppet', 'seat valve', 'isolating', 'leak-free', 'cartridge', '2/2'],
  designationLetter: 'V',
  description: 'A seat that shuts tight, opened or shut by its solenoid.',
  guide: {
    acts: 'Its solenoid lifts or shuts a seat, which holds without leakage.',
    fails:
      'Pressure from the wrong side can push some seats open; at high drop the solenoid may not move it.',
    mistakes:
      'Relied on both ways when it holds one; no manual way to let a load down when the voltage is gone.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one side' },
    { name: 'B', domain: 'oil', role: 'held side' },
  ],
  parameters: {
    rest: {
      type: 'choice',
      label: 'At rest',
      default: 'shut',
      choices: { shut: 'shut: solenoid opens it', open: 'open: solenoid shuts it' },
    },
    blocks: {
      type: 'choice',
      label: 'When closed, blocks',
      default: 'one',
      choices: { one: 'B to A only, as a check', both: 'both ways' },
    },
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '5 bar', 1e4, 100e5),
    crackingPressure: quantity('Cracking pressure in the check direction', 'pressure', '1 bar', 0, 50e5),
    switchTime: quantity('Response', 'time', '25 ms', 1e-3, 2, { note: 'time constant of its opening' }),
    maxPressure: quantity('Maximum pressure', 'pressure', '350 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  },
  inputs: inputSpecs(INPUT, {
    command: {
      momentary: true,
      electric: 'coil',
      label: 'solenoid',
      quantity: 'ratio',
      rest: 0,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'on', action: 'is switched on' },
        { value: 0, label: 'off', action: 'is switched off' },
      ],
    },
  }),
  faults: [
    stuck(STATE.opening, 'poppet sticks'),
    lost(INPUT.command, 'coil without voltage'),
    leak(B, A, 'leaks shut'),
    blocked(),
  ],
  traits: {
    electricFaults: () => ['lost'],
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    ratedPressure: 'maxPressure',
    paths: [{ from: 'A', to: 'B', type: 'switched' }],
    connectedAtRest: (v) => (v.rest === 'open' ? [['A', 'B']] : []),
  },
  safetyNote:
    'No single valve may be relied on under a raised load: use a mechanical lock where people can be under it.',
  symbol(v) {
    /** A seat with its ball, held down against what comes from above; where both ways are blocked, a seat on each side of it. */
    const closed = (x: number): Shape[] => [
      line([x, 2], [x, 1.06]),
      line([x - 1.1, -0.05], [x, 1.06], [x + 1.1, -0.05]),
      circle(x, 0, 0.75),
      ...(v.blocks === 'both'
        ? [line([x - 1.1, 0.05], [x, -1.06], [x + 1.1, 0.05]), line([x, -1.06], [x, -2])]
        : [line([x, -0.75], [x, -2])]),
    ]
    const open = (x: number): Shape[] => [...arrow([x, 2], [x, -2]), arrowHead(x, 2, 0, 1)]
    const [atRest, actuated] = v.rest === 'shut' ? [closed, open] : [open, closed]
    return {
      shapes: partOf('poppet', [
        rectangle(-BOX / 2, -BOX / 2, BOX, BOX),
        rectangle(BOX / 2, -BOX / 2, BOX, BOX),
        ...atRest(0),
        ...actuated(BOX),
        ...solenoid(1.5 * BOX, -1),
        spring(-BOX / 2 - 2.2, 1, 2.2, 1.1),
      ]),
      ports: { A: { x: 0, y: 2, side: 'down' }, B: { x: 0, y: -2, side: 'up' } },
      box: { x: -4.2, y: -2, w: 13.2, h: 4 },
      captionAt: { x: 9.4, y: -1, anchor: 'start' },
      parts: { poppet: { signal: 'switched', zero: 0, travel: -BOX, full: 1 } },
    }
  },
  caption: (v, show) => [show(v.ratedFlow, 'flow')],
  model(v) {
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const opens = v.rest === 'shut'
    const check = v.blocks === 'one'
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: opens ? 0 : 1, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
        held: { label: 'pressure held', quantity: 'pressure' },
        switched: { label: 'spool stroke', quantity: 'share' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'held' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const switched = l.u[INPUT.command] > 0.5 === opens ? 1 : 0
        const lifted = check ? smoothRamp((drop - v.crackingPressure) / 0.5e5) : 0
        l.dx[STATE.opening] = (Math.max(switched, lifted) - l.x[STATE.opening]) / v.switchTime
        const flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(drop)
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.o[OUTPUT.held] = Math.max(l.p[A], l.p[B])
        l.o[OUTPUT.switched] = opens ? l.x[STATE.opening] : 1 - l.x[STATE.opening]
        l.c[CONDITION.overPressure] = l.o[OUTPUT.held] - v.maxPressure
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      /** Switched shut it opens as a check, where it blocks one way only. */
      balances: (l): Balance[] =>
        check && l.u[INPUT.command] > 0.5 !== opens
          ? [
              pressureBalance(
                'opens as a check valve',
                { 'pressure at A': l.p[A] },
                { 'pressure at B': l.p[B], spring: v.crackingPressure },
              ),
            ]
          : [],
    }
  },
  describeState: (l, _v, show) =>
    l.x[STATE.opening] < 0.01
      ? `Shut tight, with ${show(Math.abs(l.p[B] - l.p[A]), 'pressure')} across its seat.`
      : `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(Math.abs(l.q[A]), 'flow')} from ${l.q[A] >= 0 ? 'A to B' : 'B to A'}.`,
})
