/** Sizes of a series side by side: the one that is chosen and its neighbours, and what each does on this machine. */
import type { SheetSizing } from '../sheet/schema'
import type { Quantity } from '../units/quantities'
import type { Brief } from './brief/brief'
import type { ChoiceVariable } from './card'
import { evaluateCard } from './evaluate'
import { nodeId, sizeMachine, type SizedNode, type Sizing } from './graph'
import { aroundInSeries, standardSeries, type SeriesSet } from './series'
import { textOf } from './text'

export interface Candidate {
  readonly value: number
  /** It is the one that the machine has now. */
  readonly chosen: boolean
  /** It is the next of the series to what is needed. */
  readonly computed: boolean
  /** What it does, in the order of the columns; nothing where it cannot be computed. */
  readonly results: readonly (number | undefined)[]
  /** Price against the one that the machine has now, about; nothing where size says nothing of it. */
  readonly price?: number
  /** What must be said of it, on its own card. */
  readonly warnings: readonly string[]
}
export interface Candidates {
  readonly columns: readonly { readonly label: string; readonly quantity: Quantity }[]
  readonly rows: readonly Candidate[]
}

/** What a card compares: its own variables, and those of other cards of the machine. */
function columnsOf(node: SizedNode, sizing: Sizing | undefined) {
  return node.card.compare.flatMap((name) => {
    const [id, variable] = name.includes('.') ? name.split('.') : [node.card.id, name]
    if (id === node.card.id) return [{ id: node.id, variable, definition: node.card.variables[variable] }]
    const own = [nodeId({ id }, node.motion), id].find((candidate) => sizing?.find(candidate))
    const found = own === undefined ? undefined : sizing!.find(own)!
    return found ? [{ id: found.id, variable, definition: found.card.variables[variable] }] : []
  })
}

/**
 * Candidates for a choice of a card.
 * @param machine the machine that it belongs to; without one the card stands by itself
 */
export function candidatesOf(
  node: SizedNode,
  name: string,
  machine?: { readonly brief: Brief; readonly decisions: SheetSizing; readonly sizing: Sizing },
  series: SeriesSet = standardSeries,
): Candidates {
  const choice = node.card.variables[name] as ChoiceVariable
  const present = node.values[name] ?? node.computed[name]
  const columns = columnsOf(node, machine?.sizing)
  const around = present === undefined ? [] : aroundInSeries(series[choice.series].values, present)
  const values = [...new Set([...around, ...(node.values[name] === undefined ? [] : [node.values[name]])])]
  const rows = values
    .sort((a, b) => a - b)
    .map((value): Candidate => {
      const find = machine
        ? withValue(machine, node.id, name, textOf(value, choice.quantity), series)
        : undefined
      const own = find
        ? find(node.id)!
        : evaluateCard(node.card, { ...node.values, ...onlyInputs(node), [name]: value }, { series })
      return {
        value,
        chosen: same(value, node.values[name]),
        computed: same(value, node.computed[name] ?? node.values[name]),
        results: columns.map(({ id, variable }) =>
          id === node.id ? own.values[variable] : find?.(id)?.values[variable],
        ),
        price: priceRatio(choice.quantity, value, node.values[name]),
        warnings: own.warnings.map((w) => w.message),
      }
    })
  return {
    columns: columns.map(({ definition: { label, quantity } }) => ({ label, quantity })),
    rows,
  }
}
/** How capacity grows with a size: with the square of a diameter, in proportion to the others. */
const CAPACITY: Partial<Readonly<Record<Quantity, number>>> = {
  length: 2,
  displacement: 1,
  volume: 1,
  power: 1,
  flow: 1,
  heatTransfer: 1,
}
/**
 * Price of a size against another, by the six-tenths rule of cost engineering: cost grows with capacity to the power of 0.6.
 * @returns nothing for what has no capacity, as a pressure setting
 */
export function priceRatio(quantity: Quantity, size: number, chosen: number | undefined): number | undefined {
  const exponent = CAPACITY[quantity]
  return exponent && chosen ? (size / chosen) ** (0.6 * exponent) : undefined
}
const same = (a: number, b: number | undefined) => b !== undefined && Math.abs(a - b) <= 1e-9 * Math.abs(a)
/** Steps and choices are computed anew. */
const onlyInputs = (node: SizedNode) =>
  Object.fromEntries(
    Object.entries(node.card.variables).flatMap(([n, v]) => (v.role === 'input' ? [] : [[n, undefined]])),
  )

function withValue(
  { brief, decisions }: { readonly brief: Brief; readonly decisions: SheetSizing },
  node: string,
  name: string,
  text: string,
  series: SeriesSet,
) {
  const values = { ...decisions.values, [node]: { ...decisions.values[node], [name]: text } }
  return sizeMachine(brief, { ...decisions, values }, { series }).find
}

/** The points of a chart of a card. @returns those whose coordinates are known */
export function pointsOf({ card, values }: SizedNode, index: number) {
  return card.charts[index].points.flatMap(({ label, x, y }) =>
    [...x.names, ...y.names].every((name) => name in values)
      ? [{ label, x: x.evaluate(values), y: y.evaluate(values) }]
      : [],
  )
}

/** A curve of a card over one of its inputs. */
export interface Curve {
  readonly label: string
  readonly quantity: Quantity
  readonly limit: boolean
  readonly points: readonly (readonly [x: number, y: number])[]
}
/** Points of a chart. */
const POINTS = 60

/** The curves of a chart of a card, with everything else as it is. @returns nothing where its range has no values */
export function curvesOf(node: SizedNode, index: number, series?: SeriesSet): readonly Curve[] {
  const { card, values } = node
  const { x, from, to, lines } = card.charts[index]
  const input = card.variables[x]
  if (input.role !== 'input') return []
  const [low, high] = [from, to].map((f) => (f.names.every((n) => n in values) ? f.evaluate(values) : NaN))
  if (!(high > low)) return []
  const fixed = Object.fromEntries(
    Object.entries(card.variables).map(([name, v]) => [
      name,
      // the sizes that were chosen stay, everything computed follows
      v.role === 'step' ? undefined : values[name],
    ]),
  )
  const at = Array.from({ length: POINTS + 1 }, (_, i) => low + ((high - low) * i) / POINTS)
    .map((v) => Math.max(input.min, Math.min(input.max, v)))
    .filter((v, i, all) => i === 0 || v > all[i - 1])
  const results = at.map((v) => evaluateCard(card, { ...fixed, [x]: v }, { series }).values)
  return lines.flatMap(({ variable, style }) => {
    const { label, quantity } = card.variables[variable]
    const points = at.flatMap((v, i) =>
      Number.isFinite(results[i][variable]) ? [[v, results[i][variable]] as const] : [],
    )
    return points.length ? [{ label, quantity, limit: style === 'limit', points }] : []
  })
}
