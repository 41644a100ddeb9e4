import { defineKind, quantity, indices, inputSpecs } from '../kind'
import {
  loadTorqueInput,
  motorSafetyNote,
  motorFaults,
  motorModel,
  motorParameters,
  motorPorts,
  describeMotor,
  motorSymbol,
  motorTraits,
} from './motor'

const INPUT = indices('loadTorque')

/** Its displacement is always the whole: u = 1. The equations are those of every motor (motor.ts). */
export const hydraulicMotor = defineKind({
  name: 'hydraulic-motor',
  label: 'Hydraulic motor, fixed, two directions',
  family: 'actuators',
  searchTerms: ['hydraulic motor', 'motor', 'hydromotor', 'rotary', 'hm'],
  designationLetter: 'A',
  description:
    'Oil from A to B turns it one way, from B to A the other. Its leakage leaves by the case drain L.',
  ports: motorPorts,
  parameters: {
    displacement: quantity('Displacement', 'displacement', '55 cm³/rev', 1e-8, 2e-2),
    ...motorParameters,
  },
  inputs: inputSpecs(INPUT, { loadTorque: loadTorqueInput }),
  faults: motorFaults,
  traits: motorTraits,
  safetyNote: motorSafetyNote,
  symbol: () => motorSymbol(),
  caption: (values, show) => [show(values.displacement, 'displacement')],
  model: (values, fluid) => motorModel(values, fluid, () => 1),
  describeState: (l, _values, show) => describeMotor(l, show),
})
