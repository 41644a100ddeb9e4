import { defineKind, quantity } from '../kind'
import { line } from '../symbol'

/** Holds its line at a pressure: p = p_tank (gauge). Any number on a sheet is one tank drawn often. */
export const reservoir = defineKind({
  name: 'reservoir',
  label: 'Reservoir',
  family: 'supply',
  words: ['tank', 'oil tank', 'return to tank'],
  letter: 'Z',
  description: 'The oil tank. Draw it wherever a line starts from or returns to tank.',
  ports: [{ name: 'T', domain: 'oil', role: 'line to the tank', imposes: true }],
  parameters: {
    pressure: quantity('Tank pressure', 'pressure', '0 bar', 0, 10e5, {
      note: '0 for a vented tank; the air pressure above the oil for a pressurised one',
    }),
  },
  traits: { tank: ['T'] },
  symbol: () => ({
    shapes: [line([-2, -1], [-2, 1], [2, 1], [2, -1]), line([0, -2], [0, 0.5])],
    ports: { T: { x: 0, y: -2, side: 'up' } },
    box: { x: -2, y: -1.2, w: 4, h: 2.2 },
  }),
  model: ({ pressure }) => ({
    impose(l) {
      l.p[0] = pressure
    },
    evaluate() {},
  }),
  say: (l, _values, show) =>
    l.q[0] >= 0
      ? `Takes back ${show(l.q[0], 'flow')} from this line.`
      : `Gives ${show(-l.q[0], 'flow')} to this line.`,
})
