/** A calculation as it is shown: every step with its formula and the numbers put in. */
import type { SizingResult } from '../catalogue/kind'
import type { Quantity } from '../units/quantities'

export interface Term {
  readonly value: number
  readonly quantity: Quantity
}
export interface Step {
  readonly symbol: string
  readonly meaning: string
  /** In symbols: "F / (η · p)"; operators · / + − ² ³ ⁴, √(), max() and π only. */
  readonly formula: string
  /** What each symbol of the formula stands for. */
  readonly terms: Readonly<Record<string, Term>>
  readonly value: number
  readonly quantity: Quantity
}
export interface Card {
  readonly id: string
  readonly title: string
  readonly steps: readonly Step[]
  /** The answer, and what it is. */
  readonly answer?: Term & { readonly label: string }
  /** Where the answer comes from: "next bore of ISO 3320". */
  readonly source: string
  /** What to keep in mind; `severity` warning where the result does not hold. */
  readonly remarks: readonly { readonly severity: 'note' | 'warning'; readonly text: string }[]
  /** What the sheet can take from this card. */
  readonly gives: readonly {
    readonly sized: SizingResult
    readonly label: string
    readonly value: number
    readonly quantity: Quantity
  }[]
}

const POWERS: Readonly<Record<string, number>> = { '²': 2, '³': 3, '⁴': 4 }

/** Words of a formula that are no symbols. */
const FUNCTIONS = ['max']

/** Splits a formula into symbols and the rest. */
export function formulaParts(formula: string, terms: Readonly<Record<string, Term>>) {
  const names = Object.keys(terms).sort((a, b) => b.length - a.length)
  const parts: { text: string; term?: Term }[] = []
  for (let i = 0; i < formula.length;) {
    const word = FUNCTIONS.find((f) => formula.startsWith(f, i))
    const name = word ? undefined : names.find((n) => formula.startsWith(n, i))
    if (name) {
      parts.push({ text: name, term: terms[name] })
      i += name.length
    } else {
      const last = parts[parts.length - 1]
      const text = word ?? formula[i]
      if (last && !last.term) last.text += text
      else parts.push({ text })
      i += text.length
    }
  }
  return parts
}

/** The formula with its numbers put in, each with its unit. */
export const formulaWithNumbers = (step: Step, show: (value: number, quantity: Quantity) => string) =>
  formulaParts(step.formula, step.terms)
    .map((part, i, parts) => {
      if (!part.term) return part.text
      const text = show(part.term.value, part.term.quantity)
      // a value with its unit, raised to a power, stands in brackets
      return parts[i + 1]?.text[0] in POWERS && text.includes(' ') ? `(${text})` : text
    })
    .join('')

/**
 * Computes a step from its own formula, so that what is shown is what is computed.
 * The formula is written by the cards, never by a user. A small recursive descent over
 * + − · / powers, √ and brackets.
 * @throws Error on a formula that does not read
 */
export function evaluateFormula(formula: string, terms: Readonly<Record<string, Term>>): number {
  const tokens: (number | string)[] = []
  for (const part of formulaParts(formula, terms)) {
    if (part.term) tokens.push(part.term.value)
    else
      for (const match of part.text.matchAll(/\d+(?:\.\d+)?|π|max|\S/gu))
        tokens.push(match[0] === 'π' ? Math.PI : /^\d/.test(match[0]) ? Number(match[0]) : match[0])
  }
  let at = 0
  const fail = (): never => {
    throw new Error(`Cannot read the formula "${formula}"`)
  }
  const factor = (): number => {
    const token = tokens[at++]
    let value: number
    if (typeof token === 'number') value = token
    else if (token === '(') {
      value = sum()
      if (tokens[at++] !== ')') fail()
    } else if (token === '√') {
      value = Math.sqrt(factor())
    } else if (token === '−' || token === '-') value = -factor()
    else if (token === 'max') {
      if (tokens[at++] !== '(') fail()
      value = sum()
      while (tokens[at] === ',') {
        at++
        value = Math.max(value, sum())
      }
      if (tokens[at++] !== ')') fail()
    } else return fail()
    while (tokens[at] in POWERS) value **= POWERS[tokens[at++]]
    return value
  }
  const product = (): number => {
    let value = factor()
    for (;;) {
      if (tokens[at] === '·') {
        at++
        value *= factor()
      } else if (tokens[at] === '/') {
        at++
        value /= factor()
      } else return value
    }
  }
  const sum = (): number => {
    let value = product()
    for (;;) {
      if (tokens[at] === '+') {
        at++
        value += product()
      } else if (tokens[at] === '−' || tokens[at] === '-') {
        at++
        value -= product()
      } else return value
    }
  }
  const value = sum()
  if (at !== tokens.length) fail()
  return value
}

/** A step whose value is computed from the formula that is shown. */
export function step(
  symbol: string,
  meaning: string,
  quantity: Quantity,
  formula: string,
  terms: Readonly<Record<string, Term>>,
): Step {
  return { symbol, meaning, quantity, formula, terms, value: evaluateFormula(formula, terms) }
}
