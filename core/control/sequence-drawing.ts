/** A step sequence as a drawing with automatic layout (IEC 60848). Coordinates in modules of 2.5 mm, y down. */
import { arrowHead, line, rectangle, text, type Point, type Shape } from '../catalogue/symbol'
import type { Rect } from '../sheet/geometry'
import type { Sequence, Sheet } from '../sheet/schema'
import { requirementToText } from './edit'
import { Names, offeredCoils } from './terminals'

export interface DrawnStep {
  readonly id: string
  readonly box: Rect
  readonly shapes: readonly Shape[]
  /** Its name and its actions, beside it. */
  readonly lines: readonly { readonly at: Point; readonly text: string }[]
}
export interface DrawnTransition {
  readonly id: string
  readonly box: Rect
  readonly shapes: readonly Shape[]
  readonly textAt: Point
  readonly text: string
}
export interface SequenceDrawing {
  readonly steps: readonly DrawnStep[]
  readonly transitions: readonly DrawnTransition[]
  /** Links between steps and transitions. */
  readonly links: readonly Shape[]
  readonly bounds: Rect
}

const STEP = 4
const ROW = 14
const COLUMN = 30
/** Row of a transition below the step that it leaves. */
const BELOW = 8

const words = {
  while: '',
  set: 'set ',
  reset: 'reset ',
  delayed: 'after ',
  limited: 'for ',
} as const

export function drawSequence(sheet: Sheet, sequence: Sequence): SequenceDrawing {
  const places = placesOf(sequence)
  const at = (step: string): Point => {
    const { row, column } = places.get(step)!
    return [column * COLUMN, row * ROW]
  }
  const names = new Names(offeredCoils(sheet))
  const steps = sequence.steps.map((step): DrawnStep => {
    const [x, y] = at(step.id)
    const actions = step.actions.map(({ coil, qualifier, time }) => {
      const name = names.nameOf(coil)
      return qualifier === 'delayed' || qualifier === 'limited'
        ? `${name} ${words[qualifier]}${time ?? '?'}`
        : `${words[qualifier]}${name}`
    })
    return {
      id: step.id,
      box: { x: x - STEP / 2, y: y - STEP / 2, w: STEP, h: STEP },
      shapes: [
        rectangle(x - STEP / 2, y - STEP / 2, STEP, STEP),
        ...(step.initial
          ? [rectangle(x - STEP / 2 + 0.4, y - STEP / 2 + 0.4, STEP - 0.8, STEP - 0.8, 'none')]
          : []),
        text(x, y, step.id, 1.5),
        ...(actions.length ? [line([x + STEP / 2, y], [x + STEP / 2 + 1, y])] : []),
      ],
      lines: [step.name, ...actions].filter(Boolean).map((words, i) => ({
        at: [x + STEP / 2 + 1.4, y - 0.9 + 1.9 * i] as Point,
        text: words,
      })),
    }
  })
  const links: Shape[] = []
  const transitions = sequence.transitions.map((t): DrawnTransition => {
    const from = t.from.map(at)
    const to = t.to.map(at)
    const [x0, y0] = from.reduce((low, p) => (p[1] > low[1] ? p : low))
    const siblings = sequence.transitions.filter((o) => o.from[0] === t.from[0])
    const order = siblings.indexOf(t)
    // alternatives stand beside each other, over the columns of the steps that they lead to
    const ahead = to.find((p) => p[1] > y0)
    const x = order === 0 ? x0 : (ahead?.[0] ?? x0 + order * (COLUMN / 2))
    const y = y0 + BELOW
    if (t.from.length > 1) {
      const left = Math.min(...from.map((p) => p[0])) - 1
      const right = Math.max(...from.map((p) => p[0])) + 1
      for (const dy of [-2.4, -2]) links.push(line([left, y + dy], [right, y + dy]))
      for (const [fx, fy] of from) links.push(line([fx, fy + STEP / 2], [fx, y - 2.4]))
      links.push(line([x, y - 2], [x, y]))
    } else if (x === x0) links.push(line([x0, y0 + STEP / 2], [x, y]))
    else links.push(line([x0, y - 4], [x, y - 4], [x, y]))
    const forward = to.filter((p) => p[1] > y0)
    if (t.to.length > 1) {
      const left = Math.min(...to.map((p) => p[0]), x) - 1
      const right = Math.max(...to.map((p) => p[0]), x) + 1
      for (const dy of [1.4, 1.8]) links.push(line([left, y + dy], [right, y + dy]))
      links.push(line([x, y], [x, y + 1.4]))
      for (const [tx, ty] of forward) links.push(line([tx, y + 1.8], [tx, ty - STEP / 2]))
    } else if (forward.length) {
      const [tx, ty] = forward[0]
      links.push(
        tx === x
          ? line([x, y], [tx, ty - STEP / 2])
          : line([x, y], [x, ty - 3.2], [tx, ty - 3.2], [tx, ty - STEP / 2]),
      )
    }
    // back to a step above: an arrow with its name, as on large charts
    for (const [i, p] of to.entries())
      if (p[1] <= y0)
        links.push(line([x, y], [x, y + 1.6]), arrowHead(x, y + 2.4, 0, 1), text(x, y + 3.4, t.to[i], 1.3))
    return {
      id: t.id,
      box: { x: x - 1.5, y: y - 1, w: COLUMN - 6, h: 2 },
      shapes: [line([x - 1.3, y], [x + 1.3, y])],
      textAt: [x + 1.8, y + 0.5],
      text: requirementToText(sheet, t.condition) || 'always',
    }
  })
  const columns = Math.max(1, ...[...places.values()].map(({ column }) => column + 1))
  const rows = Math.max(1, ...[...places.values()].map(({ row }) => row + 1))
  return { steps, transitions, links, bounds: { x: -4, y: -4, w: columns * COLUMN + 4, h: rows * ROW + 2 } }
}

/** Row and column of each step: as many transitions from an initial step as its row says, branches beside each other. */
function placesOf({ steps, transitions }: Sequence): Map<string, { row: number; column: number }> {
  const places = new Map<string, { row: number; column: number }>()
  const taken = new Map<number, number>()
  const put = (id: string, row: number, column: number) => {
    if (places.has(id)) return
    const free = Math.max(column, taken.get(row) ?? 0)
    taken.set(row, free + 1)
    places.set(id, { row, column: free })
    let branch = 0
    for (const t of transitions)
      if (t.from[0] === id) for (const to of t.to) put(to, row + 1, free + branch++)
  }
  for (const s of steps) if (s.initial) put(s.id, 0, 0)
  // steps that nothing leads to stand below all others
  for (const s of steps)
    if (!places.has(s.id)) put(s.id, Math.max(0, ...[...places.values()].map(({ row }) => row + 1)), 0)
  return places
}
