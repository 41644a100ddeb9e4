import { defineKind, indices, outputSpecs } from '../kind'
import { circle, line } from '../symbol'

const OUTPUT = indices('reading')

/** A place to put a gauge: takes no oil, reads p. */
export const testPoint = defineKind({
  name: 'test-point',
  label: 'Test point',
  family: 'lines',
  searchTerms: ['test point', 'measuring point', 'diagnostic', 'tp'],
  designationLetter: 'S',
  description: 'Where a gauge can be put on while the line is under pressure.',
  ports: [{ name: 'P', domain: 'oil', role: 'line to be measured' }],
  parameters: {},
  safetyNote:
    'Put a gauge on with the cap tool and the rated hose only; a jet from a loose fitting goes through the skin.',
  traits: { measuringPort: 'P' },
  symbol: () => ({
    shapes: [line([0, 2], [0, 0.6]), circle(0, 0, 0.6), line([-0.9, -0.9], [0.9, -0.9])],
    ports: { P: { x: 0, y: 2, side: 'down' } },
    box: { x: -0.9, y: -0.9, w: 1.8, h: 1.6 },
    reading: 'reading',
  }),
  model: () => ({
    outputs: outputSpecs(OUTPUT, {
      reading: { label: 'reading', quantity: 'pressure' },
    }),
    observe(l) {
      l.o[OUTPUT.reading] = l.p[0]
    },
  }),
  describeState: (l, _v, show) => `A gauge here would read ${show(l.o[OUTPUT.reading], 'pressure')}.`,
})
