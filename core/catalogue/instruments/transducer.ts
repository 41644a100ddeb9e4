/** Transducers: a measure as a share of their range, with the lag of their filter, and how they are drawn. */
import { quantity, type Local, type Model, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import type { Quantity } from '../../units/quantities'
import { line, rectangle, text, type Shape } from '../symbol'

export const STATE = indices('filtered')
export const OUTPUT = indices('signal', 'reading')
const CONDITION = indices('overRange')

export const filterParameter = quantity('Filter', 'time', '5 ms', 1e-4, 10, {
  note: 'time constant of its signal',
})

/** τ·dy/dt = measure/range − y; the signal is y, cut off at 0 and 1. */
export function transducerModel(
  measure: (l: Local) => number,
  low: number,
  high: number,
  filter: number,
  shown: { quantity: Quantity; label: string },
  initial = 0,
): Model {
  return {
    states: stateSpecs(STATE, {
      filtered: { label: 'filtered share', quantity: 'share', initial, scale: 1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      signal: { label: 'signal', quantity: 'share' },
      reading: { label: shown.label, quantity: shown.quantity },
    }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    evaluate(l) {
      l.q.fill(0)
      l.dx[STATE.filtered] = ((measure(l) - low) / (high - low) - l.x[STATE.filtered]) / filter
    },
    observe(l) {
      l.o[OUTPUT.signal] = Math.min(Math.max(l.x[STATE.filtered], 0), 1)
      l.o[OUTPUT.reading] = low + l.x[STATE.filtered] * (high - low)
      l.c[CONDITION.overRange] = Math.abs(l.x[STATE.filtered] - 0.5) - 0.505
    },
  }
}

/** A box with the letter of the measure above the slanted line, its signal below it. */
export const transducerBox = (letter: string): Shape[] => [
  rectangle(-1.5, -1.5, 3, 3),
  line([-1.5, 1.5], [1.5, -1.5]),
  text(-0.6, -0.7, letter, 1.1),
  text(0.7, 0.8, 'E', 1),
]
