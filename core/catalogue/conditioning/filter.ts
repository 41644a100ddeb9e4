import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { elementFlow, elementParameters, elementShapes } from './element'
import { circle, line, rectangle, type Shape } from '../symbol'
import { DIAMOND, checkInLine, dot } from '../symbol-elements'

const OUTPUT = indices('drop', 'bypassFlow')
const CONDITION = indices('clogged', 'bypassing')

const [A, B] = [0, 1]
/** The bypass is rated to pass the filter's flow at this drop above its setting, Pa. */
const BYPASS_RATED_DROP = 1e5

/** Clogging indicators: a window, or a switch for the control. */
const indicatorShapes: Readonly<Record<'none' | 'visual' | 'electric', readonly Shape[]>> = {
  none: [],
  visual: [
    line([0, DIAMOND], [0, 3.2]),
    circle(0, 3.9, 0.7),
    line([-0.5, 3.4], [0.5, 4.4]),
    line([-0.5, 4.4], [0.5, 3.4]),
  ],
  electric: [
    line([0, DIAMOND], [0, 3.2]),
    rectangle(-1.2, 3.2, 2.4, 1.5),
    line([-0.9, 4.2], [-0.4, 4.2], [0.4, 3.6]),
    line([0.4, 4.2], [0.9, 4.2]),
  ],
}

/**
 * A laminar element (element.ts), beside it a bypass
 * that opens over 0.5 bar from its setting, A to B only.
 */
export const filter = defineKind({
  name: 'filter',
  label: 'Filter',
  family: 'conditioning',
  searchTerms: ['return filter', 'pressure filter', 'strainer', 'flt'],
  designationLetter: 'Z',
  description: 'Holds back dirt. The finer and dirtier it is, the larger its pressure drop.',
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
  ],
  parameters: {
    ...elementParameters('60 L/min', '0.4 bar'),
    bypass: { type: 'switch', label: 'Bypass valve', default: true },
    bypassPressure: quantity('Bypass cracking pressure', 'pressure', '2 bar', 1e4, 20e5),
    indicator: {
      type: 'choice',
      label: 'Clogging indicator',
      default: 'visual',
      choices: { none: 'none', visual: 'visual', electric: 'electric switch' },
    },
    indicatorPressure: quantity('Clogging indicator setting', 'pressure', '1.5 bar', 1e4, 20e5, {
      note: 'reported when exceeded',
    }),
  },
  faults: [blocked()],
  traits: {
    sizingTargets: { filterFlow: 'ratedFlow' },
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    filters: { from: 'A', to: 'B', bypass: 'bypass' },
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  symbol: (values) => ({
    shapes: [
      ...elementShapes(),
      ...(values.bypass
        ? [
            line([-3.4, 0], [-3.4, -3.8], [-2, -3.8]),
            ...checkInLine([-2, -3.8], [2, -3.8], { spring: true, size: 0.8 }),
            line([2, -3.8], [3.4, -3.8], [3.4, 0]),
            dot(-3.4, 0),
            dot(3.4, 0),
          ]
        : []),
      ...indicatorShapes[values.indicator],
    ],
    ports: { A: { x: -4, y: 0, side: 'left' }, B: { x: 4, y: 0, side: 'right' } },
    box: {
      x: -3,
      y: values.bypass ? -4.6 : -3,
      w: 6,
      h: (values.bypass ? 4.6 : 3) + (values.indicator === 'none' ? 3 : 4.8),
    },
  }),
  model(values, fluid) {
    const passed = elementFlow(values, fluid)
    const bypass = values.bypass ? pathCoefficient(values.ratedFlow, BYPASS_RATED_DROP) : 0
    return {
      outputs: outputSpecs(OUTPUT, {
        drop: { label: 'pressure drop', quantity: 'pressure' },
        bypassFlow: { label: 'bypass flow', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        clogged: { label: 'clogging indicator shows', severity: 'warning', worst: 'drop' },
        bypassing: { label: 'bypass open: oil goes unfiltered', severity: 'warning', worst: 'bypassFlow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const past = smoothRamp((drop - values.bypassPressure) / 0.5e5) * bypass * smoothSquareRoot(drop)
        const flow = passed(drop) + past
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        const drop = l.p[A] - l.p[B]
        l.o[OUTPUT.drop] = drop
        l.o[OUTPUT.bypassFlow] = l.q[A] - passed(drop)
        l.c[CONDITION.clogged] = values.indicator === 'none' ? -1 : drop - values.indicatorPressure
        l.c[CONDITION.bypassing] = l.o[OUTPUT.bypassFlow] - 1e-3 * values.ratedFlow
        l.power[Power.heat] = l.q[A] * drop
      },
    }
  },
  describeState: (l, values, show) =>
    `Passes ${show(l.q[A], 'flow')} at a drop of ${show(l.o[OUTPUT.drop], 'pressure')}${l.o[OUTPUT.bypassFlow] > 1e-3 * values.ratedFlow ? ', its bypass open' : ''}.`,
})
