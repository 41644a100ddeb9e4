import { defineKind } from '../kind'
import { line } from '../symbol'

/** Closes a line: no flow. */
export const plug = defineKind({
  name: 'plug',
  label: 'Plugged port',
  family: 'lines',
  searchTerms: ['plug', 'blank', 'closed end'],
  designationLetter: 'Z',
  role: 'plug',
  description: 'Closes the end of a line on purpose.',
  ports: [{ name: 'A', domain: 'oil', role: 'line that is closed' }],
  parameters: {},
  symbol: () => ({
    shapes: [line([0, -1], [0, 0]), line([-0.6, -0.6], [0.6, 0.6]), line([-0.6, 0.6], [0.6, -0.6])],
    ports: { A: { x: 0, y: -1, side: 'up' } },
    box: { x: -0.6, y: -0.6, w: 1.2, h: 1.2 },
  }),
  model: () => ({}),
  describeState: (l, _values, show) => `Holds ${show(l.p[0], 'pressure')}.`,
})
