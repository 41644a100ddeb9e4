import { defineKind, quantity, indices, inputSpecs } from '../kind'
import { adjustable } from '../symbol-elements'
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

const INPUT = indices('loadTorque', 'swing')

/** Its displacement follows its command between a least and the whole: u = max(u_min, command). The equations are those of every motor (motor.ts). */
export const hydraulicMotorVariable = defineKind({
  name: 'hydraulic-motor-variable',
  label: 'Hydraulic motor, variable, two directions',
  family: 'actuators',
  searchTerms: ['variable motor', 'hydraulic motor', 'secondary control', 'two-speed motor'],
  designationLetter: 'A',
  description: 'Set back, it turns faster with less torque from the same flow.',
  ports: motorPorts,
  parameters: {
    displacement: quantity('Displacement, total', 'displacement', '80 cm³/rev', 1e-8, 2e-2),
    least: quantity('Minimum displacement', 'share', '30 %', 0.05, 1, {
      note: 'of the whole; a stop keeps it from running away',
    }),
    swing: quantity('Set displacement', 'share', '100 %', 0, 1, { note: 'without a schedule' }),
    ...motorParameters,
  },
  inputs: inputSpecs(INPUT, {
    loadTorque: loadTorqueInput,
    swing: { label: 'displacement', quantity: 'share', rest: 'swing', min: 0, max: 1, electric: 'signal' },
  }),
  faults: motorFaults,
  traits: motorTraits,
  safetyNote: motorSafetyNote,
  symbol: () => motorSymbol(adjustable(0, 0, 2.8)),
  caption: (values, show) => [show(values.displacement, 'displacement')],
  model: (values, fluid) =>
    motorModel(values, fluid, (l) => (l.u[INPUT.swing] > values.least ? l.u[INPUT.swing] : values.least)),
  describeState: (l, v, show) =>
    `At ${Math.round(Math.max(l.u[INPUT.swing], v.least) * 100)} % of its displacement. ${describeMotor(l, show)}`,
})
