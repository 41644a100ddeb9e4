import { defineKind } from '../kind'
import {
  reliefCaption,
  reliefFaults,
  reliefInputs,
  reliefModel,
  reliefParameters,
  reliefPorts,
  describeReliefValve,
  reliefSymbol,
  reliefTraits,
} from './relief'

export const reliefValveDirect = defineKind({
  name: 'relief-valve-direct',
  label: 'Relief valve, direct-acting',
  family: 'pressure',
  searchTerms: ['relief', 'pressure relief', 'safety valve', 'prv', 'rv'],
  designationLetter: 'V',
  description: 'A spring holds it shut; the line pressure opens it to tank. Quick, with a large override.',
  guide: {
    acts: 'The line pressure under the poppet works against the spring alone; past cracking it opens further the more flow it must pass.',
    fails:
      'Dirt on the seat keeps it open a little: the pressure creeps down and the oil warms. A broken spring lets the pressure collapse.',
    mistakes:
      'Set by the pressure at full flow instead of at cracking; a shut-off valve between pump and relief; a return line so narrow that its back pressure adds to the setting.',
  },
  ports: reliefPorts,
  parameters: reliefParameters('20 %', '2 ms'),
  inputs: reliefInputs,
  faults: reliefFaults,
  traits: reliefTraits,
  safetyNote: 'A relief protects only the lines that reach it without a valve between.',
  symbol: () => reliefSymbol(false),
  caption: reliefCaption,
  model: (values) => reliefModel(values),
  describeState: describeReliefValve,
})
