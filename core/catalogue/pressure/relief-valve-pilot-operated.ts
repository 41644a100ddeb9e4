import { defineKind } from '../kind'
import {
  reliefCaption,
  reliefFaults,
  reliefInputs,
  reliefModel,
  reliefParameters,
  reliefSection,
  reliefPorts,
  describeReliefValve,
  reliefSymbol,
  reliefTraits,
} from './relief'

export const reliefValvePilotOperated = defineKind({
  name: 'relief-valve-pilot-operated',
  label: 'Relief valve, pilot-operated',
  family: 'pressure',
  searchTerms: ['piloted relief', 'two-stage relief', 'relief pilot operated', 'porv'],
  designationLetter: 'V',
  description: 'A small pilot stage opens the main stage. Flat override, slower to answer.',
  ports: reliefPorts,
  parameters: reliefParameters('6 %', '15 ms'),
  inputs: reliefInputs,
  faults: reliefFaults,
  traits: reliefTraits,
  safetyNote: 'Slower than a direct-acting valve: look at the peak pressure, not only at the setting.',
  forms: true,
  symbol: (_values, form) => reliefSymbol(true, 'knob', form),
  caption: reliefCaption,
  section: reliefSection,
  model: (values) => reliefModel(values),
  describeState: describeReliefValve,
})
