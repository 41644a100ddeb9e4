import { defineKind } from '../kind'
import { directional } from './valve'

const design = {
  ports: ['P', 'A'],
  places: { A: [0, -2], P: [0, 2] },
  positions: 2,
  functionLabel: 'Function',
  standard: 'closed',
  functions: {
    closed: { label: 'shut at rest', boxes: [[], ['P>A']] },
    open: { label: 'open at rest', boxes: [['P>A'], []] },
  },
} as const

export const directionalValve22 = defineKind({
  name: 'directional-valve-2-2',
  label: 'Directional valve 2/2',
  searchTerms: ['2/2', 'two way', 'unloading solenoid', 'on off', 'directional'],
  description: 'Two ports, two positions: open or shut.',
  guide: {
    acts: 'Its actuation opens or shuts it; a spring or a detent decides where it rests.',
    fails: 'As a spool it leaks when shut: a load on it sinks.',
    mistakes: 'A spool where a seat is needed; used to vent a relief without an orifice.',
  },
  ...directional(design),
})
