/** Values of one card from its inputs. */
import { defaultValue, rangeProblem, type Card, type Severity, type Variable } from './card'
import { nextInSeries, standardSeries, type SeriesSet } from './series'

/** Something that is wrong with a value, at its variable. */
export interface Remark {
  readonly variable: string
  readonly message: string
}
/** What must be thought about, or must not be built so. */
export interface Warned extends Remark {
  readonly severity: Severity
}
export interface Evaluation {
  /** SI, by variable; what cannot be computed is not there. */
  readonly values: Readonly<Record<string, number>>
  /** What the formula of a step or choice gives, where a given value stands in its place. */
  readonly computed: Readonly<Record<string, number>>
  /** What a choice was rounded from, SI, by variable. */
  readonly unrounded: Readonly<Record<string, number>>
  /** What keeps values from being computed. */
  readonly problems: readonly Remark[]
  /** Where a result does not hold, or must be thought about. */
  readonly warnings: readonly Warned[]
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
    continuous = false,
  }: {
    series?: SeriesSet
    missing?: Readonly<Record<string, string>>
    /** Evaluates these variables alone: with all that they depend on. */
    only?: ReadonlySet<string>
    /** Settings are not rounded to their series. */
    continuous?: boolean
  } = {},
): Evaluation {
  const values: Record<string, number> = {}
  const computed: Record<string, number> = {}
  const unrounded: Record<string, number> = {}
  const problems: Remark[] = []
  const warnings: Warned[] = []
  // a relation is looked at as soon as all that it reads is there
  const relations = new Set(card.relations)
  const dropWhatContradicts = () => {
    for (const each of relations) {
      if (!each.holds.names.every((name) => name in values)) continue
      relations.delete(each)
      if (each.holds.evaluate(values)) continue
      problems.push({ variable: each.at, message: each.message })
      delete values[each.at]
    }
  }
  for (const [name, variable] of Object.entries(card.variables)) {
    if (only && !only.has(name)) continue
    const set = given[name]
    if (variable.role === 'input') {
      if (set === undefined && name in missing) {
        problems.push({ variable: name, message: missing[name] })
        continue
      }
      const value = set ?? defaultValue(variable)
      const message = Number.isNaN(value) ? `${variable.label} has no value.` : rangeProblem(variable, value)
      if (message) problems.push({ variable: name, message })
      else {
        values[name] = value
        dropWhatContradicts()
      }
      continue
    }
    const found = compute(variable, values, series, continuous)
    if ('unrounded' in found) unrounded[name] = found.unrounded!
    if (set !== undefined) {
      const message = rangeProblem(variable, set)
      if (message) problems.push({ variable: name, message })
      else values[name] = set
      if ('value' in found) computed[name] = found.value
    } else if ('value' in found) {
      values[name] = found.value
    } else if (found.message) problems.push({ variable: name, message: found.message })
    dropWhatContradicts()
    const value = values[name]
    if (variable.role === 'step' && variable.valid && value !== undefined) {
      const { min = -Infinity, max = Infinity, message } = variable.valid
      if (value < min || value > max) warnings.push({ variable: name, message, severity: 'error' })
    }
  }
  for (const { when, at, message, severity } of card.warnings)
    if (when.names.every((name) => name in values) && when.evaluate(values))
      warnings.push({ variable: at, message, severity })
  return { values, computed, unrounded, problems, warnings }
}

/** A step or choice; an empty message where something before it is missing already. */
function compute(
  variable: Exclude<Variable, { role: 'input' }>,
  values: Readonly<Record<string, number>>,
  series: SeriesSet,
  continuous: boolean,
): { value: number; unrounded?: number } | { message: string } {
  const { formula, label } = variable
  if (!formula.names.every((name) => name in values)) return { message: '' }
  const value = formula.evaluate(values)
  if (!Number.isFinite(value))
    return {
      message: `${label} has no value with these inputs: ${formula.text.includes('/') ? 'a divisor is zero, or a root of a negative number is taken' : 'the formula has no real result'}.`,
    }
  if (variable.role === 'step') return { value }
  const list = series[variable.series]
  if (continuous && list.continuous) return { value, unrounded: value }
  const chosen = nextInSeries(list.values, value, variable.rounding)
  if (chosen === undefined)
    return {
      message: `No value of the series "${list.label}" (${list.source}) is ${variable.rounding === 'up' ? 'large' : 'small'} enough.`,
    }
  return { value: chosen, unrounded: value }
}
