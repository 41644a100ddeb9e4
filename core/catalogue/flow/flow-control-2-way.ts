import { pressureBalance } from '../answers'
import { blocked, drifted } from '../faults'
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
import { compensatedEdge, pathCoefficient, smoothSquareRoot, SHORT_FLOW } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { arrow, arrowHead, dashed, line, rectangle, type Shape } from '../symbol'
import { adjustable, checkInLine, dot, enclosureLine, restriction, spring } from '../symbol-elements'

const STATE = indices('checkOpening')
const OUTPUT = indices('passed')
const CONDITION = indices('short')
const INPUT = indices('flow')

const [A, B] = [0, 1]

/** In full: a compensator, open at rest, that keeps the pressure drop over the adjustable throttle behind it; both in one body. */
const inFull: readonly Shape[] = [
  enclosureLine(-2.8, -3.2, 6.4, 6.6),
  line([0, 4], [0, 2.9]),
  rectangle(-1.25, 0.4, 2.5, 2.5),
  ...arrow([0, 2.9], [0, 0.4]),
  line([0, 0.4], [0, -4]),
  spring(1.25, 1.2, 1.5, 0.8),
  dashed([0, -0.1], [-2.1, -0.1], [-2.1, 1.65], [-1.25, 1.65]),
  dashed([0, -2.7], [3.1, -2.7], [3.1, 2.2], [1.25, 2.2]),
  ...restriction(0, -1.4, 'sharp'),
  ...adjustable(0, -1.4, 1.2),
]
const simplified: readonly Shape[] = [
  rectangle(-2, -2, 4, 4),
  line([0, 4], [0, -4]),
  ...restriction(0, 0, 'sharp'),
  arrowHead(0, -1.7, 0, -1, 0.7),
  ...adjustable(0, 0, 1.6),
]

/**
 * Pressure-compensated: Q = q_set·path(min(Δp, Δp_min))/path(Δp_min), the corner rounded by a parabola of half-width 0.02, so the set
 * flow holds above the least pressure drop and the valve is a fixed orifice below it. Backwards only through its check.
 */
export const flowControl2Way = defineKind({
  name: 'flow-control-2-way',
  label: 'Flow control valve, pressure-compensated, two-way',
  family: 'flow',
  searchTerms: ['flow control', 'compensated flow', 'speed control', 'flow regulator', 'fcv'],
  designationLetter: 'V',
  description:
    'Keeps the flow from A to B at its setting whatever the pressures, above a least pressure drop.',
  guide: {
    acts: 'A compensator keeps the drop over its edge constant; above a least drop the flow stays as set.',
    fails:
      'Below the least drop it is a plain throttle; its compensator starts open, so that the load jumps as flow begins.',
    mistakes:
      'With a fixed pump the rest goes over the relief: count its heat; fitted in bypass and expected to hold force.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    flow: quantity('Set flow', 'flow', '10 L/min', 0, 0.2),
    leastDrop: quantity('Minimum pressure drop', 'pressure', '8 bar', 1e5, 50e5),
    bypass: { type: 'switch', label: 'Check valve for the way back', default: true },
    ...checkParameters('Check'),
  },
  inputs: inputSpecs(INPUT, {
    flow: { label: 'set flow', quantity: 'flow', rest: 'flow', min: 0, max: 0.2 },
  }),
  faults: [drifted(INPUT.flow), blocked()],
  traits: {
    sizingTargets: { flowSetting: 'flow' },
    restrictions: [{ from: 'A', to: 'B', element: 'throttle' }],
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  forms: true,
  symbol(values, form) {
    const detailed = form === 'detailed'
    // the check goes beside the body
    const x = detailed ? 5.2 : 4
    return {
      shapes: [
        ...(detailed ? inFull : simplified),
        ...(values.bypass
          ? [
              line([0, 3.5], [x, 3.5], [x, 2.4]),
              line([x, -2.4], [x, -3.5], [0, -3.5]),
              // free the way back, from B to A
              ...checkInLine([x, -2.4], [x, 2.4], { spring: values.crackingPressure > 0 }),
              dot(0, -3.5),
              dot(0, 3.5),
            ]
          : []),
      ],
      ports: { A: { x: 0, y: 4, side: 'down' }, B: { x: 0, y: -4, side: 'up' } },
      box: {
        x: detailed ? -2.8 : -2,
        y: -3.5,
        w: (values.bypass ? x + 1.2 : detailed ? 3.6 : 2) + (detailed ? 2.8 : 2),
        h: 7,
      },
    }
  },
  caption: (values, show) => [show(values.flow, 'flow')],
  model(values) {
    const moveCheck = checkValveMotion(values)
    const edge = compensatedEdge(values.leastDrop)
    const back = values.bypass ? pathCoefficient(values.checkFlow, values.checkDrop) : 0
    return {
      states: stateSpecs(STATE, {
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        passed: { label: 'flow A to B', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        short: {
          label: 'pressure drop too low to keep its flow',
          severity: 'info',
          begins: 'no longer keeps its flow: the pressure drop is too low',
          ends: 'keeps its flow again',
        },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        moveCheck(l, STATE.checkOpening, B, A)
        const flow = l.u[INPUT.flow] * edge(drop) + l.x[STATE.checkOpening] * back * smoothSquareRoot(drop)
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        const drop = l.p[A] - l.p[B]
        l.o[OUTPUT.passed] = l.q[A]
        l.c[CONDITION.short] = drop > 0 ? (1 - SHORT_FLOW) * l.u[INPUT.flow] - l.q[A] : -1
        l.power[Power.heat] = l.q[A] * drop
      },
      ways: (l) => [
        {
          from: A,
          to: B,
          flow: l.q[A],
          element: 'restriction',
          keepsFlow: l.p[A] - l.p[B] > values.leastDrop,
        },
      ],
      balances: (l) => [
        pressureBalance(
          'keeps its flow',
          { 'pressure at A': l.p[A] },
          { 'pressure at B': l.p[B], spring: values.leastDrop },
        ),
      ],
    }
  },
  describeState: (l, values, show) =>
    l.x[STATE.checkOpening] > 0.01
      ? `Its check is open: ${show(-l.q[A], 'flow')} go back.`
      : l.p[A] - l.p[B] < values.leastDrop
        ? `Passes ${show(l.q[A], 'flow')}: too little pressure drop for its ${show(l.u[INPUT.flow], 'flow')}.`
        : `Keeps ${show(l.q[A], 'flow')}, throttling ${show(l.p[A] - l.p[B], 'pressure')} away.`,
})
