import { defineKind } from '../kind'
import {
  reliefCaption,
  reliefFaults,
  reliefInputs,
  reliefModel,
  reliefParameters,
  reliefPorts,
  reliefSay,
  reliefSymbol,
  reliefTraits,
} from './relief'

export const reliefValvePilotOperated = defineKind({
  name: 'relief-valve-pilot-operated',
  label: 'Relief valve, pilot-operated',
  family: 'pressure',
  words: ['piloted relief', 'two-stage relief', 'relief pilot operated', 'porv'],
  letter: 'V',
  description: 'A small pilot stage opens the main stage. Flat override, slower to answer.',
  ports: reliefPorts,
  parameters: reliefParameters('6 %', '15 ms'),
  inputs: reliefInputs,
  faults: reliefFaults,
  traits: reliefTraits,
  care: 'Slower than a direct-acting valve: look at the peak pressure, not only at the setting.',
  forms: true,
  symbol: (_values, form) => reliefSymbol(true, 'knob', form),
  caption: reliefCaption,
  model: (values) => reliefModel(values),
  say: reliefSay,
})
