/** What a card gives when its inputs are other ones: over a range of one or two of them, and with a tolerance on each. */
import type { Card, InputVariable } from './card'
import { evaluateCard } from './evaluate'
import type { SizedNode } from './graph'
import type { SeriesSet } from './series'

/** A range of an input, SI. */
export interface Range {
  readonly name: string
  readonly from: number
  readonly to: number
  readonly count: number
}
export interface Sweep {
  readonly x: readonly number[]
  /** Values of the second input; one entry, undefined, where there is none. */
  readonly y: readonly (number | undefined)[]
  /** Result for each y and x, SI; nothing where it cannot be computed. */
  readonly results: readonly (readonly (number | undefined)[])[]
  /** Whether the card warns there of something. */
  readonly warned: readonly (readonly boolean[])[]
}

/** Inputs that can be swept: quantities, not lists of options. */
export const numericInputs = (card: Card): [name: string, variable: InputVariable][] =>
  Object.entries(card.variables).flatMap(([name, v]) =>
    v.role === 'input' && !v.options ? [[name, v] as [string, InputVariable]] : [],
  )

/** Values of inputs, with steps and choices left open; what a person gave stays. */
function fixedOf(node: SizedNode): Record<string, number | undefined> {
  return Object.fromEntries(
    Object.entries(node.card.variables).map(([name, v]) => [
      name,
      v.role === 'input' || node.origins[name]?.type === 'given' ? node.values[name] : undefined,
    ]),
  )
}

/** Evenly spaced values of a range, within what the input may be. */
function valuesOf(card: Card, { name, from, to, count }: Range): number[] {
  const { min, max } = card.variables[name] as InputVariable
  const steps = Math.max(1, Math.min(100, Math.round(count)) - 1)
  return Array.from({ length: steps + 1 }, (_, i) =>
    Math.max(min, Math.min(max, from + ((to - from) * i) / steps)),
  )
}

/** A result over one input, or two. */
export function sweep(
  node: SizedNode,
  result: string,
  first: Range,
  second?: Range,
  series?: SeriesSet,
): Sweep {
  const fixed = fixedOf(node)
  const x = valuesOf(node.card, first)
  const y = second ? valuesOf(node.card, second) : [undefined]
  const found = y.map((b) =>
    x.map((a) =>
      evaluateCard(
        node.card,
        { ...fixed, ...(second ? { [second.name]: b } : {}), [first.name]: a },
        { series },
      ),
    ),
  )
  return {
    x,
    y,
    results: found.map((row) => row.map((e) => e.values[result])),
    warned: found.map((row) => row.map((e) => e.warnings.length > 0)),
  }
}

/** How much of the spread of a result an input causes. */
export interface Contribution {
  readonly name: string
  /** Result with the input at its lower and at its upper end, SI. */
  readonly low: number
  readonly high: number
  /** Part of the spread: of the sum of squares. */
  readonly share: number
}
export interface Spread {
  readonly nominal: number
  /** Root of the sum of squares of the single deviations, SI. */
  readonly likely: number
  /** All deviations at their worst. */
  readonly worst: readonly [low: number, high: number]
  /** The largest first. */
  readonly contributions: readonly Contribution[]
}

/**
 * Spread of a result from tolerances of the inputs, each moved by itself (first order; uncertainty budget of ISO/IEC Guide 98-3).
 * Sizes that were chosen stay as they are, as parts do when a machine is built.
 * @param tolerances plus and minus, as a share of the value of an input
 */
export function spreadOf(
  node: SizedNode,
  result: string,
  tolerances: Readonly<Record<string, number>>,
  series?: SeriesSet,
): Spread | undefined {
  const nominal = node.values[result]
  if (nominal === undefined) return undefined
  const held = Object.fromEntries(
    Object.entries(node.card.variables).map(([name, v]) => [
      name,
      v.role === 'step' ? undefined : node.values[name],
    ]),
  )
  const at = (name: string, value: number) => {
    const { min, max } = node.card.variables[name] as InputVariable
    const inside = Math.max(min, Math.min(max, value))
    return evaluateCard(node.card, { ...held, [name]: inside }, { series }).values[result] ?? nominal
  }
  const moved = Object.entries(tolerances).flatMap(([name, share]) => {
    const value = node.values[name]
    if (!(share > 0) || value === undefined) return []
    return [{ name, low: at(name, value * (1 - share)), high: at(name, value * (1 + share)) }]
  })
  const half = ({ low, high }: { low: number; high: number }) =>
    Math.max(Math.abs(low - nominal), Math.abs(high - nominal))
  const squares = moved.reduce((sum, m) => sum + half(m) ** 2, 0)
  const worst = moved.reduce(
    ([low, high], m) => [
      low + Math.min(0, m.low - nominal, m.high - nominal),
      high + Math.max(0, m.low - nominal, m.high - nominal),
    ],
    [nominal, nominal],
  )
  return {
    nominal,
    likely: Math.sqrt(squares),
    worst: [worst[0], worst[1]],
    contributions: moved
      .map((m) => ({ ...m, share: squares > 0 ? half(m) ** 2 / squares : 0 }))
      .sort((a, b) => b.share - a.share),
  }
}
