import { card, chart, input, step, warning } from '../../card'

/** Stopping a turning mass with brake valve or cross-port reliefs: setting against time, angle and torque. */
export const motorBraking = card({
  id: 'motor-braking',
  title: 'Braking',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['motor', 'winch'] },
  about: 'The setting of brake valve or cross-port relief that stops the motor in the time that is wanted.',
  source: 'constant torque on a moment of inertia; the efficiency helps when braking',
  answer: 'setting',
  variables: {
    displacement: input('V', 'Displacement of the motor', 'displacement', '100 cm³/rev', 1e-7, 0.1, {
      from: 'motor-displacement.displacement',
      required: true,
    }),
    speed: input('ω', 'Speed of the motor', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: 'motor-displacement.speedOut',
      required: true,
    }),
    inertia: input('J', 'Inertia at the motor', 'inertia', '5 kg·m²', 0, 1e9, {
      from: ['rotary-load.motorInertia', 'winch-load.motorInertia'],
    }),
    driving: input('T_d', 'Torque that drives it on', 'torque', '0 N·m', 0, 1e8, {
      from: ['rotary-load.drivingTorque', 'winch-load.drivingTorque'],
    }),
    friction: input('T_f', 'Friction that helps', 'torque', '0 N·m', 0, 1e8),
    time: input('t', 'Time to stop', 'time', '1 s', 0.01, 600, { from: 'motion.ramp' }),
    mechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '90 %', 0.2, 1, {
      from: 'motor-displacement.mechanical',
    }),
    inlet: input('p₁', 'Pressure at the inlet while braking', 'pressure', '2 bar', -1e5, 100e5, {
      note: 'tank, or charge pressure',
    }),
    torque: step('T_b', 'Braking torque', 'torque', 'inertia * speed / time + driving - friction'),
    setting: step(
      'p',
      'Setting, outlet against inlet',
      'pressure',
      '2 * pi * max(0, torque) * mechanical / displacement + inlet',
      { sized: 'crossPortSetting', ruler: 'limit' },
    ),
    angle: step('φ', 'Angle until it stands', 'angle', 'speed * time / 2'),
    deceleration: step('α', 'Deceleration', 'angularAcceleration', 'speed / time'),
    heat: step('E', 'Heat of a stop', 'energy', 'torque * angle'),
  },
  warnings: [
    warning('torque', 'torque < 0', 'Friction alone stops it sooner: the setting does not matter.'),
    warning(
      'setting',
      'setting > 350e5',
      'The setting is above what ordinary motors take: stop more slowly or brake mechanically.',
    ),
  ],
  notes: [
    'Cross-port reliefs let the oil go round: feed the inlet side, or it runs dry by what the case drain takes.',
  ],
  charts: [chart('Setting over the time to stop', 'time', 'time / 4', 'time * 4', ['setting'])],
})
