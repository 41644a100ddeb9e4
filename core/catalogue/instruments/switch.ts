/** Switches with a set point and a reset point: one guard, one mode, and how they are drawn. */
import { type Local, type Model, type Show, indices, outputSpecs, conditionSpecs, eventSpecs } from '../kind'
import type { Quantity } from '../../units/quantities'
import { line, rectangle, text, type Shape } from '../symbol'

/** The output of every switch; what else it puts out comes after it. */
export const switchOutputs = ['on'] as const
const OUTPUT = indices(...switchOutputs)
const CONDITION = indices('tripped')
const EVENT = indices('trip')

/**
 * On when the measure reaches `set`, off when it is back at `reset`. Reset below set makes it a switch for rising,
 * above it one for falling measures.
 */
export function switchModel(measure: (l: Local) => number, set: number, reset: number): Model {
  const rising = set >= reset
  return {
    outputs: outputSpecs(OUTPUT, {
      on: { label: 'on', quantity: 'ratio' },
    }),
    conditions: conditionSpecs(CONDITION, {
      tripped: { label: 'on', severity: 'info', begins: 'switches on', ends: 'switches off' },
    }),
    eventFunctions: eventSpecs(EVENT, {
      trip: { label: 'switches on', report: 1 },
    }),
    modes: [0],
    evaluate(l) {
      l.q.fill(0)
      const point = l.mode[0] ? reset : set
      l.g[EVENT.trip] = rising ? measure(l) - point : point - measure(l)
    },
    switch(l, _index, direction) {
      l.mode[0] = direction > 0 ? 1 : 0
    },
    observe(l) {
      l.o[OUTPUT.on] = l.mode[0]
      l.c[CONDITION.tripped] = l.mode[0] - 0.5
    },
  }
}

const RANGE_EVENT = indices('trip', 'tripBack')

/** Whether a switch with one event function is on. */
export const isTripped = (l: Local) => l.mode[0] === 1
/** Whether a switch with a range is on: its measure is beyond the lower edge and not beyond the upper one. */
export const isInRange = (l: Local) => l.mode[0] === 1 && l.mode[1] === 0

/**
 * On while the measure lies from `at` to `at + width`; it goes off by `reset` later than it went on. Each edge has an event function of
 * its own, so that a range which is passed within one step is noticed.
 */
export function rangeSwitch(at: number, width: number, reset: number) {
  const end = at + width
  return {
    modes: [0, 0],
    eventFunctions: eventSpecs(RANGE_EVENT, {
      trip: { label: 'switches on', report: 1 },
      tripBack: { label: 'switches on', report: -1 },
    }),
    watch(l: Local, measure: number) {
      l.g[RANGE_EVENT.trip] = measure - at + (l.mode[0] ? reset : 0)
      l.g[RANGE_EVENT.tripBack] = measure - end - (l.mode[1] ? 0 : reset)
    },
    switch(l: Local, index: number, direction: 1 | -1) {
      l.mode[index] = direction > 0 ? 1 : 0
    },
  }
}

export const describeSwitch = (
  l: Local,
  now: number,
  set: number,
  reset: number,
  quantity: Quantity,
  show: Show,
) =>
  l.mode[0]
    ? `On; it goes off at ${show(reset, quantity)}, now ${show(now, quantity)}.`
    : `Off; it goes on at ${show(set, quantity)}, now ${show(now, quantity)}.`

/** A box with the letter of what it watches and its contact. */
export const switchBox = (letter: string): Shape[] => [
  rectangle(-1.5, -1.5, 3, 3),
  text(0, -0.5, letter, 1.4),
  line([-1, 0.9], [-0.4, 0.9], [0.5, 0.3]),
  line([0.5, 0.9], [1, 0.9]),
]
