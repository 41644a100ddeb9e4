import { card, input, step } from '../../card'

/** Torque and speed that a rotary actuator must give, through a gear where there is one. */
export const rotaryLoad = card({
  id: 'rotary-load',
  title: 'Load of the rotation',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['rotary'] },
  about: 'The torque and the speed that the actuator must give at its own shaft.',
  source: 'Newton’s second law for rotation',
  answer: 'motorTorqueOut',
  variables: {
    torqueOut: input('T₀', 'Torque against it, out', 'torque', '0 N·m', -1e8, 1e8, {
      from: 'motion.torqueOut',
    }),
    torqueBack: input('T₀ᵣ', 'Torque against it, back', 'torque', '0 N·m', -1e8, 1e8, {
      from: ['motion.torqueBack', 'motion.torqueResisting'],
    }),
    frictionTorque: input('T_f', 'Friction torque', 'torque', '0 N·m', 0, 1e8, {
      from: 'motion.frictionTorque',
    }),
    inertia: input('J', 'Moment of inertia', 'inertia', '0 kg·m²', 0, 1e9, { from: 'motion.inertia' }),
    angle: input('φ', 'Angle', 'angle', '180 °', 1e-3, 1e6, { from: 'motion.travel', required: true }),
    outTime: input('t', 'Time out', 'time', '30 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    backTime: input('tᵣ', 'Time back', 'time', '30 s', 0.01, 86400, {
      from: ['motion.backTime', 'motion.outTime'],
      required: true,
    }),
    ramp: input('t_a', 'Time to accelerate', 'time', '2 s', 0.001, 60, { from: 'motion.ramp' }),
    gear: input('i', 'Gear ratio', 'ratio', '1', 0.01, 1000, {
      from: 'motion.gear',
      note: 'turns of the actuator for one of the machine',
    }),
    gearEfficiency: input('η_g', 'Efficiency of the gear', 'share', '95 %', 0.3, 1, {
      note: '100 % without a gear',
    }),
    speedOut: step('ω', 'Speed of the machine, out', 'rotationalSpeed', 'angle / outTime'),
    speedBack: step('ωᵣ', 'Speed of the machine, back', 'rotationalSpeed', 'angle / backTime'),
    accelerating: step('T_a', 'Torque to accelerate, out', 'torque', 'inertia * speedOut / ramp'),
    acceleratingBack: step('T_aᵣ', 'Torque to accelerate, back', 'torque', 'inertia * speedBack / ramp'),
    machineTorqueOut: step(
      'T',
      'Torque at the machine, out',
      'torque',
      'max(0, torqueOut + frictionTorque + accelerating)',
    ),
    machineTorqueBack: step(
      'Tᵣ',
      'Torque at the machine, back',
      'torque',
      'max(0, torqueBack + frictionTorque + acceleratingBack)',
    ),
    motorTorqueOut: step(
      'T_m',
      'Torque of the actuator, out',
      'torque',
      'machineTorqueOut / (gear * gearEfficiency)',
    ),
    motorTorqueBack: step(
      'T_mᵣ',
      'Torque of the actuator, back',
      'torque',
      'machineTorqueBack / (gear * gearEfficiency)',
    ),
    steadyOut: step(
      'T_c',
      'Steady torque of the actuator, out',
      'torque',
      'max(0, torqueOut + frictionTorque) / (gear * gearEfficiency)',
      { note: 'without accelerating' },
    ),
    steadyBack: step(
      'T_cᵣ',
      'Steady torque of the actuator, back',
      'torque',
      'max(0, torqueBack + frictionTorque) / (gear * gearEfficiency)',
      { note: 'without accelerating' },
    ),
    motorSpeedOut: step('ω_m', 'Speed of the actuator, out', 'rotationalSpeed', 'speedOut * gear'),
    motorSpeedBack: step('ω_mᵣ', 'Speed of the actuator, back', 'rotationalSpeed', 'speedBack * gear'),
    motorInertia: step('J_m', 'Inertia at the actuator', 'inertia', 'inertia / gear^2'),
    drivingOut: step(
      'T_d',
      'Torque that drives the actuator, out',
      'torque',
      'max(0, -torqueOut - frictionTorque) * gearEfficiency / gear',
    ),
    drivingBack: step(
      'T_dᵣ',
      'Torque that drives the actuator, back',
      'torque',
      'max(0, -torqueBack - frictionTorque) * gearEfficiency / gear',
    ),
    heldOut: step('T_h', 'Torque to be held against turning out', 'torque', 'max(0, -torqueOut) / gear', {
      note: 'at the actuator; neither friction nor losses of the gear counted on',
    }),
    heldBack: step('T_hᵣ', 'Torque to be held against turning back', 'torque', 'max(0, -torqueBack) / gear', {
      note: 'at the actuator; neither friction nor losses of the gear counted on',
    }),
  },
})
