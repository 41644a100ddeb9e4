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
import { checkParameters, checkValveFlow } from '../directional/check'
import { adjustable, arrowHead, circle, dashed, line, rectangle, spring, type Shape } from '../symbol'

const STATE = indices('checkOpening')
const OUTPUT = indices('passed')
const CONDITION = indices('short')
const INPUT = indices('flow')

const [A, B] = [0, 1]
/** The pressure compensator before the metering edge, with its spring and its two pilot lines. */
const hydrostat: readonly Shape[] = [
  rectangle(-2, 2, 2.6, 1.3),
  spring(0.6, 2.65, 1.1, 0.8),
  dashed([0, 1.9], [-2.6, 1.9], [-2.6, 2.65], [-2, 2.65]),
  dashed([0, -2.4], [2.4, -2.4], [2.4, 2.65], [1.7, 2.65]),
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
    restrictions: [{ from: 'A', to: 'B', element: 'throttle' }],
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  forms: true,
  symbol: (values, form) => ({
    shapes: [
      rectangle(-2, -2, 4, 4),
      line([0, 4], [0, -4]),
      ...(form === 'detailed' ? hydrostat : []),
      line([-0.9, -0.6], [-0.3, 0], [-0.9, 0.6]),
      line([0.9, -0.6], [0.3, 0], [0.9, 0.6]),
      arrowHead(0, -1.7, 0, -1, 0.7),
      ...adjustable(0, 0, 1.6),
      ...(values.bypass
        ? [
            line([0, 3.4], [4, 3.4], [4, 0.75]),
            circle(4, 0, 0.75),
            line([2.95, -0.05], [4, -1.1], [5.05, -0.05]),
            line([4, -1.1], [4, -3.4], [0, -3.4]),
            circle(0, -3.4, 0.25, 'ink'),
            circle(0, 3.4, 0.25, 'ink'),
          ]
        : []),
    ],
    ports: { A: { x: 0, y: 4, side: 'down' }, B: { x: 0, y: -4, side: 'up' } },
    box: { x: -2, y: -3.5, w: values.bypass ? 7.2 : 4, h: 7 },
  }),
  caption: (values, show) => [show(values.flow, 'flow')],
  model(values) {
    const checkRate = checkValveFlow(values)
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
        short: { label: 'pressure drop too low to keep its flow', severity: 'info' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        l.dx[STATE.checkOpening] = checkRate(-drop, l.x[STATE.checkOpening])
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
    }
  },
  describeState: (l, values, show) =>
    l.x[STATE.checkOpening] > 0.01
      ? `Its check is open: ${show(-l.q[A], 'flow')} go back.`
      : l.p[A] - l.p[B] < values.leastDrop
        ? `Passes ${show(l.q[A], 'flow')}: too little pressure drop for its ${show(l.u[INPUT.flow], 'flow')}.`
        : `Keeps ${show(l.q[A], 'flow')}, throttling ${show(l.p[A] - l.p[B], 'pressure')} away.`,
})
