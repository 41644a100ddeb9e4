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

/** Equal ring areas on both sides; the equations are those of every cylinder (cylinder.ts). */
export const cylinderDoubleRod = defineKind({
  name: 'cylinder-double-rod',
  label: 'Cylinder, double-rod',
  family: 'actuators',
  words: ['double rod', 'through rod', 'equal area', 'steering'],
  letter: 'A',
  description: 'A rod at both ends: the same force and speed both ways.',
  ports: [
    { name: 'A', domain: 'oil', role: 'side that moves it out' },
    { name: 'B', domain: 'oil', role: 'side that moves it back' },
  ],
  parameters: { ...cylinderGeometry, ...cylinderParameters },
  inputs: cylinderInputs,
  traits: { sized: cylinderSized },
  validate: cylinderProblems,
  symbol: () => ({
    shapes: [
      rectangle(-5, -1.5, 9, 3),
      { shape: 'oil', port: 'A', at: [-5, -1.5], size: [1, 3], stretch: { part: 'rod', edge: 'right' } },
      { shape: 'oil', port: 'B', at: [-3, -1.5], size: [7, 3], stretch: { part: 'rod', edge: 'left' } },
      rectangle(-5, -1.5, 9, 3, 'none'),
      ...partOf('rod', [
        rectangle(-12, -0.4, 8, 0.8),
        rectangle(-4, -1.5, 1, 3),
        rectangle(-3, -0.4, 8, 0.8),
      ]),
      line([-4, 1.5], [-4, 3]),
      line([3, 1.5], [3, 3]),
    ],
    ports: { A: { x: -4, y: 3, side: 'down' }, B: { x: 3, y: 3, side: 'down' } },
    box: { x: -12, y: -1.5, w: 17, h: 3 },
    captionAt: { x: -5, y: -4.8, anchor: 'start' },
    reading: 'position',
    parts: { rod: { signal: 'travelled', zero: 0, travel: 6, full: 1 } },
  }),
  caption: (v, show) => [
    `⌀ ${show(v.bore, 'length')} / ${show(v.rod, 'length')}`,
    `stroke ${show(v.stroke, 'length')}`,
  ],
  model(v, fluid) {
    const { annulus } = cylinderAreas(v.bore, v.rod)
    return cylinderModel(v, fluid, { cap: annulus, annulus }, { A: 0, B: 1 })
  },
  say: (l, _values, show) => cylinderSay(l, show),
})
