import { defineKind } from '../kind'
import { directional } from './valve'

const design = {
  ports: ['P', 'T', 'A'],
  places: { A: [-1, -2], P: [-1, 2], T: [1, 2] },
  positions: 2,
  functionLabel: 'Function',
  standard: 'closed',
  functions: {
    closed: { label: 'at rest A to T, P blocked', boxes: [['A>T'], ['P>A']] },
    open: { label: 'at rest P to A, T blocked', boxes: [['P>A'], ['A>T']] },
  },
} as const

export const directionalValve32 = defineKind({
  name: 'directional-valve-3-2',
  label: 'Directional valve 3/2',
  searchTerms: ['3/2', 'three way', 'directional'],
  description: 'Three ports, two positions: joins A to P or to T.',
  guide: {
    acts: 'Actuated it joins A to P, at rest A to T, or as chosen.',
    fails: 'A leaking spool between P and A fills a single-acting cylinder slowly.',
    mistakes: 'A single-acting cylinder whose load cannot push it back; T with back pressure.',
  },
  ...directional(design),
})
