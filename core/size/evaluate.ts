/** Values of one card from its inputs. */
import { defaultValue, rangeMessage, type Card, type Variable } from './card'
import { nextInSeries, standardSeries, type SeriesSet } from './series'

/** Something that is wrong with a value, at its variable. */
export interface Remark {
  readonly variable: string
  readonly message: string
}
export interface Evaluation {
  /** SI, by variable; what cannot be computed is not there. */
  readonly values: Readonly<Record<string, number>>
  /** What the formula of a step or choice gives, where a given value stands in its place. */
  readonly computed: Readonly<Record<string, number>>
  /** What keeps values from being computed. */
  readonly problems: readonly Remark[]
  /** Where a result does not hold, or must be thought about. */
  readonly warnings: readonly Remark[]
}

/**
 * Evaluates a card in the order of its variables. A given value of a step or choice stands in its place.
 * @param given SI, by variable; inputs that are not given take their default, or are missing where `missing` names them
 */
export function evaluateCard(
  card: Card,
  given: Readonly<Record<string, number | undefined>>,
  {
    series = standardSeries,
    missing = {},
    only,
  }: {
    series?: SeriesSet
    missing?: Readonly<Record<string, string>>
    /** Evaluates these variables alone: with all that they depend on. */
    only?: ReadonlySet<string>
  } = {},
): Evaluation {
  const values: Record<string, number> = {}
  const computed: Record<string, number> = {}
  const problems: Remark[] = []
  const warnings: Remark[] = []
  for (const [name, variable] of Object.entries(card.variables)) {
    if (only && !only.has(name)) continue
    const set = given[name]
    if (variable.role === 'input') {
      if (set === undefined && name in missing) {
        problems.push({ variable: name, message: missing[name] })
        continue
      }
      const value = set ?? defaultValue(variable)
      const slack = 1e-9 * Math.max(Math.abs(variable.min), Math.abs(variable.max))
      if (!(value >= variable.min - slack && value <= variable.max + slack))
        problems.push({ variable: name, message: rangeMessage(variable) })
      else values[name] = value
      continue
    }
    const found = compute(variable, values, series)
    if (set !== undefined) {
      if (Number.isFinite(set)) values[name] = set
      if ('value' in found) computed[name] = found.value
    } else if ('value' in found) {
      values[name] = found.value
    } else if (found.message) problems.push({ variable: name, message: found.message })
    const value = values[name]
    if (variable.role === 'step' && variable.valid && value !== undefined) {
      const { min = -Infinity, max = Infinity, message } = variable.valid
      if (value < min || value > max) warnings.push({ variable: name, message })
    }
  }
  for (const { when, at, message } of card.warnings)
    if (when.names.every((name) => name in values) && when.evaluate(values))
      warnings.push({ variable: at, message })
  return { values, computed, problems, warnings }
}

/** A step or choice; an empty message where something before it is missing already. */
function compute(
  variable: Exclude<Variable, { role: 'input' }>,
  values: Readonly<Record<string, number>>,
  series: SeriesSet,
): { value: number } | { message: string } {
  const { formula, label } = variable
  if (!formula.names.every((name) => name in values)) return { message: '' }
  const value = formula.evaluate(values)
  if (!Number.isFinite(value))
    return {
      message: `${label} has no value with these inputs: ${formula.text.includes('/') ? 'a divisor is zero, or a root of a negative number is taken' : 'the formula has no real result'}.`,
    }
  if (variable.role === 'step') return { value }
  const list = series[variable.series]
  const chosen = nextInSeries(list.values, value, variable.rounding)
  if (chosen === undefined)
    return {
      message: `No value of the series "${list.label}" (${list.source}) is ${variable.rounding === 'up' ? 'large' : 'small'} enough.`,
    }
  return { value: chosen }
}
