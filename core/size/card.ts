/**
 * A sizing card: variables in the order in which they are computed. A card is data; nothing in it knows of a machine, of another card
 * or of the screen. Where its inputs come from by default is written as a link (see `graph.ts`).
 */
import type { ActuatorFamily, ActuatorName } from './brief/brief'
import type { Measured, SizingResult } from '../catalogue/kind'
import type { Quantity } from '../units/quantities'
import { parseQuantity, showQuantity } from '../units/text'
import { formula, type Formula } from './formula'
import { givenProblem } from './given-results'
import type { LineService } from './lines'
import type { SeriesName } from './series'

/** What happens at a pressure: something moves, works, switches, limits, or may not see more. */
export type RulerMark = 'moving' | 'working' | 'setting' | 'limit' | 'rating'

/** How a run shows a value: on the actuator of the motion, or on the components that take another result of the card. */
export interface Measure {
  readonly what: Measured
  /** While moving out, while moving back, or over the whole run: what is usual there, or the most. */
  readonly while: 'out' | 'back' | 'run'
  readonly take: 'usual' | 'most'
  /** Variable of the same card whose result the measured components take; the actuator of the motion where none is named. */
  readonly of?: string
}

interface VariableBase {
  /** As it is written in formulas: "Q", "p₁". */
  readonly symbol: string
  readonly label: string
  readonly quantity: Quantity
  readonly note?: string
  /** It is a pressure at which something happens, and has its place on the ruler of the machine. */
  readonly ruler?: RulerMark
}
/** A value that is given: by a person, by the brief or by another card. */
export interface InputVariable extends VariableBase {
  readonly role: 'input'
  /** Of a free-standing card, and of a machine where nothing else gives it; a text with its unit, or the name of an option. */
  readonly default: string
  /** Allowed range, SI, inclusive. */
  readonly min: number
  readonly max: number
  /** Named values, where it is chosen from a list; the values are SI. */
  readonly options?: Readonly<Record<string, { readonly label: string; readonly value: number }>>
  /** Where a machine gives it: the first of these that has a value. */
  readonly from: readonly string[]
  /** A machine must give it: its default is for free-standing use only. */
  readonly required: boolean
}
/** A value computed from those before it. */
export interface StepVariable extends VariableBase {
  readonly role: 'step'
  readonly formula: Formula
  /** Where the equation is from. */
  readonly source?: string
  /** Range in which the equation holds, SI. */
  readonly valid?: { readonly min?: number; readonly max?: number; readonly message: string }
  /** The same in the constants of the trade. */
  readonly trade?: TradeFormula
  readonly sized?: SizingResult
  /** The sheet takes it only where this holds. */
  readonly sizedWhen?: Formula
  /** What is larger than needed does as well. */
  readonly atLeast?: true
  readonly measure?: Measure
}
/** A value taken from a standard series, next to a computed one; a person may choose another. */
export interface ChoiceVariable extends VariableBase {
  readonly role: 'choice'
  readonly series: SeriesName
  readonly formula: Formula
  readonly rounding: 'up' | 'down'
  /** A rating: what is larger than needed does as well. */
  readonly atLeast: boolean
  /** It is the bore of these lines. */
  readonly service?: LineService
  readonly sized?: SizingResult
  /** The sheet takes it only where this holds. */
  readonly sizedWhen?: Formula
}
export type Variable = InputVariable | StepVariable | ChoiceVariable

/** A formula with numbers in fixed units, as it is known by heart: "Q = V · n / 231". */
export interface TradeFormula {
  readonly formula: Formula
  /** Unit of each variable in it, by symbol; and that of the result. */
  readonly units: Readonly<Record<string, string>>
  readonly unit: string
}

/** Something that must be said where a condition holds. */
export interface Warning {
  readonly when: Formula
  readonly message: string
  /** The variable at which it is said. */
  readonly at: string
  /** An error: a machine built with this value hurts someone, breaks, or does not work. */
  readonly severity: Severity
}
export type Severity = 'warning' | 'error'

/** What must hold between values of a card; where it does not, the value at which it is said is not used. */
export interface Relation {
  readonly holds: Formula
  readonly message: string
  readonly at: string
}

/** A curve that is looked at rather than read: results of the card over one of its inputs. */
export interface CardChart {
  readonly title: string
  /** Input along the horizontal axis, and its range as formulas of the card. */
  readonly x: string
  readonly from: Formula
  readonly to: Formula
  readonly lines: readonly { readonly variable: string; readonly style: 'curve' | 'limit' }[]
  /** Where the machine works: named points, their coordinates as formulas of the card. */
  readonly points: readonly { readonly label: string; readonly x: Formula; readonly y: Formula }[]
}

/** A whole and what it divides into: steps of the card that add up to another one. */
export interface CardSplit {
  readonly title: string
  readonly whole: string
  readonly parts: readonly string[]
}

export const groups = {
  load: 'Load',
  cylinder: 'Cylinder',
  rotary: 'Motor and rotary actuator',
  pump: 'Pump and drive',
  accumulator: 'Accumulator',
  valve: 'Valves',
  line: 'Lines',
  tank: 'Tank, heat, filter',
} as const
export type Group = keyof typeof groups

/** For which motions or machines a card is opened without being asked for. */
export interface Applies {
  /** Actuators, or families of them; all where nothing is said. */
  readonly actuators?: readonly (ActuatorFamily | ActuatorName)[]
  /** Ways in which the brief says that the load is held. */
  readonly holding?: readonly string[]
  /** Ways in which the brief supplies the machine with oil. */
  readonly supply?: readonly string[]
  /** Only where a person adds it. */
  readonly onRequest?: true
}

/**
 * What a motion asks for one way: variables with its flow, its pressure under load and without; and links to the speed and the load of
 * the machine for which these are; 1 where there are none.
 */
export interface DemandVariables {
  readonly flow: string
  readonly pressure: string
  readonly idlePressure: string
  readonly speed: readonly string[]
  readonly load: readonly string[]
}

/** A type of component against what is asked of it. */
export interface Assessment {
  readonly name: string
  readonly fits: boolean
  readonly against: readonly string[]
  readonly for: readonly string[]
}

export interface Card {
  readonly id: string
  readonly title: string
  readonly group: Group
  /** One for each motion, or one for the machine. */
  readonly scope: 'motion' | 'machine'
  readonly applies: Applies
  /** One or two sentences: the question that it answers. */
  readonly about: string
  /** Standards and textbook definitions. */
  readonly source: string
  readonly variables: Readonly<Record<string, Variable>>
  readonly warnings: readonly Warning[]
  readonly relations: readonly Relation[]
  /** What to keep in mind. */
  readonly notes: readonly string[]
  /** Variables shown for each candidate of a series; those of other cards as `card.variable`. */
  readonly compare: readonly string[]
  /** Types to choose from, with reasons. @param values SI, by variable */
  assess?(values: Readonly<Record<string, number>>): readonly Assessment[]
  /** What the cycle of the machine reads from it. */
  readonly demand?: { readonly out: DemandVariables; readonly back: DemandVariables }
  /** The variable that is read first. */
  readonly answer: string
  readonly charts: readonly CardChart[]
  readonly split?: CardSplit
}

// ---- the words in which cards are written ----------------------------------------------------------------

interface InputOptions {
  readonly from?: string | readonly string[]
  readonly note?: string
  readonly required?: true
  readonly ruler?: RulerMark
}
/** An input of a quantity. @param min @param max SI @throws Error on a default that does not read or lies outside */
export function input(
  symbol: string,
  label: string,
  quantity: Quantity,
  fallback: string,
  min: number,
  max: number,
  { from = [], note, required, ruler }: InputOptions = {},
): InputVariable {
  const read = parseQuantity(fallback, quantity)
  if (!read.ok || read.si < min || read.si > max)
    throw new Error(`${label}: default "${fallback}" is not allowed`)
  return {
    role: 'input',
    symbol,
    label,
    quantity,
    default: fallback,
    min,
    max,
    note,
    from: [from].flat(),
    required: required ?? false,
    ruler,
  }
}

/** An input that is one of several named values. @param options value (SI) and label of each @param fallback name of one */
export function option(
  symbol: string,
  label: string,
  quantity: Quantity,
  options: Readonly<Record<string, readonly [value: number, label: string]>>,
  fallback: string,
  { from = [], note }: Omit<InputOptions, 'required'> = {},
): InputVariable {
  if (!(fallback in options)) throw new Error(`${label}: "${fallback}" is no option`)
  const values = Object.values(options).map(([value]) => value)
  return {
    role: 'input',
    symbol,
    label,
    quantity,
    default: fallback,
    min: Math.min(...values),
    max: Math.max(...values),
    options: Object.fromEntries(
      Object.entries(options).map(([name, [value, text]]) => [name, { value, label: text }]),
    ),
    note,
    from: [from].flat(),
    required: false,
  }
}

type StepOptions = Pick<
  StepVariable,
  'note' | 'source' | 'valid' | 'trade' | 'sized' | 'ruler' | 'measure' | 'atLeast'
> & { readonly sizedWhen?: string }
const sizedWhenOf = (text: string | undefined) => (text === undefined ? undefined : formula(text))
/** A computed value. @param text formula in the names of the variables before it */
export const step = (
  symbol: string,
  label: string,
  quantity: Quantity,
  text: string,
  { sizedWhen, ...options }: StepOptions = {},
): StepVariable => ({
  role: 'step',
  symbol,
  label,
  quantity,
  formula: formula(text),
  sizedWhen: sizedWhenOf(sizedWhen),
  ...options,
})

type ChoiceOptions = Pick<ChoiceVariable, 'note' | 'sized' | 'ruler' | 'service'> & {
  readonly rounding?: 'up' | 'down'
  readonly atLeast?: true
  readonly sizedWhen?: string
}
/** A value of a series. @param text formula of the value needed, of which the next of the series is taken */
export const choice = (
  symbol: string,
  label: string,
  quantity: Quantity,
  series: SeriesName,
  text: string,
  { rounding = 'up', atLeast, sizedWhen, ...options }: ChoiceOptions = {},
): ChoiceVariable => ({
  role: 'choice',
  symbol,
  label,
  quantity,
  series,
  formula: formula(text),
  rounding,
  atLeast: atLeast ?? false,
  sizedWhen: sizedWhenOf(sizedWhen),
  ...options,
})

/** The constants of the trade for a step. */
export const trade = (text: string, unit: string, units: Readonly<Record<string, string>>): TradeFormula => ({
  formula: formula(text),
  unit,
  units,
})
export const warning = (at: string, when: string, message: string): Warning => ({
  at,
  when: formula(when),
  message,
  severity: 'warning',
})
/** A warning of what must not be built so. */
export const failure = (at: string, when: string, message: string): Warning => ({
  ...warning(at, when, message),
  severity: 'error',
})
/** What must hold between values. @param at the value that is not used where it does not */
export const relation = (at: string, holds: string, message: string): Relation => ({
  at,
  holds: formula(holds),
  message,
})
export const chart = (
  title: string,
  x: string,
  from: string,
  to: string,
  curves: readonly string[],
  limits: readonly string[] = [],
  points: Readonly<Record<string, readonly [x: string, y: string]>> = {},
): CardChart => ({
  title,
  x,
  from: formula(from),
  to: formula(to),
  lines: [
    ...curves.map((variable) => ({ variable, style: 'curve' as const })),
    ...limits.map((variable) => ({ variable, style: 'limit' as const })),
  ],
  points: Object.entries(points).map(([label, [px, py]]) => ({ label, x: formula(px), y: formula(py) })),
})

type Description = Pick<
  Card,
  'id' | 'title' | 'group' | 'scope' | 'about' | 'source' | 'variables' | 'answer'
> &
  Partial<
    Pick<
      Card,
      'applies' | 'warnings' | 'relations' | 'notes' | 'compare' | 'charts' | 'split' | 'demand' | 'assess'
    >
  >

/** A card. @throws Error where a formula reads a variable that is not before it, or a name is not there */
export function card(description: Description): Card {
  const made: Card = {
    applies: {},
    warnings: [],
    relations: [],
    notes: [],
    compare: [],
    charts: [],
    ...description,
  }
  const known = new Set<string>()
  const fail = (text: string): never => {
    throw new Error(`Card ${made.id}: ${text}`)
  }
  const reads = ({ names, text }: Formula) => {
    for (const name of names) if (!known.has(name)) fail(`"${text}" reads ${name}`)
  }
  for (const [name, variable] of Object.entries(made.variables)) {
    if (variable.role !== 'input') reads(variable.formula)
    known.add(name)
    if (variable.role === 'step' && variable.trade) reads(variable.trade.formula)
    if (variable.role !== 'input' && variable.sizedWhen) reads(variable.sizedWhen)
  }
  for (const { when, at } of made.warnings) {
    reads(when)
    if (!known.has(at)) fail(`no variable ${at}`)
  }
  for (const { holds, at } of made.relations) {
    reads(holds)
    if (!holds.names.includes(at)) fail(`the relation "${holds.text}" does not read ${at}`)
  }
  for (const { x, from, to, lines, points } of made.charts) {
    for (const each of [from, to, ...points.flatMap((p) => [p.x, p.y])]) reads(each)
    for (const name of [x, ...lines.map((l) => l.variable)]) if (!known.has(name)) fail(`no variable ${name}`)
  }
  const demanded = made.demand
    ? [made.demand.out, made.demand.back].flatMap((d) => [d.flow, d.pressure, d.idlePressure])
    : []
  const divided = made.split ? [made.split.whole, ...made.split.parts] : []
  for (const name of [made.answer, ...demanded, ...divided, ...made.compare.filter((n) => !n.includes('.'))])
    if (!known.has(name)) fail(`no variable ${name}`)
  return made
}

/** Writes a value the way a person types it: a unit of the metric system, or the name of the option. */
export function defaultValue(variable: InputVariable): number {
  if (variable.options) return variable.options[variable.default].value
  const read = parseQuantity(variable.default, variable.quantity)
  return read.ok ? read.si : NaN
}

/**
 * Reads a value for a variable: a quantity with its unit, or the name of an option.
 * @returns SI, or what is wrong with it, for people
 */
export function readValue(
  variable: Variable,
  text: string,
): { readonly value: number } | { readonly message: string } {
  if (variable.role === 'input' && variable.options) {
    const found = variable.options[text]
    if (found) return { value: found.value }
    return {
      message: `${variable.label} is one of ${Object.keys(variable.options).join(', ')}, not "${text}".`,
    }
  }
  const read = parseQuantity(text, variable.quantity)
  if (!read.ok) return { message: read.message }
  const problem = rangeProblem(variable, read.si)
  return problem === undefined ? { value: read.si } : { message: problem }
}

/** What is wrong with a value that is given for a variable; nothing where it is in its range. @param value SI */
export function rangeProblem(variable: Variable, value: number): string | undefined {
  if (variable.role !== 'input') return givenProblem(variable, value)
  const slack = 1e-9 * Math.max(Math.abs(variable.min), Math.abs(variable.max))
  return value >= variable.min - slack && value <= variable.max + slack ? undefined : rangeMessage(variable)
}

/** What an input may be, in words. */
export const rangeMessage = ({ label, quantity, min, max }: InputVariable): string =>
  `${label} is between ${showQuantity(min, quantity, 'metric')} and ${showQuantity(max, quantity, 'metric')}.`
