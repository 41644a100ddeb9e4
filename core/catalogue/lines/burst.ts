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
import { circleArea, smoothSquareRoot } from '../flow-laws'
import { line, polygon } from '../symbol'

const STATE = indices('spilled')
const OUTPUT = indices('flow')
const CONDITION = indices('losing')
const INPUT = indices('open')

const P = 0

/**
 * A place where a line can break: its oil goes to the surroundings, not to the tank, through a hole that a schedule opens;
 * Q = C_d·A·√(2/ρ)·√p as a sharp edge.
 */
export const burst = defineKind({
  name: 'burst',
  label: 'Burst or leak to the outside',
  family: 'lines',
  searchTerms: ['burst', 'leak', 'pipe break', 'spill'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  description: 'A hole in a line through which oil is lost from the moment a schedule opens it.',
  ports: [{ name: 'P', domain: 'oil', role: 'line that breaks' }],
  parameters: {
    hole: quantity('Leak, as orifice diameter', 'length', '4 mm', 1e-5, 0.1, { note: 'when wholly open' }),
  },
  inputs: inputSpecs(INPUT, {
    open: { label: 'leak', quantity: 'share', rest: 0, min: 0, max: 1 },
  }),
  safetyNote:
    'Oil under pressure goes through the skin: never look for a leak by hand. Stop the pump, bleed the line, then look.',
  symbol: () => ({
    shapes: [
      line([0, 3], [0, 0.8]),
      polygon(
        'none',
        [0, 0.8],
        [-1.4, 0.4],
        [-0.5, -0.1],
        [-1, -1.4],
        [0, -0.5],
        [1, -1.4],
        [0.5, -0.1],
        [1.4, 0.4],
      ),
    ],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -1.4, y: -1.4, w: 2.8, h: 2.2 },
  }),
  caption: (v, show) => [`⌀ ${show(v.hole, 'length')}`],
  model(v, fluid) {
    const area = circleArea(v.hole)
    return {
      states: stateSpecs(STATE, {
        spilled: {
          label: 'oil lost',
          quantity: 'volume',
          initial: 0,
          isCounter: true,
          scale: 1e-4, // it is nowhere else any more
          storesOil: true,
        },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'oil lost', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        losing: { label: 'external leakage', severity: 'danger', worst: 'flow' },
      }),
      evaluate(l) {
        const flow = l.u[INPUT.open] * area * fluid.orificeFactor * smoothSquareRoot(l.p[P])
        // nothing comes back in
        l.q[P] = flow > 0 ? flow : 0
        l.dx[STATE.spilled] = l.q[P]
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[P]
        l.c[CONDITION.losing] = l.q[P] - 1e-8
        l.power[Power.heat] = l.p[P] * l.q[P]
      },
    }
  },
  describeState: (l, _v, show) =>
    l.u[INPUT.open] > 0
      ? `Loses ${show(l.o[OUTPUT.flow], 'flow')} to the outside; ${show(l.x[STATE.spilled], 'volume')} are gone.`
      : 'Whole.',
})
