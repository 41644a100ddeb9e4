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
  guide: {
    acts: 'A small pilot opens at the setting; its flow drops the pressure over the main stage, which then opens wide with little more pressure.',
    fails:
      'A blocked orifice in the main stage leaves it hanging open; a worn pilot seat lets the pressure wander. It answers slower than a direct-acting one.',
    mistakes:
      'Used where pressure rises in a few milliseconds; its drain led into a line with back pressure, which raises the setting by as much.',
  },
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
