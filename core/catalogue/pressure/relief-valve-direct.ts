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
