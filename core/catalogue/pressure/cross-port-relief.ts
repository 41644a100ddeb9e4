import { heldAtSetting } from '../answers'
import {
  defineKind,
  Power,
  quantity,
  indices,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
  stateSpecs,
} from '../kind'
import { addPathFlows, pathCoefficient } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { drifted, springBroken, stuck } from '../faults'
import { line } from '../symbol'
import { checkInLine, dot, reliefInLine } from '../symbol-elements'
import { portRelief, portReliefParameters } from './port-relief'

const STATE = indices('openingA', 'openingB', 'suctionA', 'suctionB')
const OUTPUT = indices('spilled', 'madeUp')
const CONDITION = indices('spills', 'drawing')
const INPUT = indices('setting', 'back')

const [A, B, C] = [0, 1, 2]
const [MAKE_UP_FROM, MAKE_UP_TO] = [Int32Array.of(C, C), Int32Array.of(A, B)]

/**
 * Two quick reliefs, A→B and B→A, that let a driven motor spill from the side it compresses to the side it empties; with
 * anti-cavitation, checks from C to both sides make up what leaks away.
 */
export const crossPortRelief = defineKind({
  name: 'cross-port-relief',
  label: 'Cross-port relief valves',
  family: 'pressure',
  searchTerms: ['cross port', 'cross-line relief', 'crossover relief', 'motor brake', 'anti-cavitation'],
  designationLetter: 'V',
  description: 'Limits the pressure of both lines of a motor by spilling each into the other.',
  guide: {
    acts: 'Each side opens into the other at its setting, so that a motor that is stopped or pushed is braked and not burst.',
    fails: 'It does not replace leakage: without make-up the low side runs empty and the motor cavitates.',
    mistakes: 'Set below what starting needs; no make-up line; fitted far from the motor, behind hoses.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'one line of the motor' },
    { name: 'B', domain: 'oil', role: 'other line of the motor' },
    { name: 'C', domain: 'oil', role: 'make-up line', mayStayOpen: true },
  ],
  parameters: {
    ...portReliefParameters('180 bar'),
    back: quantity('Setting from B to A', 'pressure', '180 bar', 2e5, 700e5, { note: 'at rated flow' }),
    makeUp: {
      type: 'switch',
      label: 'Anti-cavitation checks from C',
      default: true,
      note: 'without them a coasting motor may run empty on its inlet',
    },
    ...checkParameters('Checks'),
  },
  inputs: inputSpecs(INPUT, {
    setting: { label: 'setting A to B', quantity: 'pressure', rest: 'setting', min: 0, max: 700e5 },
    back: { label: 'setting B to A', quantity: 'pressure', rest: 'back', min: 0, max: 700e5 },
  }),
  faults: [drifted(INPUT.setting), springBroken(INPUT.setting), stuck(STATE.openingA)],
  traits: {
    sizingTargets: { crossPortSetting: 'setting' },
    pressureSettings: [
      { does: 'cushions', parameter: 'setting', port: 'A' },
      { does: 'cushions', parameter: 'back', port: 'B' },
    ],
    paths: [
      { from: 'A', to: 'B', type: 'relief' },
      { from: 'B', to: 'A', type: 'relief' },
      { from: 'C', to: 'A', type: 'oneWay', enabledBy: 'makeUp' },
      { from: 'C', to: 'B', type: 'oneWay', enabledBy: 'makeUp' },
    ],
  },
  symbol: (v) => ({
    shapes: [
      line([-3, -4], [-3, -3], [4, -3]),
      line([-3, 4], [-3, 3], [4, 3]),
      dot(-3, -3),
      dot(-3, 3),
      ...reliefInLine(-3, -3, 3),
      ...reliefInLine(4, 3, -3),
      ...(v.makeUp
        ? [
            dot(4, -3),
            dot(4, 3),
            line([4, -3], [9, -3], [9, -2.8]),
            line([4, 3], [9, 3], [9, 2.8]),
            ...checkInLine([9, 0], [9, -2.8], { spring: v.crackingPressure > 0, size: 0.7 }),
            ...checkInLine([9, 0], [9, 2.8], { spring: v.crackingPressure > 0, size: 0.7 }),
            dot(9, 0),
            line([9, 0], [10, 0]),
          ]
        : []),
    ],
    ports: {
      A: { x: -3, y: -4, side: 'up' },
      B: { x: -3, y: 4, side: 'down' },
      ...(v.makeUp ? { C: { x: 10, y: 0, side: 'right' } as const } : {}),
    },
    box: { x: -5.2, y: -3.5, w: v.makeUp ? 15 : 12.2, h: 7 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure'), show(v.back, 'pressure')],
  model(v) {
    const moveCheck = checkValveMotion(v)
    const spill = portRelief(v)
    /** Coefficients of the ways from C to A and to B. */
    const makeUps = new Float64Array(2)
    const suction = v.makeUp ? pathCoefficient(v.checkFlow, v.checkDrop) : 0
    return {
      idlePorts: v.makeUp ? [] : [C],
      states: stateSpecs(STATE, {
        openingA: { label: 'opening A to B', quantity: 'share', initial: 0, scale: 1 },
        openingB: { label: 'opening B to A', quantity: 'share', initial: 0, scale: 1 },
        suctionA: { label: 'suction to A', quantity: 'share', initial: 0, scale: 1 },
        suctionB: { label: 'suction to B', quantity: 'share', initial: 0, scale: 1 },
      }).slice(0, v.makeUp ? 4 : 2),
      outputs: outputSpecs(OUTPUT, {
        spilled: { label: 'flow A to B', quantity: 'flow' },
        madeUp: { label: 'flow from C', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        spills: {
          label: 'flows from port to port',
          severity: 'info',
          begins: 'opens from port to port',
          ends: 'shuts',
          worst: 'spilled',
        },
        drawing: {
          label: 'makes up oil',
          severity: 'info',
          begins: 'makes up oil',
          ends: 'no longer makes up oil',
          worst: 'madeUp',
        },
      }),
      evaluate(l) {
        l.q[A] = l.q[B] = l.q[C] = 0
        spill.add(l, STATE.openingA, A, B, l.u, INPUT.setting)
        spill.add(l, STATE.openingB, B, A, l.u, INPUT.back)
        if (!v.makeUp) return
        moveCheck(l, STATE.suctionA, C, A)
        moveCheck(l, STATE.suctionB, C, B)
        makeUps[0] = l.x[STATE.suctionA] * suction
        makeUps[1] = l.x[STATE.suctionB] * suction
        addPathFlows(makeUps, MAKE_UP_FROM, MAKE_UP_TO, l.p, l.q)
      },
      observe(l) {
        l.o[OUTPUT.spilled] =
          spill.flow(l.x[STATE.openingA], l.p[A] - l.p[B]) - spill.flow(l.x[STATE.openingB], l.p[B] - l.p[A])
        l.o[OUTPUT.madeUp] = l.q[C]
        l.c[CONDITION.spills] = Math.abs(l.o[OUTPUT.spilled]) - 1e-3 * v.ratedFlow
        l.c[CONDITION.drawing] = v.makeUp ? l.o[OUTPUT.madeUp] - 1e-3 * v.checkFlow : -1
        l.power[Power.heat] = l.p[A] * l.q[A] + l.p[B] * l.q[B] + l.p[C] * l.q[C]
      },
      ways: (l) => [
        { from: A, to: B, flow: l.o[OUTPUT.spilled], element: 'spring' },
        { from: C, to: A, flow: l.o[OUTPUT.spilled] - l.q[A], element: 'check' },
        { from: C, to: B, flow: -l.o[OUTPUT.spilled] - l.q[B], element: 'check' },
      ],
      balances(l) {
        const at = (port: number) => ({ port: port === A ? 'A' : 'B', pressure: l.p[port] })
        const side = (from: number, to: number, setting: number, name: string) =>
          spill.balance(name, at(from), at(to), setting)
        return [
          side(A, B, l.u[INPUT.setting], 'opens from A to B'),
          side(B, A, l.u[INPUT.back], 'opens from B to A'),
        ]
      },
      holds: (l) => [
        heldAtSetting(
          l.p,
          A,
          l.u[INPUT.setting],
          [{ port: B, factor: 1, label: 'behind it' }],
          l.o[OUTPUT.spilled] > 1e-3 * v.ratedFlow,
        ),
        heldAtSetting(
          l.p,
          B,
          l.u[INPUT.back],
          [{ port: A, factor: 1, label: 'behind it' }],
          l.o[OUTPUT.spilled] < -1e-3 * v.ratedFlow,
        ),
      ],
    }
  },
  describeState: (l, v, show) =>
    Math.abs(l.o[OUTPUT.spilled]) > 1e-3 * v.ratedFlow
      ? `Spills ${show(Math.abs(l.o[OUTPUT.spilled]), 'flow')} from ${l.o[OUTPUT.spilled] > 0 ? 'A to B' : 'B to A'}.`
      : l.o[OUTPUT.madeUp] > 1e-3 * v.checkFlow
        ? `Makes up ${show(l.o[OUTPUT.madeUp], 'flow')} from C.`
        : `Shut, with ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')} between its lines.`,
})
