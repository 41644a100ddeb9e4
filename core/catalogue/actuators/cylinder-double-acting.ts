import { defineKind } from '../kind'
import { line, partOf, rectangle } from '../symbol'
import {
  cylinderAreas,
  cylinderGeometry,
  cylinderInputs,
  cylinderModel,
  cylinderParameters,
  cylinderProblems,
  cylinderSay,
  cylinderSized,
} from './cylinder'

/** Oil at both ends; the equations are those of every cylinder (cylinder.ts). */
export const cylinderDoubleActing = defineKind({
  name: 'cylinder-double-acting',
  label: 'Cylinder, double-acting',
  family: 'actuators',
  words: ['cylinder', 'ram', 'jack', 'actuator', 'press'],
  letter: 'A',
  description: 'Oil at A extends the rod, oil at B retracts it.',
  ports: [
    { name: 'A', domain: 'oil', role: 'cap side' },
    { name: 'B', domain: 'oil', role: 'rod side' },
  ],
  parameters: { ...cylinderGeometry, ...cylinderParameters },
  inputs: cylinderInputs,
  traits: { sized: cylinderSized },
  care: 'A raised or pressed load can move when a line opens. Support it mechanically before anyone reaches in.',
  validate: cylinderProblems,
  symbol: () => ({
    shapes: [
      rectangle(-5, -1.5, 9, 3),
      {
        shape: 'oil',
        port: 'A',
        at: [-5, -1.5],
        size: [1, 3],
        stretch: { part: 'rod', edge: 'right' },
      },
      {
        shape: 'oil',
        port: 'B',
        at: [-3, -1.5],
        size: [7, 3],
        stretch: { part: 'rod', edge: 'left' },
      },
      rectangle(-5, -1.5, 9, 3, 'none'),
      ...partOf('rod', [rectangle(-4, -1.5, 1, 3), rectangle(-3, -0.4, 8, 0.8)]),
      line([-4, 1.5], [-4, 3]),
      line([3, 1.5], [3, 3]),
    ],
    ports: { A: { x: -4, y: 3, side: 'down' }, B: { x: 3, y: 3, side: 'down' } },
    box: { x: -5, y: -1.5, w: 10, h: 3 },
    captionAt: { x: -5, y: -4.8, anchor: 'start' },
    reading: 'position',
    parts: { rod: { signal: 'travelled', zero: 0, travel: 6, full: 1 } },
  }),
  caption: (v, show) => [
    `⌀ ${show(v.bore, 'length')} / ${show(v.rod, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model: (v, fluid) => cylinderModel(v, fluid, cylinderAreas(v.bore, v.rod), { A: 0, B: 1 }),
  say: (l, _values, show) => cylinderSay(l, show),
})
