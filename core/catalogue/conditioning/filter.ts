import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { circle, line, polygon } from '../symbol'

const OUTPUT = indices('drop', 'bypassFlow')
const CONDITION = indices('clogged', 'bypassing')

const [A, B] = [0, 1]
/** The bypass is rated to pass the filter's flow at this drop above its setting, Pa. */
const BYPASS_RATED_DROP = 1e5

/**
 * Filter element, laminar (Darcy): Q = (q_r/Δp_r)·(ν_ref/ν)·(1 − clogging)·Δp; beside it a bypass
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
    ratedFlow: quantity('Flow, clean element', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '0.4 bar', 1e3, 20e5, {
      note: 'at 46 mm²/s',
    }),
    clogging: quantity('Clogging', 'share', '0 %', 0, 0.99, {
      note: 'share of the element that no longer passes oil',
    }),
    bypass: { type: 'switch', label: 'Bypass valve', default: true },
    bypassPressure: quantity('Bypass cracking pressure', 'pressure', '2 bar', 1e4, 20e5),
    indicatorPressure: quantity('Clogging indicator setting', 'pressure', '1.5 bar', 1e4, 20e5, {
      note: 'reported when exceeded',
    }),
  },
  faults: [blocked()],
  traits: {
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    filters: { from: 'A', to: 'B', bypass: 'bypass' },
    paths: [{ from: 'A', to: 'B', type: 'open' }],
  },
  symbol: (values) => ({
    shapes: [
      line([-3, 0], [-2, 0]),
      line([2, 0], [3, 0]),
      polygon('paper', [-2, 0], [0, -2], [2, 0], [0, 2]),
      {
        shape: 'line',
        points: [
          [0, -2],
          [0, 2],
        ],
        dash: 'pilot',
      },
      ...(values.bypass
        ? [
            line([-2.5, 0], [-2.5, -3], [-0.5, -3]),
            line([0.1, -3.7], [-0.6, -3], [0.1, -2.3]),
            circle(0, -3, 0.45),
            line([0.45, -3], [2.5, -3], [2.5, 0]),
          ]
        : []),
    ],
    ports: { A: { x: -3, y: 0, side: 'left' }, B: { x: 3, y: 0, side: 'right' } },
    box: { x: -2.5, y: values.bypass ? -3.7 : -2, w: 5, h: values.bypass ? 5.7 : 4 },
  }),
  model(values, fluid) {
    const clean = (values.ratedFlow / values.ratedDrop) * (1 - values.clogging)
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
        const flow = clean * fluid.leakageFactor * drop + past
        l.q[A] = flow
        l.q[B] = -flow
      },
      observe(l) {
        const drop = l.p[A] - l.p[B]
        l.o[OUTPUT.drop] = drop
        l.o[OUTPUT.bypassFlow] = l.q[A] - clean * fluid.leakageFactor * drop
        l.c[CONDITION.clogged] = drop - values.indicatorPressure
        l.c[CONDITION.bypassing] = l.o[OUTPUT.bypassFlow] - 1e-3 * values.ratedFlow
        l.power[Power.heat] = l.q[A] * drop
      },
    }
  },
  describeState: (l, values, show) =>
    `Passes ${show(l.q[A], 'flow')} at a drop of ${show(l.o[OUTPUT.drop], 'pressure')}${l.o[OUTPUT.bypassFlow] > 1e-3 * values.ratedFlow ? ', its bypass open' : ''}.`,
})
