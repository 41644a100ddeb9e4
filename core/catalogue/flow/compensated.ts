/** What the pressure-compensated flow valves with a bypass share: the regulated way and the way of the excess. */
import { heldAtSetting, type Hold } from '../answers'
import { quantity, indices, inputSpecs } from '../kind'
import { compensatedEdge, pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'

export const compensatedParameters = (flow: string) =>
  ({
    flow: quantity('Set flow', 'flow', flow, 0, 0.2),
    leastDrop: quantity('Regulated pressure drop', 'pressure', '7 bar', 1e5, 50e5, {
      note: 'across its metering edge; also the least that it needs',
    }),
    range: quantity('Pressure rise to full opening, excess flow', 'pressure', '1 bar', 1e4, 50e5),
    ratedFlow: quantity('Excess, rated flow', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
  }) as const
export interface CompensatedValues {
  readonly leastDrop: number
  readonly range: number
  readonly ratedFlow: number
  readonly ratedDrop: number
  readonly timeConstant: number
}
export const INPUT = indices('flow')
export const flowInput = inputSpecs(INPUT, {
  flow: { label: 'set flow', quantity: 'flow', rest: 'flow', min: 0, max: 0.2 },
})

/**
 * The metering edge passes q_set·path(min(Δp, m))/path(m), see `compensatedEdge`; the compensator lets the excess out so far as Δp
 * passes m: φ* = ramp((Δp − m)/r), τ·dφ/dt = φ* − φ. Nothing goes back through the edge.
 */
export function compensated(v: CompensatedValues) {
  const wide = pathCoefficient(v.ratedFlow, v.ratedDrop)
  return {
    /** Share of the set flow that its metering edge passes at a drop. */
    edge: compensatedEdge(v.leastDrop),
    rate: (opening: number, drop: number) =>
      (smoothRamp((drop - v.leastDrop) / v.range) - opening) / v.timeConstant,
    excess: (opening: number, drop: number) => (drop > 0 ? opening * wide * smoothSquareRoot(drop) : 0),
  }
}

/** Opening of the way of the excess between which it throttles: shut there is no excess, wide open it keeps nothing. */
const THROTTLES = [0.01, 0.98] as const

/** The inlet of a metering edge over its outlet, while the compensator lets the excess go. @param opening of the way of the excess */
export const compensatedHold = (
  p: Float64Array,
  inlet: number,
  outlet: number,
  drop: number,
  opening: number,
): Hold => ({
  ...heldAtSetting(
    p,
    inlet,
    drop,
    [{ port: outlet, factor: 1, label: 'pressure behind its edge' }],
    opening > THROTTLES[0] && opening < THROTTLES[1],
    'regulated drop',
  ),
  passesOn: true,
})
