import { defineKind } from '../kind'
import { line, partOf, rectangle, spring } from '../symbol'
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

// its rod side is open to air: there is nothing for oil to leak into
const { leakage, ...parameters } = cylinderParameters
void leakage
// and its rod takes no area from any oil
const { rod, ...geometry } = cylinderGeometry
void rod
const sized = Object.fromEntries(Object.entries(cylinderSized).filter(([what]) => what !== 'rod'))
const none = { leakage: 0, rod: 0 }

/** Oil at A extends it; its spring or its load brings it back. The equations are those of every cylinder (cylinder.ts). */
export const cylinderSingleActing = defineKind({
  name: 'cylinder-single-acting',
  label: 'Cylinder, single-acting',
  family: 'actuators',
  words: ['single acting', 'plunger', 'spring return', 'jack', 'lift', 'clamp'],
  letter: 'A',
  description: 'Oil at A extends it; a spring or its load brings it back.',
  ports: [{ name: 'A', domain: 'oil', role: 'cap side' }],
  parameters: { ...geometry, ...parameters },
  inputs: cylinderInputs,
  traits: { sized },
  care: 'A raised load can come down when its line opens. Support it mechanically before anyone reaches in.',
  validate: (v) =>
    cylinderProblems({ ...v, ...none }).flatMap(({ parameter, message }) =>
      parameter === 'rod' ? [] : [{ parameter, message }],
    ),
  symbol: (values) => ({
    shapes: [
      rectangle(-5, -1.5, 9, 3),
      { shape: 'oil', port: 'A', at: [-5, -1.5], size: [1, 3], stretch: { part: 'rod', edge: 'right' } },
      rectangle(-5, -1.5, 9, 3, 'none'),
      ...partOf('rod', [rectangle(-4, -1.5, 1, 3), rectangle(-3, -0.4, 8, 0.8)]),
      ...(values.springRate > 0 ? [spring(-1, -0.95, 5, 0.8), spring(-1, 0.95, 5, 0.8)] : []),
      line([-4, 1.5], [-4, 3]),
    ],
    ports: { A: { x: -4, y: 3, side: 'down' } },
    box: { x: -5, y: -1.5, w: 10, h: 3 },
    captionAt: { x: -5, y: -4.8, anchor: 'start' },
    reading: 'position',
    parts: { rod: { signal: 'travelled', zero: 0, travel: 6, full: 1 } },
  }),
  caption: (v, show) => [`⌀ ${show(v.bore, 'length')}`, `stroke ${show(v.stroke, 'length')}`],
  model: (v, fluid) =>
    cylinderModel(
      { ...v, ...none },
      fluid,
      { cap: cylinderAreas(v.bore, 0).cap, annulus: 0 },
      { A: 0, B: -1 },
    ),
  say: (l, _values, show) => cylinderSay(l, show),
})
