import { card, input, step } from '../../card'

/** A pull on a rope as torque and speed of the motor that turns the drum. */
export const winchLoad = card({
  id: 'winch-load',
  title: 'Load of the winch',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['winch'] },
  about: 'Pull and speed of the rope as torque and speed of the motor behind the gear.',
  source: 'lever rule at the drum',
  answer: 'motorTorqueOut',
  variables: {
    pullOut: input('F', 'Pull, hauling in', 'force', '20 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    steadyPull: input('F_c', 'Steady pull, hauling in', 'force', '18 kN', 0, 1e8, {
      from: 'linear-load.forceMoving',
    }),
    pullBack: input('Fᵣ', 'Pull needed to pay out', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.forceBack',
    }),
    driving: input('F_d', 'Pull that drives it, paying out', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.drivingBack',
    }),
    held: input('F_h', 'Pull to be held', 'force', '0 N', 0, 1e8, { from: 'linear-load.heldBack' }),
    ropeSpeedOut: input('v', 'Rope speed, hauling in', 'speed', '12 m/min', 1e-6, 20, {
      from: 'linear-load.speedOut',
      required: true,
    }),
    ropeSpeedBack: input('vᵣ', 'Rope speed, paying out', 'speed', '12 m/min', 1e-6, 20, {
      from: 'linear-load.speedBack',
      required: true,
    }),
    mass: input('m', 'Moved mass', 'mass', '0 kg', 0, 1e7, { from: 'motion.mass' }),
    drum: input('D', 'Drum diameter', 'length', '400 mm', 0.02, 10, {
      from: 'motion.drum',
      required: true,
      note: 'to the middle of the rope, on the layer that is pulled',
    }),
    gear: input('i', 'Gear ratio', 'ratio', '20', 0.01, 1000, { from: 'motion.gear' }),
    gearEfficiency: input('η_g', 'Efficiency of drum and gear', 'share', '90 %', 0.3, 1),
    drumTorque: step('T_D', 'Torque at the drum', 'torque', 'pullOut * drum / 2'),
    motorTorqueOut: step(
      'T_m',
      'Torque of the motor, hauling in',
      'torque',
      'drumTorque / (gear * gearEfficiency)',
    ),
    motorTorqueBack: step(
      'T_mᵣ',
      'Torque of the motor, paying out',
      'torque',
      'pullBack * drum / 2 / (gear * gearEfficiency)',
    ),
    steadyOut: step(
      'T_c',
      'Steady torque of the motor, hauling in',
      'torque',
      'steadyPull * drum / 2 / (gear * gearEfficiency)',
      { note: 'without accelerating' },
    ),
    motorSpeedOut: step(
      'ω_m',
      'Speed of the motor, hauling in',
      'rotationalSpeed',
      'ropeSpeedOut / (drum / 2) * gear',
    ),
    motorSpeedBack: step(
      'ω_mᵣ',
      'Speed of the motor, paying out',
      'rotationalSpeed',
      'ropeSpeedBack / (drum / 2) * gear',
    ),
    motorInertia: step('J_m', 'Inertia of the load at the motor', 'inertia', 'mass * (drum / 2 / gear)^2'),
    drivingBack: step(
      'T_d',
      'Torque that drives the motor, paying out',
      'torque',
      'driving * drum / 2 * gearEfficiency / gear',
    ),
    heldBack: step('T_h', 'Torque to be held at the motor', 'torque', 'held * drum / 2 / gear', {
      note: 'losses of the gear not counted on',
    }),
    power: step('P', 'Power at the rope', 'power', 'pullOut * ropeSpeedOut'),
  },
})
