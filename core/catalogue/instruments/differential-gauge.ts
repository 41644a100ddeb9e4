import { misread } from '../faults'
import { defineKind, quantity, conditionSpecs, indices, outputSpecs } from '../kind'
import { arrowHead, circle, line } from '../symbol'

const OUTPUT = indices('reading')
const CONDITION = indices('overRange')

const [A, B] = [0, 1]

/** Takes no oil; reads p_A − p_B. */
export const differentialGauge = defineKind({
  name: 'differential-gauge',
  label: 'Differential pressure gauge',
  family: 'instruments',
  searchTerms: ['differential gauge', 'pressure drop', 'difference', 'dp gauge'],
  designationLetter: 'S',
  description: 'Shows by how much the pressure of one line is above that of another.',
  ports: [
    { name: 'A', domain: 'oil', role: 'line of the higher pressure' },
    { name: 'B', domain: 'oil', role: 'line of the lower pressure' },
  ],
  parameters: {
    range: quantity('Range', 'pressure', '40 bar', 1e4, 1000e5, {
      note: 'reported when the difference goes beyond it, in either direction',
    }),
  },
  faults: [misread(A)],
  symbol: () => ({
    shapes: [
      circle(0, 0, 2),
      line([-1.1, 1.1], [0.9, -0.9]),
      arrowHead(1.2, -1.2, 1, -1),
      line([-2, 0], [-3, 0], [-3, 3]),
      line([2, 0], [3, 0], [3, 3]),
    ],
    ports: { A: { x: -3, y: 3, side: 'down' }, B: { x: 3, y: 3, side: 'down' } },
    box: { x: -3, y: -2, w: 6, h: 4 },
    reading: 'reading',
  }),
  model: ({ range }) => ({
    outputs: outputSpecs(OUTPUT, { reading: { label: 'reading', quantity: 'pressure' } }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    observe(l) {
      l.o[OUTPUT.reading] = l.p[A] - l.p[B]
      l.c[CONDITION.overRange] = Math.abs(l.o[OUTPUT.reading]) - range
    },
  }),
  describeState: (l, _v, show) => `Reads a difference of ${show(l.o[OUTPUT.reading], 'pressure')}.`,
})
