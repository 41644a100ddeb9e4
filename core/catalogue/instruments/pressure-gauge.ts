import { misread } from '../faults'
import { defineKind, quantity, indices, outputSpecs, conditionSpecs } from '../kind'
import { arrowHead, circle, line } from '../symbol'

const OUTPUT = indices('reading')
const CONDITION = indices('overRange')

/** Takes no oil; reads the pressure of its line. */
export const pressureGauge = defineKind({
  name: 'pressure-gauge',
  label: 'Pressure gauge',
  family: 'instruments',
  searchTerms: ['gauge', 'manometer', 'pressure', 'pg'],
  designationLetter: 'S',
  description: 'Shows the pressure of the line it stands on.',
  ports: [{ name: 'P', domain: 'oil', role: 'line to be read' }],
  parameters: {
    range: quantity('Range', 'pressure', '250 bar', 1e5, 2500e5, {
      note: 'reported when the pressure goes beyond it',
    }),
  },
  faults: [misread(0)],
  traits: { measuringPort: 'P', measuringRange: 'range' },
  symbol: () => ({
    shapes: [
      circle(0, 0, 2),
      line([-1.1, 1.1], [0.9, -0.9]),
      arrowHead(1.2, -1.2, 1, -1),
      line([0, 2], [0, 3]),
    ],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -2, y: -2, w: 4, h: 4 },
    reading: 'reading',
  }),
  model: ({ range }) => ({
    outputs: outputSpecs(OUTPUT, {
      reading: { label: 'reading', quantity: 'pressure' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    observe(l) {
      l.o[OUTPUT.reading] = l.p[0]
      l.c[CONDITION.overRange] = l.p[0] - range
    },
  }),
  describeState: (l, _values, show) => `Reads ${show(l.o[OUTPUT.reading], 'pressure')}.`,
})
