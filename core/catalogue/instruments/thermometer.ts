import { defineKind, quantity, conditionSpecs, indices, outputSpecs } from '../kind'
import { circle, line } from '../symbol'

const OUTPUT = indices('reading')
const CONDITION = indices('overRange')

/** Shows the temperature of the oil, which is one lump. */
export const thermometer = defineKind({
  name: 'thermometer',
  label: 'Thermometer',
  family: 'instruments',
  searchTerms: ['thermometer', 'temperature gauge', 'temperature indicator'],
  designationLetter: 'S',
  description: 'Shows the temperature of the oil in the tank.',
  ports: [],
  parameters: {
    range: quantity('Range', 'temperature', '100 °C', 273.15, 473.15, {
      note: 'reported when the oil is warmer',
    }),
  },
  symbol: () => ({
    shapes: [circle(0, 0, 2), line([0, -1.3], [0, 0.6]), circle(0, 1, 0.4, 'ink'), line([0, 2], [0, 3])],
    ports: {},
    box: { x: -2, y: -2, w: 4, h: 5 },
    reading: 'reading',
  }),
  model: (v, fluid) => ({
    outputs: outputSpecs(OUTPUT, { reading: { label: 'reading', quantity: 'temperature' } }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning', worst: 'reading' },
    }),
    observe(l) {
      l.o[OUTPUT.reading] = fluid.temperature
      l.c[CONDITION.overRange] = fluid.temperature - v.range
    },
  }),
  describeState: (l, _v, show) => `Reads ${show(l.o[OUTPUT.reading], 'temperature')}.`,
})
