import { defineKind } from '../kind'
import { directional } from './valve'

const design = {
  ports: ['P', 'T', 'A', 'B'],
  places: { A: [-1, -2], B: [1, -2], P: [-1, 2], T: [1, 2] },
  positions: 3,
  functionLabel: 'Centre position',
  standard: 'closed',
  functions: {
    closed: { label: 'closed: all ports blocked', boxes: [['P>B', 'A>T'], [], ['P>A', 'B>T']] },
    open: { label: 'open: all ports joined', boxes: [['P>B', 'A>T'], ['P-A-B-T'], ['P>A', 'B>T']] },
    tandem: { label: 'tandem: P to T, A and B blocked', boxes: [['P>B', 'A>T'], ['P-T'], ['P>A', 'B>T']] },
    float: { label: 'float: A and B to T, P blocked', boxes: [['P>B', 'A>T'], ['A-B-T'], ['P>A', 'B>T']] },
    regenerative: {
      label: 'regenerative: P, A and B joined',
      boxes: [['P>B', 'A>T'], ['P-A-B'], ['P>A', 'B>T']],
    },
    aBlocked: { label: 'A blocked, P and B to T', boxes: [['P>B', 'A>T'], ['P-B-T'], ['P>A', 'B>T']] },
    bBlocked: { label: 'B blocked, P and A to T', boxes: [['P>B', 'A>T'], ['P-A-T'], ['P>A', 'B>T']] },
    aToT: { label: 'A to T, P and B blocked', boxes: [['P>B', 'A>T'], ['A-T'], ['P>A', 'B>T']] },
    aJoinsB: { label: 'A and B joined, P and T blocked', boxes: [['P>B', 'A>T'], ['A-B'], ['P>A', 'B>T']] },
    pToA: { label: 'P to A, B and T blocked', boxes: [['P>B', 'A>T'], ['P>A'], ['P>A', 'B>T']] },
    pToB: { label: 'P to B, A and T blocked', boxes: [['P>B', 'A>T'], ['P>B'], ['P>A', 'B>T']] },
    throttledFloat: {
      label: 'throttled float: A and B to T, P blocked',
      boxes: [
        ['P>B', 'A>T'],
        ['A~T', 'B~T'],
        ['P>A', 'B>T'],
      ],
    },
    bToT: { label: 'B to T, P and A blocked', boxes: [['P>B', 'A>T'], ['B-T'], ['P>A', 'B>T']] },
  },
} as const

export const directionalValve43 = defineKind({
  name: 'directional-valve-4-3',
  label: 'Directional valve 4/3',
  searchTerms: ['4/3', 'directional', 'four way', 'three position', 'dcv', 'solenoid valve'],
  description:
    'Four ports, three positions. Position a connects P to A and B to T, position b P to B and A to T; between them its centre.',
  guide: {
    acts: 'Solenoid, lever, pilot or cam push the spool out of its centre, springs bring it back.',
    fails:
      'A sticking spool leaves the machine where it was; coils that are both on burn; leakage lets a load sink.',
    mistakes:
      'A closed centre with pilot-operated checks, which then do not shut; a tandem centre in series without a thought for back pressure; a load left hanging on the spool.',
  },
  ...directional(design),
})
