import { card, input, step, warning } from '../../card'

/** Vane actuators and racks: displacement a radian. */
export const semiRotary = card({
  id: 'semi-rotary',
  title: 'Vane or rack actuator',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['rotary'], onRequest: true },
  about: 'Volume for an angle, dimensions of vanes or rack, and the torque that they give.',
  source: 'geometry of a vane between two radii; torque of a rack by its pitch radius',
  answer: 'torque',
  variables: {
    wanted: input('T₀', 'Torque needed', 'torque', '2000 N·m', 0, 1e8, {
      from: 'rotary-load.motorTorqueOut',
    }),
    pressure: input('Δp', 'Pressure difference', 'pressure', '100 bar', 1e5, 700e5, {
      from: 'motor-displacement.difference',
    }),
    vanes: input('z', 'Vanes', 'ratio', '2', 1, 4),
    outer: input('R', 'Outer radius of the vane', 'length', '100 mm', 5e-3, 2),
    inner: input('r', 'Radius of the shaft', 'length', '50 mm', 1e-3, 2),
    width: input('b', 'Width of the vane', 'length', '120 mm', 5e-3, 3),
    rackBore: input('D', 'Bore of the rack', 'length', '80 mm', 5e-3, 2),
    pitchRadius: input('r_p', 'Pitch radius of the pinion', 'length', '60 mm', 5e-3, 2),
    efficiency: input('η', 'Hydro-mechanical efficiency', 'share', '85 %', 0.3, 1),
    angle: input('φ', 'Angle', 'angle', '90 °', 1e-3, 6.28318530718, { from: 'motion.travel' }),
    time: input('t', 'Time', 'time', '5 s', 0.01, 86400, { from: 'motion.outTime' }),
    vaneVolume: step(
      'V_v',
      'Vane actuator, volume of the angle',
      'volume',
      'vanes * width * (outer^2 - inner^2) / 2 * angle',
      { valid: { min: 0, message: 'The shaft is thicker than the vane reaches.' } },
    ),
    torque: step(
      'T_v',
      'Vane actuator, torque',
      'torque',
      'vanes * width * (outer^2 - inner^2) / 2 * pressure * efficiency',
    ),
    rackVolume: step(
      'V_r',
      'Rack actuator, volume of the angle',
      'volume',
      'pi * rackBore^2 / 4 * pitchRadius * angle',
    ),
    rackTorque: step(
      'T_r',
      'Rack actuator, torque',
      'torque',
      'pi * rackBore^2 / 4 * pitchRadius * pressure * efficiency',
    ),
    vaneFlow: step('Q_v', 'Vane actuator, flow', 'flow', 'vaneVolume / time'),
    rackFlow: step('Q_r', 'Rack actuator, flow', 'flow', 'rackVolume / time'),
  },
  warnings: [
    warning('torque', 'torque < wanted', 'These vanes give less than the torque that is needed.'),
    warning('vanes', 'vanes != round(vanes)', 'The number of vanes is a whole number.'),
    warning('angle', 'angle > 2 * pi * 0.97 / vanes', 'So many vanes cannot turn so far.'),
  ],
})
