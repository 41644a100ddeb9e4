import { defineKind } from '../kind'
import {
  directionalInputs,
  directionalModel,
  directionalParameters,
  directionalPorts,
  directionalSay,
  directionalSymbol,
  directionalTraits,
} from './valve'

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
  family: 'directional',
  words: ['2/2', 'two way', 'unloading solenoid', 'on off', 'directional'],
  letter: 'V',
  description: 'Two ports, two positions: open or shut.',
  ports: directionalPorts(design),
  parameters: directionalParameters(design),
  inputs: directionalInputs(design),
  traits: directionalTraits(design),
  care: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  symbol: (values) => directionalSymbol(design, values),
  model: (values, fluid) => directionalModel(design, values, fluid),
  say: (l, values, show) => directionalSay(design, l, values, show),
})
