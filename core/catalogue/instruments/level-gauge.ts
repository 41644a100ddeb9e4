import { defineKind, quantity, conditionSpecs, indices, outputSpecs } from '../kind'
import { tankIndex, tankParameter } from '../tank'
import { circle, line } from '../symbol'

const OUTPUT = indices('reading')
const CONDITION = indices('low')

/** A window in the tank: shows the oil in it between two marks. */
export const levelGauge = defineKind({
  name: 'level-gauge',
  label: 'Sight level gauge',
  family: 'instruments',
  searchTerms: ['level gauge', 'sight glass', 'oil level', 'level indicator'],
  designationLetter: 'S',
  description: 'Shows the level of the oil in the tank through a window.',
  ports: [],
  parameters: {
    lowest: quantity('Lower mark', 'volume', '60 L', 1e-5, 1000, {
      note: 'oil in the tank; reported when it falls below',
    }),
    tank: tankParameter(),
  },
  symbol: () => ({
    shapes: [
      circle(0, 0, 2),
      line([-2, 0], [-1.4, 0], [-0.7, -0.6], [0, 0], [0.7, -0.6], [1.4, 0], [2, 0]),
      line([0, 2], [0, 3]),
    ],
    ports: {},
    box: { x: -2, y: -2, w: 4, h: 5 },
    reading: 'reading',
  }),
  caption: (v, show) => [`above ${show(v.lowest, 'volume')}`],
  model(v, fluid) {
    const tank = tankIndex(v)
    return {
      outputs: outputSpecs(OUTPUT, { reading: { label: 'oil in the tank', quantity: 'volume' } }),
      conditions: conditionSpecs(CONDITION, {
        low: { label: 'level below the lower mark', severity: 'warning' },
      }),
      observe(l) {
        l.o[OUTPUT.reading] = fluid.tanks[tank]
        l.c[CONDITION.low] = v.lowest - fluid.tanks[tank]
      },
    }
  },
  describeState: (l, _v, show) => `Shows ${show(l.o[OUTPUT.reading], 'volume')}.`,
})
