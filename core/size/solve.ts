/** Any unknown of a card: the input with which a result takes a wanted value. */
import { defaultValue, rangeMessage, type Card, type InputVariable, type Variable } from './card'
import { evaluateCard } from './evaluate'
import { showQuantity } from '../units/text'
import { standardSeries, type SeriesSet } from './series'
import { inSentence } from './text'

/** Points at which the range of the unknown is searched for a change of sign. */
const POINTS = 240
/** One of so many of them, where the result is smooth. */
const COARSE = 6
/** A root is kept where the result is met this closely, relative: a jump of a series is none. */
const CLOSENESS = 1e-6

export type Solution =
  | { readonly value: number; /** Other values that do it as well, SI. */ readonly others: readonly number[] }
  | { readonly message: string }

/** Points of a range: evenly, or by equal ratios where it spans more than two decades. */
function pointsOf({ min, max }: Pick<InputVariable, 'min' | 'max'>): number[] {
  const at = Array.from({ length: POINTS + 1 }, (_, i) => i / POINTS)
  if (min > 0 && max / min > 100) return at.map((s) => min * (max / min) ** s)
  if (min === 0 && max > 0) return [0, ...at.map((s) => max * 1e-8 * 1e8 ** s)]
  if (min < 0 && max > 0) {
    const half = at.map((s) => 1e-6 * 1e6 ** s)
    return [...half.map((s) => min * s).reverse(), 0, ...half.map((s) => max * s)]
  }
  return at.map((s) => min + (max - min) * s)
}

/** A root of f in [a, b], where its signs differ, by bisection to the last bits of a double. */
function bisect(f: (x: number) => number, a: number, b: number): number {
  const rising = f(b) > 0
  for (;;) {
    const middle = a + (b - a) / 2
    if (middle === a || middle === b) return middle
    if (f(middle) > 0 === rising) b = middle
    else a = middle
  }
}

/** Roots of f between points where its sign changes, or at them. */
function rootsOf(
  f: (x: number) => number,
  points: readonly number[],
  values = points.map((x) => f(x)),
): number[] {
  const roots: number[] = []
  for (let i = 0; i < points.length; i++) {
    if (values[i] === 0) roots.push(points[i])
    else if (i && values[i - 1] * values[i] < 0) roots.push(bisect(f, points[i - 1], points[i]))
  }
  return roots
}

/** It is a size that is made, and not a setting that can be anything. */
const isRounded = (variable: Variable, series: SeriesSet) =>
  variable.role === 'choice' && !series[variable.series].continuous

/** What a variable depends on, itself included, as far as nothing is given in the place of it. */
export function dependencies(
  card: Card,
  result: string,
  given: Readonly<Record<string, number | undefined>>,
): Set<string> {
  const found = new Set<string>()
  const visit = (name: string) => {
    if (found.has(name)) return
    found.add(name)
    const variable = card.variables[name]
    if (variable.role !== 'input' && given[name] === undefined) variable.formula.names.forEach(visit)
  }
  visit(result)
  return found
}

/**
 * The value of an input with which a step takes a wanted value. A choice is met by what it is chosen from: a bore of 80 mm is
 * a needed bore of 80 mm.
 * @param given SI, by variable; the wanted variable and the unknown are not read from it
 * @returns the value nearest to the input's present one, or in words why there is none
 */
export function solveCard(
  card: Card,
  given: Readonly<Record<string, number | undefined>>,
  wanted: { readonly name: string; readonly value: number },
  unknown: string,
  series: SeriesSet = standardSeries,
): Solution {
  const variable = card.variables[unknown]
  const target = card.variables[wanted.name]
  if (!variable || variable.role !== 'input')
    return { message: `"${unknown}" is not an input of the card ${card.id}.` }
  if (!target || target.role === 'input')
    return { message: `"${wanted.name}" is not a result of the card ${card.id}.` }
  const { [unknown]: present = defaultValue(variable), ...others } = given
  const rest = { ...others, [wanted.name]: undefined }
  const only = dependencies(card, wanted.name, rest)
  const resultAt = (x: number, held: Readonly<Record<string, number>> = {}): number => {
    const { values } = evaluateCard(
      card,
      { ...rest, ...held, [unknown]: x },
      {
        series,
        only,
        continuous: true,
      },
    )
    if (target.role === 'step') return values[wanted.name] ?? NaN
    return target.formula.names.every((name) => name in values) ? target.formula.evaluate(values) : NaN
  }
  const scale = Math.max(Math.abs(wanted.value), 1e-12)
  const difference = (x: number, held?: Readonly<Record<string, number>>) => resultAt(x, held) - wanted.value
  const close = (x: number) => Math.abs(difference(x)) <= CLOSENESS * scale
  if (variable.options) {
    const fits = Object.values(variable.options).find(({ value }) => close(value))
    return fits
      ? { value: fits.value, others: [] }
      : { message: `No option of "${variable.label}" gives this ${inSentence(target.label)}.` }
  }
  const points = pointsOf(variable)
  const differences = points.map((x) => difference(x))
  const roots = rootsOf(difference, points, differences).filter(close)
  // a result behind a rounded size jumps from size to size: with each size held, it is looked for where that size is the right one
  for (const name of only) {
    const size = card.variables[name]
    if (size.role !== 'choice' || name === wanted.name || rest[name] !== undefined) continue
    if (series[size.series].continuous) continue
    if (!dependencies(card, name, rest).has(unknown)) continue
    for (const value of series[size.series].values) {
      const held = (x: number) => difference(x, { [name]: value })
      for (const root of rootsOf(
        held,
        points.filter((_, i) => i % COARSE === 0),
      ))
        if (close(root) && !roots.some((r) => Math.abs(r - root) <= 1e-9 * Math.abs(root))) roots.push(root)
    }
  }
  if (roots.length) {
    const sorted = [...roots].sort((a, b) => Math.abs(a - present) - Math.abs(b - present))
    return { value: sorted[0], others: sorted.slice(1).sort((a, b) => a - b) }
  }
  const reached = differences.filter(Number.isFinite).map((d) => d + wanted.value)
  if (!reached.length)
    return { message: `${target.label} cannot be computed with any ${inSentence(variable.label)}.` }
  const [low, high] = [Math.min(...reached), Math.max(...reached)]
  if (high - low <= 1e-9 * Math.max(Math.abs(low), Math.abs(high)))
    return { message: `${target.label} does not depend on ${inSentence(variable.label)}.` }
  const show = (si: number) => showQuantity(si, target.quantity, 'metric')
  const sizes = [...only].filter(
    (name) =>
      isRounded(card.variables[name], series) &&
      name !== wanted.name &&
      rest[name] === undefined &&
      dependencies(card, name, rest).has(unknown),
  )
  const following = sizes.length
    ? ` The ${sizes.map((name) => inSentence(card.variables[name].label)).join(' and the ')} follows: give it, to solve with it as it is.`
    : ''
  return {
    message: `No ${inSentence(variable.label)} gives this ${inSentence(target.label)}: ${rangeMessage(variable)} There it lies between ${show(low)} and ${show(high)}.${following}`,
  }
}
