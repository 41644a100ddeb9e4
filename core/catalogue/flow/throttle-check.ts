import { blocked } from '../faults'
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
import { circleArea, pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { line } from '../symbol'
import { adjustable, checkInLine, dot, restriction } from '../symbol-elements'
import { checkParameters, checkValveMotion } from '../directional/check'

const STATE = indices('checkOpening')
const OUTPUT = indices('flow')
const CONDITION = indices('overPressure')
const INPUT = indices('opening')

const [A, B] = [0, 1]

/** A sharp-edged throttle both ways, and a check A→B beside it. Oil from B to A is throttled. */
export const throttleCheck = defineKind({
  name: 'throttle-check',
  label: 'Throttle-check valve',
  family: 'flow',
  searchTerms: ['throttle check', 'speed control', 'flow control', 'one-way restrictor', 'meter out', 'tcv'],
  designationLetter: 'V',
  description:
    'Throttles the oil from B to A; its check lets it pass freely from A to B. In a rod line with B at the cylinder it meters out.',
  guide: {
    acts: 'From B to A the edge throttles; from A to B the check opens and passes freely.',
    fails:
      'Flow follows the pressure drop and the temperature: the speed changes with the load and as the oil warms.',
    mistakes:
      'Turned the wrong way it throttles the stroke that should be free; metering in with a load that runs ahead; rod-side pressure forgotten where it meters out.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet of the free flow' },
    { name: 'B', domain: 'oil', role: 'outlet of the free flow' },
  ],
  parameters: {
    throttle: quantity('Throttle, as orifice diameter', 'length', '1.5 mm', 0, 0.1, {
      note: '0 is screwed shut',
    }),
    ...checkParameters('Check'),
    maxPressure: quantity('Maximum pressure', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded',
    }),
  },
  inputs: inputSpecs(INPUT, {
    opening: { label: 'throttle opening', quantity: 'share', rest: 1, min: 0, max: 1 },
  }),
  faults: [blocked('throttle and check blocked')],
  traits: {
    sizingTargets: { orifice: 'throttle' },
    ratedPressure: 'maxPressure',
    restrictions: [{ from: 'B', to: 'A', element: 'throttle' }],
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  safetyNote: 'Metering out on the rod side can raise the rod-side pressure above the pump pressure.',
  symbol: (values) => ({
    shapes: [
      line([0, 4], [0, -4]),
      ...restriction(0, 0, 'sharp'),
      ...adjustable(0, 0, 1.5),
      line([0, 3], [3, 3], [3, 2.4]),
      ...checkInLine([3, 2.4], [3, -2.4], { spring: values.crackingPressure > 0 }),
      line([3, -2.4], [3, -3], [0, -3]),
      dot(0, 3),
      dot(0, -3),
    ],
    ports: { A: { x: 0, y: 4, side: 'down' }, B: { x: 0, y: -4, side: 'up' } },
    box: { x: -1.6, y: -3.2, w: 5.8, h: 6.4 },
  }),
  caption: (values, show) => [`⌀ ${show(values.throttle, 'length')}`],
  model(values, fluid) {
    const moveCheck = checkValveMotion(values)
    const area = circleArea(values.throttle)
    const free = pathCoefficient(values.checkFlow, values.checkDrop)
    return {
      states: stateSpecs(STATE, {
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const flow =
          (l.u[INPUT.opening] * area * fluid.orificeFactor + l.x[STATE.checkOpening] * free) *
          smoothSquareRoot(drop)
        moveCheck(l, STATE.checkOpening, A, B)
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.c[CONDITION.overPressure] = Math.max(l.p[A], l.p[B]) - values.maxPressure
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState(l, _values, show) {
    const flow = show(Math.abs(l.q[A]), 'flow')
    const drop = show(Math.abs(l.p[A] - l.p[B]), 'pressure')
    return l.x[STATE.checkOpening] > 0.01
      ? `Its check is open: ${flow} pass freely at ${drop}.`
      : `Throttles ${flow} at a drop of ${drop}.`
  },
})
