/** Sizing cards without a browser, see `USAGE`. */
import { readFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { readSeriesCsv } from '../formats/series-csv'
import { readValue, type Card, type Variable } from '../size/card'
import { cards, findCard } from '../size/cards'
import { evaluateCard, type Evaluation } from '../size/evaluate'
import { seriesInForce } from '../size/own-series'
import { standardSeries, type SeriesSet } from '../size/series'
import { solveCard } from '../size/solve'
import { shownUnit, unitSystems, type UnitSystem } from '../units/quantities'
import { showIn } from '../units/text'

const USAGE = `size --list [--json]
       size CARD [NAME=VALUE ...] [--solve NAME] [--units metric|us] [--series FILE.csv] [--json]
  --list names all cards with their inputs and outputs.
  A value has its unit, as in "bore=80 mm". A result that is given stands in place of the one that is computed; with --solve it is
  the result that is wanted, and NAME the input with which it comes out. --series takes sizes from a table of own series as well.`

class Refused extends Error {}
type Print = (text: string) => void

function command(args: readonly string[], print: Print): void {
  const { values, positionals } = readArguments(args)
  if (values.list) {
    if (positionals.length) throw new Refused('--list takes no card.')
    return list(values.json === true, print)
  }
  const [id, ...assignments] = positionals
  if (!id) throw new Refused(`Usage: ${USAGE}`)
  const card = findCard(id)
  if (!card)
    throw new Refused(`There is no card "${id}". The cards are ${cards.map((c) => c.id).join(', ')}.`)
  const units = (values.units ?? 'metric') as UnitSystem
  if (!unitSystems.includes(units))
    throw new Refused(`--units takes ${unitSystems.join(' or ')}, not "${units}".`)
  const given = readAssignments(card, assignments)
  const series = values.series === undefined ? standardSeries : readSeries(values.series)
  const others = values.solve === undefined ? [] : solve(card, given, values.solve, series)
  const evaluation = evaluateCard(card, given, { series })
  const [problem] = evaluation.problems
  if (problem) throw new Refused(`${problem.variable}: ${problem.message}`)
  if (values.json) print(JSON.stringify(asJson(card, given, evaluation, values.solve, others), null, 2))
  else report(card, given, evaluation, units, others, values.solve, series, print)
}

function readArguments(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        list: { type: 'boolean' },
        json: { type: 'boolean' },
        solve: { type: 'string' },
        units: { type: 'string' },
        series: { type: 'string' },
      },
    })
  } catch (error) {
    throw new Refused(`${(error as Error).message}\nUsage: ${USAGE}`)
  }
}

/** The series that are in force with those of a CSV file. */
function readSeries(file: string): SeriesSet {
  let text: string
  try {
    text = readFileSync(file, 'utf8')
  } catch {
    throw new Refused(`The file "${file}" cannot be read.`)
  }
  const read = readSeriesCsv(text)
  if (!read.ok) throw new Refused(`${file}: ${read.message}`)
  return seriesInForce(read.value)
}

function variableOf(card: Card, name: string): Variable {
  const variable = card.variables[name]
  if (!variable)
    throw new Refused(
      `The card ${card.id} has no "${name}". It has ${Object.keys(card.variables).join(', ')}.`,
    )
  return variable
}

function readAssignments(card: Card, assignments: readonly string[]): Record<string, number> {
  const given: Record<string, number> = {}
  for (const assignment of assignments) {
    const match = /^([^=]+)=(.*)$/s.exec(assignment)
    if (!match) throw new Refused(`Values are given as NAME=VALUE, not "${assignment}".`)
    const name = match[1].trim()
    const read = readValue(variableOf(card, name), match[2].trim())
    if ('message' in read) throw new Refused(`${name}: ${read.message}`)
    if (name in given) throw new Refused(`${name} is given twice.`)
    given[name] = read.value
  }
  return given
}

/** Puts the solution among the given values, and takes the wanted result out. @returns other solutions, SI */
function solve(
  card: Card,
  given: Record<string, number>,
  unknown: string,
  series: SeriesSet,
): readonly number[] {
  const variable = variableOf(card, unknown)
  // a result is computed anyway
  if (variable.role !== 'input') return []
  if (unknown in given) throw new Refused(`${unknown} cannot be given and solved for.`)
  // a choice beside a wanted step is locked
  const results = Object.keys(given).filter((name) => card.variables[name].role !== 'input')
  const steps = results.filter((name) => card.variables[name].role === 'step')
  const wanted = steps.length ? steps : results
  if (wanted.length !== 1)
    throw new Refused(
      wanted.length
        ? `Give one result that is wanted, not ${wanted.join(' and ')}.`
        : 'Give a result that is wanted, as NAME=VALUE.',
    )
  const [name] = wanted
  const solution = solveCard(card, given, { name, value: given[name] }, unknown, series)
  if ('message' in solution) throw new Refused(solution.message)
  // a choice stands at what was wanted; a step comes out by itself
  if (card.variables[name].role === 'step') delete given[name]
  given[unknown] = solution.value
  return solution.others
}

const unitOf = (variable: Variable) => shownUnit(variable.quantity, 'metric').symbol

function list(json: boolean, print: Print): void {
  const described = cards.map((card) => {
    const entries = Object.entries(card.variables)
    return {
      id: card.id,
      title: card.title,
      group: card.group,
      scope: card.scope,
      about: card.about,
      source: card.source,
      inputs: entries.flatMap(([name, v]) =>
        v.role === 'input'
          ? [
              {
                name,
                symbol: v.symbol,
                label: v.label,
                quantity: v.quantity,
                unit: unitOf(v),
                default: v.default,
                min: v.min,
                max: v.max,
                ...(v.options ? { options: Object.keys(v.options) } : {}),
              },
            ]
          : [],
      ),
      outputs: entries.flatMap(([name, v]) =>
        v.role === 'input'
          ? []
          : [
              {
                name,
                symbol: v.symbol,
                label: v.label,
                quantity: v.quantity,
                unit: unitOf(v),
                formula: v.formula.text,
                ...(v.role === 'choice' ? { series: v.series } : {}),
              },
            ],
      ),
    }
  })
  if (json) return print(JSON.stringify(described, null, 2))
  for (const card of described) {
    print(`${card.id}: ${card.title}. ${card.about}`)
    for (const i of card.inputs)
      print(
        `  in   ${i.name} [${i.symbol}] ${i.label}, ${i.quantity}, ${i.options ? i.options.join('|') : i.default}`,
      )
    for (const o of card.outputs) print(`  out  ${o.name} [${o.symbol}] ${o.label}, ${o.quantity}`)
  }
}

function asJson(
  card: Card,
  given: Readonly<Record<string, number>>,
  { values, unrounded, warnings }: Evaluation,
  unknown: string | undefined,
  others: readonly number[],
) {
  return {
    card: card.id,
    values: Object.fromEntries(
      Object.entries(card.variables).map(([name, v]) => [
        name,
        {
          value: values[name],
          quantity: v.quantity,
          role: v.role,
          given: name in given && name !== unknown,
          ...(v.role === 'choice' && unrounded[name] !== undefined ? { unrounded: unrounded[name] } : {}),
        },
      ]),
    ),
    ...(unknown === undefined ? {} : { solved: { name: unknown, value: values[unknown], others } }),
    warnings,
  }
}

function report(
  card: Card,
  given: Readonly<Record<string, number>>,
  { values, unrounded, warnings }: Evaluation,
  units: UnitSystem,
  others: readonly number[],
  unknown: string | undefined,
  series: SeriesSet,
  print: Print,
): void {
  const show = showIn(units)
  print(card.title)
  const shown = (name: string) => {
    const v = card.variables[name]
    const option = v.role === 'input' && Object.values(v.options ?? {}).find((o) => o.value === values[name])
    return option ? option.label : show(values[name], v.quantity)
  }
  const roundedFrom = (name: string, v: Variable) => {
    const value = unrounded[name]
    if (v.role !== 'choice' || !series[v.series].continuous || value === undefined) return ''
    const text = show(value, v.quantity)
    return text === shown(name) ? '' : ` (${text} before rounding)`
  }
  for (const [name, v] of Object.entries(card.variables)) {
    const head = `${name}: ${v.label}${v.symbol && `, ${v.symbol}`}`
    if (v.role === 'input' || name in given)
      print(
        `  ${head} = ${shown(name)}${name === unknown ? ' (solved for)' : name in given ? '' : ' (default)'}`,
      )
    else {
      const symbols = v.formula.printActive((n) => card.variables[n].symbol || n, values)
      const next = v.role === 'choice' ? `next of ${series[v.series].source} to ` : ''
      print(
        `  ${head} = ${next}${symbols} = ${next && '… '}${v.formula.printActive(shown, values)} = ${shown(name)}${roundedFrom(name, v)}`,
      )
    }
  }
  if (others.length)
    print(`  also possible: ${others.map((o) => show(o, card.variables[unknown!].quantity)).join(', ')}`)
  for (const w of warnings) print(`  ${w.severity}, ${w.variable}: ${w.message}`)
}

/**
 * Runs the command.
 * @returns exit code 0 with results; 2 with a plain message on unknown names, units that do not fit, values out of range, or no solution
 */
export function sizeCommand(args: readonly string[]): { code: 0 | 2; out: string; error: string } {
  const lines: string[] = []
  try {
    command(args, (text) => lines.push(text))
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    return { code: 2, out: '', error: `${error.message}\n` }
  }
  return { code: 0, out: `${lines.join('\n')}\n`, error: '' }
}
