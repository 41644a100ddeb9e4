import { defineKind, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { dashed } from '../symbol'
import { transducerBox } from './transducer'

const OUTPUT = indices('reading', 'signal')
const CONDITION = indices('overRange')

/** Reads the force between a rod and its load; its signal is that as a share of its range, ½ at no force. */
export const loadCell = defineKind({
  name: 'load-cell',
  label: 'Load cell',
  family: 'instruments',
  searchTerms: ['load cell', 'force transducer', 'force sensor', 'weighing'],
  designationLetter: 'S',
  description:
    'Measures the force between a rod and what it moves: pushed it reads above, pulled below zero.',
  ports: [{ name: 'R', domain: 'rod', role: 'rod whose force is measured' }],
  parameters: { range: quantity('Range', 'force', '50 kN', 1, 1e8, { note: 'either way' }) },
  faults: [
    {
      name: 'drift',
      label: 'zero drift',
      form: 'drift',
      quantity: 'force',
      min: -1e7,
      max: 1e7,
      beforeEvaluate(l, amount) {
        l.f[0] += amount
      },
    },
  ],
  symbol: () => ({
    shapes: [...transducerBox('F'), dashed([-1.5, 0], [-3, 0])],
    ports: { R: { x: -3, y: 0, side: 'left' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
    reading: 'reading',
  }),
  model: (v) => ({
    outputs: outputSpecs(OUTPUT, {
      reading: { label: 'measured force', quantity: 'force' },
      signal: { label: 'signal', quantity: 'share' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    observe(l) {
      l.o[OUTPUT.reading] = l.f[0]
      l.o[OUTPUT.signal] = Math.min(Math.max(0.5 + l.f[0] / (2 * v.range), 0), 1)
      l.c[CONDITION.overRange] = Math.abs(l.f[0]) - v.range
    },
  }),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'force')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
