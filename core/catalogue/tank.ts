/** The sheet has up to two tanks; what stands in or on one says in which. */
import type { ChoiceParameter } from './kind'

type Tank = 'first' | 'second'

export const tankParameter = (note?: string) => {
  const choices = { first: 'first tank', second: 'second tank' } as const
  const parameter = { type: 'choice', label: 'Tank', default: 'first', choices, note } as const
  return parameter satisfies ChoiceParameter
}
/** Its place among the tanks of the fluid. */
export const tankIndex = (v: { readonly tank: Tank }) => (v.tank === 'first' ? 0 : 1)
