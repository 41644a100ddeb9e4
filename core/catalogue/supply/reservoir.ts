import { ATMOSPHERE } from '../../units/quantities'
import { yesNo } from '../faults'
import { defineKind } from '../kind'
import { lineEnd, OIL, reservoirItem, reservoirModel, reservoirParameters } from '../tank'
import { line } from '../symbol'

/** A tank where one line begins or ends; any number on a sheet are one tank drawn often, or two. */
export const reservoir = defineKind({
  name: 'reservoir',
  label: 'Reservoir',
  family: 'supply',
  searchTerms: ['tank', 'oil tank', 'return to tank', 'res'],
  designationLetter: 'Z',
  description: 'The oil tank. Draw it wherever a line starts from or returns to tank.',
  ports: [{ name: 'T', domain: 'oil', role: 'line to the tank', imposes: true }],
  parameters: { line: lineEnd('Line ends'), ...reservoirParameters() },
  sharedItem: reservoirItem,
  traits: { tankPorts: ['T'] },
  faults: [
    {
      name: 'lost',
      label: 'line torn off: air ingestion',
      form: 'lost',
      ...yesNo,
      afterImpose(l, amount) {
        if (amount > 0.5) l.p[0] = -ATMOSPHERE
      },
    },
  ],
  symbol: (values) => ({
    shapes: [
      line([-2, -1], [-2, 1], [2, 1], [2, -1]),
      line([0, -2], values.line === 'below' ? [0, 0.5] : [0, -1]),
      ...(values.pressure > 0 ? [line([-2, -1], [2, -1])] : []),
    ],
    ports: { T: { x: 0, y: -2, side: 'up' } },
    box: { x: -2, y: -1.2, w: 4, h: 2.2 },
  }),
  model: (values, fluid) => reservoirModel(values, fluid, [values.line]),
  describeState: (l, _values, show) =>
    `${l.q[0] >= 0 ? `Takes back ${show(l.q[0], 'flow')} from` : `Gives ${show(-l.q[0], 'flow')} to`} this line; ${show(l.o[OIL], 'volume')} in the tank.`,
})
