/** What a part does at an instant: what opposes each other in it, and what power it takes. */
import { netOf, type Balance, type WayElement } from '../catalogue/answers'
import { Power, type Show } from '../catalogue/kind'
import { drawSection, type DrawnSection } from '../catalogue/section'
import type { Element } from '../simulate/circuit/elements'
import { valuesInForce } from '../simulate/values-in-force'
import type { Moments } from './moment'
import { waysOf } from './ways'

/** A way of the oil through a part, in the direction of its flow. */
export interface PartWay {
  /** Ports. */
  readonly from: string
  readonly to: string
  /** m³/s */
  readonly flow: number
  /** Pressure difference, Pa. */
  readonly drop: number
  readonly element: WayElement
}
export interface PartAnswer {
  readonly balances: readonly (Balance & { readonly net: number })[]
  /** The ways through it on which oil flows, the largest flow first. */
  readonly ways: readonly PartWay[]
  /** Heat that it makes, W. */
  readonly heat: number
  /** Its inside now, where its kind has a drawing of it. */
  readonly inside?: DrawnSection
  /** Its state in a sentence, in the words of its kind. */
  readonly words?: string
}

/** @param moments shows the instant @returns nothing where the run lacks the part */
export function answerPart(moments: Moments, component: string, show: Show): PartAnswer | undefined {
  const element = moments.element(component)
  if (!element?.resolved) return undefined
  const { model, local, resolved } = element
  const values = valuesInForce(resolved.kind, resolved.values, local.u)
  const section = resolved.kind.section?.(values)
  const balances = model.balances?.(local) ?? []
  return {
    balances: balances.map((balance) => ({ ...balance, net: netOf(balance) })),
    ways: partWays(element),
    heat: local.power[Power.heat],
    ...(section ? { inside: drawSection(section, local, moments.time, show) } : {}),
    words: resolved.kind.describeState?.(local, values, show),
  }
}

/** m³/s: a leak that is listed. */
const ANY_FLOW = 1e-8
function partWays(element: Element): PartWay[] {
  const { portNames, local } = element
  return waysOf(element)
    .filter(({ flow }) => Math.abs(flow) > ANY_FLOW)
    .map(({ from, to, flow, element: what }): PartWay => {
      const [a, b] = flow < 0 ? [to, from] : [from, to]
      return {
        from: portNames[a],
        to: portNames[b],
        flow: Math.abs(flow),
        drop: local.p[a] - local.p[b],
        element: what,
      }
    })
    .sort((a, b) => b.flow - a.flow)
}

/** What makes the pressure difference along a way, in words. */
export const elementText: Readonly<Record<WayElement, string>> = {
  edge: 'edge of the spool',
  seat: 'seat',
  check: 'check valve',
  spring: 'opened against its spring',
  restriction: 'throttled',
  filter: 'filter element',
  line: 'line',
  open: 'open',
  leak: 'leakage',
  pump: 'pumped',
  motor: 'through the motor',
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
