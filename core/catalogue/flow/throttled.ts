/** A single way through, opened so far: what cocks, throttles and couplings share. */
import { blocked } from '../faults'
import { Power, quantity, type Local, type Model, type Restriction, indices, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'

const OUTPUT = indices('flow')

/** A path by its catalogue point. */
export const throttledParameters = (flow: string, drop: string, largestDrop = 300e5) =>
  ({
    ratedFlow: quantity('Flow, fully open', 'flow', flow, 1e-8, 0.5),
    ratedDrop: quantity('at pressure drop', 'pressure', drop, 1e4, largestDrop),
  }) as const
/** What throttles from A to B and back. */
export const throttlesBothWays = [
  { from: 'A', to: 'B', element: 'throttle' },
  { from: 'B', to: 'A', element: 'throttle' },
] as const satisfies readonly Restriction[]
export const throttledFaults = [blocked()] as const

/** path(Δp; q_r, Δp_r) of a catalogue point. */
function sharpEdge({ ratedFlow, ratedDrop }: { readonly ratedFlow: number; readonly ratedDrop: number }) {
  const coefficient = pathCoefficient(ratedFlow, ratedDrop)
  return (drop: number) => coefficient * smoothSquareRoot(drop)
}

/**
 * Q = φ·path(p_0 − p_1; q_r, Δp_r) from the first port to the second.
 * @param opening φ, 0 to 1
 * @param more what belongs to the model besides; its `afterEvaluate` may change the flows
 * @param passes flow m³/s fully open at a pressure drop Pa, where it is no sharp edge
 */
export function throttledModel(
  values: { readonly ratedFlow: number; readonly ratedDrop: number },
  opening: (l: Local) => number,
  more: Partial<Model> & { readonly afterEvaluate?: (l: Local) => void } = {},
  passes = sharpEdge(values),
): Model {
  const { afterEvaluate, ...others } = more
  return {
    outputs: outputSpecs(OUTPUT, {
      flow: { label: 'flow', quantity: 'flow' },
    }),
    ...others,
    evaluate(l) {
      more.evaluate?.(l)
      const flow = opening(l) * passes(l.p[0] - l.p[1])
      l.q[0] = flow
      l.q[1] = -flow
      afterEvaluate?.(l)
    },
    observe(l) {
      l.o[OUTPUT.flow] = l.q[0]
      l.power[Power.heat] = l.q[0] * (l.p[0] - l.p[1])
      more.observe?.(l)
    },
  }
}
