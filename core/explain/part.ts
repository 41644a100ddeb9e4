/** What a part does at an instant: what opposes each other in it, and what power it takes. */
import { netOf, type Balance } from '../catalogue/answers'
import { Power, type Show } from '../catalogue/kind'
import { drawSection, type DrawnSection } from '../catalogue/section'
import type { Moments } from './moment'

export interface PartAnswer {
  readonly balances: readonly (Balance & { readonly net: number })[]
  /** Heat that it makes, W. */
  readonly heat: number
  /** Its inside now, where its kind has a drawing of it. */
  readonly inside?: DrawnSection
  /** Its state in a sentence, as the kind tells it. */
  readonly words?: string
}

/** @param moments shows the instant @returns nothing where the run lacks the part */
export function answerPart(moments: Moments, component: string, show: Show): PartAnswer | undefined {
  const element = moments.element(component)
  if (!element?.resolved) return undefined
  const { model, local, resolved } = element
  const section = resolved.kind.section?.(resolved.values)
  const balances = model.balances?.(local) ?? []
  return {
    balances: balances.map((balance) => ({ ...balance, net: netOf(balance) })),
    heat: local.power[Power.heat],
    ...(section ? { inside: drawSection(section, local, moments.time, show) } : {}),
    words: resolved.kind.describeState?.(local, resolved.values, show),
  }
}

/** A difference below this share of what pushes is none. */
const IN_BALANCE = 0.005

/** How far a balance is from changing, in words: "36 bar to go until it opens". */
export function balanceText(
  { name, net, quantity, pushing }: Balance & { readonly net: number },
  show: Show,
): string {
  const pushes = pushing.reduce((sum, { value }) => sum + Math.abs(value), 0)
  if (Math.abs(net) < IN_BALANCE * pushes) return 'It is in balance.'
  const far = show(Math.abs(net), quantity)
  return net > 0 ? `It ${name}: ${far} more than what opposes.` : `${far} to go until it ${name}.`
}
