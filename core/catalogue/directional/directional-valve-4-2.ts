import { defineKind } from '../kind'
import { directional } from './valve'

const design = {
  ports: ['P', 'T', 'A', 'B'],
  places: { A: [-1, -2], B: [1, -2], P: [-1, 2], T: [1, 2] },
  positions: 2,
  functionLabel: 'Function',
  standard: 'crossed',
  functions: {
    crossed: {
      label: 'at rest P to B, A to T',
      boxes: [
        ['P>B', 'A>T'],
        ['P>A', 'B>T'],
      ],
    },
    parallel: {
      label: 'at rest P to A, B to T',
      boxes: [
        ['P>A', 'B>T'],
        ['P>B', 'A>T'],
      ],
    },
    floating: { label: 'at rest A and B to T, P blocked', boxes: [['A-B-T'], ['P>A', 'B>T']] },
  },
} as const

export const directionalValve42 = defineKind({
  name: 'directional-valve-4-2',
  label: 'Directional valve 4/2',
  searchTerms: ['4/2', 'directional', 'four way', 'two position'],
  description:
    'Four ports, two positions: at rest P to B and A to T, actuated P to A and B to T, or as chosen.',
  guide: {
    acts: 'Actuated it joins P to A and B to T, at rest the other way, or as chosen.',
    fails:
      'With a spring it goes back to rest when the voltage fails: the actuator then moves. With a detent it stays.',
    mistakes:
      'Spring return where loss of power must not move anything; impulse valves without knowing where they stand at start.',
  },
  ...directional(design),
})
