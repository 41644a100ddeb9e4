import { defineKind } from '../kind'
import { directional } from './valve'

const design = {
  ports: ['P', 'R', 'S', 'A', 'B'],
  places: { A: [-1, -2], B: [1, -2], R: [-1, 2], P: [0, 2], S: [1, 2] },
  positions: 3,
  functionLabel: 'Centre position',
  standard: 'closed',
  functions: {
    closed: { label: 'closed: all ports blocked', boxes: [['P>B', 'A>R'], [], ['P>A', 'B>S']] },
    exhausted: {
      label: 'A to R and B to S, P blocked',
      boxes: [
        ['P>B', 'A>R'],
        ['A>R', 'B>S'],
        ['P>A', 'B>S'],
      ],
    },
    pressurised: {
      label: 'P to A and B, returns blocked',
      boxes: [['P>B', 'A>R'], ['P-A-B'], ['P>A', 'B>S']],
    },
  },
} as const

export const directionalValve53 = defineKind({
  name: 'directional-valve-5-3',
  label: 'Directional valve 5/3',
  searchTerms: ['5/3', 'directional', 'five way', 'two returns'],
  description:
    'Five ports, three positions: as the 4/3, but each working line has a separate return, which can be throttled or led apart.',
  guide: {
    acts: 'As the 4/3, with a separate return for each working line.',
    fails: 'Sticking, burnt coils and leakage as in every spool valve.',
    mistakes: 'The two returns joined again behind different throttles, so that one disturbs the other.',
  },
  ...directional(design),
})
