/** What filters and strainers share: a laminar element (Darcy), Q = (q_r/Δp_r)·(ν_ref/ν)·(1 − clogging)·Δp. */
import type { Fluid } from '../../fluid/fluid'
import { quantity } from '../kind'
import { line, type Shape } from '../symbol'
import { conditioningBody, DIAMOND } from '../symbol-elements'

/** @param flow and drop of the clean element */
export const elementParameters = (flow: string, drop: string) =>
  ({
    ratedFlow: quantity('Flow, clean element', 'flow', flow, 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', drop, 1e2, 20e5, { note: 'at 46 mm²/s' }),
    clogging: quantity('Clogging', 'share', '0 %', 0, 0.99, {
      note: 'share of the element that no longer passes oil',
    }),
  }) as const

export function elementFlow(
  v: { readonly ratedFlow: number; readonly ratedDrop: number; readonly clogging: number },
  fluid: Fluid,
): (drop: number) => number {
  const clean = (v.ratedFlow / v.ratedDrop) * (1 - v.clogging)
  return (drop) => clean * fluid.leakageFactor * drop
}

export const elementShapes = (): Shape[] => [
  ...conditioningBody(),
  { ...line([0, -DIAMOND], [0, DIAMOND]), dash: 'pilot' },
]
