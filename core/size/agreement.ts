/** How the values of a sheet stand to the results of sizing, all at once; and the sheet with every result in its place. */
import { nameOf, type Sheet } from '../sheet/schema'
import { agrees, applyResult, resultsOf, targetsOf, type Result, type Target } from './apply'
import type { Brief } from './brief/brief'
import type { SizedNode, Sizing } from './graph'
import { applyBore, pipesFor, wideEnough, type LineService } from './lines'
import { inSentence } from './text'

/** Of each value that a card could size: how many agree, how many wait for a person who says what they are for. */
export interface Agreement {
  readonly sized: number
  readonly agreeing: number
  readonly waiting: number
}
/** A value that was not applied, and why. */
export interface NotApplied {
  readonly what: string
  readonly why: string
}

type State = 'agrees' | 'differs' | 'waiting'
interface SizedValue {
  readonly name: string
  readonly label: string
  readonly pairs: readonly { readonly result: Result; readonly target: Target }[]
  readonly state: State
}

/** All values of components that results could go to, each once. */
function sizedValues(sheet: Sheet, brief: Brief, sizing: Sizing): SizedValue[] {
  const values = new Map<string, { result: Result; target: Target }[]>()
  for (const result of sizing.nodes.flatMap(resultsOf))
    for (const target of targetsOf(sheet, brief, result)) {
      const key = `${target.component.id} ${target.parameter}`
      values.set(key, [...(values.get(key) ?? []), { result, target }])
    }
  return [...values.values()].flatMap((offers): SizedValue[] => {
    const assigned = offers.filter(({ target }) => target.assigned)
    const open = offers.filter(({ target, result }) => target.possible && !isDecided(sheet, result))
    if (!assigned.length && !open.length) return []
    const [{ target }] = offers
    return [
      {
        name: nameOf(target.component),
        label: inSentence(target.definition.label),
        pairs: assigned,
        state: !assigned.length
          ? 'waiting'
          : assigned.every(({ target, result }) => agrees(target, result))
            ? 'agrees'
            : 'differs',
      },
    ]
  })
}
/** A person has said where a result goes, or that it goes nowhere. */
const isDecided = ({ sizing }: Sheet, { node, variable }: Result) =>
  `${node.id}.${variable}` in sizing.components || node.id in sizing.components

interface SizedLines {
  readonly service: LineService
  readonly bore: number
  readonly isWide: boolean
}
/** The bores that cards give, as far as the sheet has such lines. */
const sizedLines = (sheet: Sheet, nodes: readonly SizedNode[]): SizedLines[] =>
  nodes.flatMap((node) =>
    Object.entries(node.card.variables).flatMap(([name, v]): SizedLines[] => {
      const bore = node.values[name]
      if (v.role !== 'choice' || !v.service || bore === undefined) return []
      const pipes = pipesFor(sheet, v.service)
      const needed = Math.min(bore, v.formula.evaluate(node.values))
      return pipes.length ? [{ service: v.service, bore, isWide: wideEnough(pipes, needed) }] : []
    }),
  )

/** How many values of a sheet a card could size, lines of one service counted as one, and how they stand. */
export function agreement(sheet: Sheet, brief: Brief, sizing: Sizing): Agreement {
  const values = sizedValues(sheet, brief, sizing)
  const lines = sizedLines(sheet, sizing.nodes)
  const count = (state: State) => values.filter((v) => v.state === state).length
  return {
    sized: values.length + lines.length,
    agreeing: count('agrees') + lines.filter((l) => l.isWide).length,
    waiting: count('waiting'),
  }
}

/** The sheet with every result in the values that are meant for it, and what could not be applied. */
export function applyAll(
  sheet: Sheet,
  brief: Brief,
  sizing: Sizing,
): { readonly sheet: Sheet; readonly left: readonly NotApplied[] } {
  const left: NotApplied[] = []
  let applied = sheet
  for (const { name, label, pairs, state } of sizedValues(sheet, brief, sizing)) {
    const what = `${name}, ${label}`
    if (state === 'waiting') left.push({ what, why: 'several could take a result: say which' })
    for (const { result, target } of pairs) {
      if (agrees(target, result)) continue
      if (target.possible) applied = applyResult(applied, target, result)
      else left.push({ what, why: 'the component cannot have this value' })
    }
  }
  for (const { service, bore, isWide } of sizedLines(sheet, sizing.nodes))
    if (!isWide) applied = applyBore(applied, service, bore)
  for (const { card, motion, problems } of sizing.nodes)
    if (problems.length)
      left.push({ what: `${card.title}${motion ? ` of ${motion.name}` : ''}`, why: problems[0].message })
  return { sheet: applied, left }
}
