import { card, chart, failure, input, step, warning } from '../../card'

/** Stopping a turning mass with brake valve or cross-port reliefs: setting against time, angle and torque. */
export const motorBraking = card({
  id: 'motor-braking',
  title: 'Braking',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['motor', 'winch'] },
  about:
    'The setting of brake valve or cross-port relief that stops the motor from its greatest speed in the time that is wanted, and does not open while it drives.',
  source: 'constant torque on a moment of inertia; the efficiency helps when braking',
  answer: 'setting',
  variables: {
    displacement: input('V', 'Displacement of the motor', 'displacement', '100 cm³/rev', 1e-7, 0.1, {
      from: 'motor-displacement.displacement',
      required: true,
    }),
    speedOut: input('ω₁', 'Greatest speed, out', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: ['motor-result.speed', 'motor-displacement.speedOut'],
      required: true,
    }),
    speedBack: input('ω₂', 'Greatest speed, back', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: ['motor-result.speedBack', 'motor-displacement.speedBack'],
    }),
    inertia: input('J', 'Inertia at the motor', 'inertia', '5 kg·m²', 0, 1e9, {
      from: ['rotary-load.motorInertia', 'winch-load.motorInertia'],
    }),
    drivingOut: input('T_d', 'Torque that drives it on, out', 'torque', '0 N·m', 0, 1e8, {
      from: 'rotary-load.drivingOut',
    }),
    drivingBack: input('T_dᵣ', 'Torque that drives it on, back', 'torque', '0 N·m', 0, 1e8, {
      from: ['rotary-load.drivingBack', 'winch-load.drivingBack'],
    }),
    friction: input('T_f', 'Friction that helps', 'torque', '0 N·m', 0, 1e8),
    time: input('t', 'Time to stop', 'time', '1 s', 0.01, 600, { from: 'motion.ramp' }),
    mechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '90 %', 0.2, 1, {
      from: 'motor-displacement.mechanical',
    }),
    inlet: input('p₁', 'Pressure at the inlet while braking', 'pressure', '2 bar', -1e5, 100e5, {
      note: 'tank, or charge pressure',
    }),
    torqueOut: input('T', 'Steady torque that resists, out', 'torque', '100 N·m', 0, 1e8, {
      from: ['rotary-load.steadyOut', 'winch-load.steadyOut'],
    }),
    torqueBack: input('Tᵣ', 'Steady torque that resists, back', 'torque', '100 N·m', 0, 1e8, {
      from: ['rotary-load.steadyBack', 'winch-load.motorTorqueBack'],
    }),
    accelerating: input('T_a', 'Greatest torque that resists, starting out', 'torque', '100 N·m', 0, 1e8, {
      from: 'motor-displacement.torqueOut',
    }),
    acceleratingBack: input(
      'T_aᵣ',
      'Greatest torque that resists, starting back',
      'torque',
      '100 N·m',
      0,
      1e8,
      {
        from: 'motor-displacement.torqueBack',
      },
    ),
    reserve: input('k', 'Setting above what driving needs', 'share', '10 %', 0, 1),
    speed: step('ω', 'Speed from which it is stopped', 'rotationalSpeed', 'max(speedOut, speedBack)'),
    driving: step('T_d₁', 'Torque that drives it on', 'torque', 'max(drivingOut, drivingBack)'),
    torque: step('T_b', 'Braking torque needed', 'torque', 'inertia * speed / time + driving - friction'),
    braking: step(
      'p_b',
      'Setting that brakes in this time',
      'pressure',
      '2 * pi * max(0, torque) * mechanical / displacement + inlet',
      { note: 'outlet against inlet' },
    ),
    needed: step(
      'p_d',
      'Pressure that driving needs',
      'pressure',
      '2 * pi * max(torqueOut, torqueBack) / (displacement * mechanical) + inlet',
    ),
    starting: step(
      'p_a',
      'Pressure that starting in the time to accelerate needs',
      'pressure',
      '2 * pi * max(accelerating, acceleratingBack) / (displacement * mechanical) + inlet',
    ),
    setting: step('p', 'Setting, outlet against inlet', 'pressure', 'max(braking, needed * (1 + reserve))', {
      sized: 'crossPortSetting',
      ruler: 'limit',
    }),
    reached: step(
      'T_r',
      'Torque left to brake with at this setting',
      'torque',
      'max(0, setting - inlet) * displacement / (2 * pi * mechanical) - driving + friction',
    ),
    timeReached: step('t₁', 'Time until it stands', 'time', 'reached > 0 ? inertia * speed / reached : 1e9'),
    angle: step('φ', 'Angle until it stands', 'angle', 'min(1e7, speed * timeReached / 2)', {
      note: 'of the motor',
    }),
    deceleration: step('α', 'Deceleration', 'angularAcceleration', 'speed / max(timeReached, 1e-6)'),
    heat: step('E', 'Heat of a stop', 'energy', 'reached > 0 ? (reached + driving - friction) * angle : 0'),
  },
  warnings: [
    warning('torque', 'torque < 0', 'Friction alone stops it sooner: the setting does not matter.'),
    failure(
      'setting',
      'setting < needed * 0.99999',
      'The valve opens while the motor drives its load: it does not turn. Set it above the pressure that driving needs.',
    ),
    failure(
      'reached',
      'reached <= 0',
      'At this setting the load turns the motor on and on: nothing stops it.',
    ),
    warning(
      'setting',
      'setting >= needed * 0.99999 and setting < starting * 0.99999',
      'The valve opens while the motor starts: it takes longer to reach its speed than was asked for.',
    ),
    warning(
      'setting',
      'braking < needed * (1 + reserve) * 0.99999 and setting >= needed * 0.99999 and timeReached < time * 0.9',
      'Driving needs a higher setting than the stop: it stops sooner than was asked for.',
    ),
    failure(
      'setting',
      'setting > 350e5',
      'The setting is above what ordinary motors take: stop more slowly or brake mechanically.',
    ),
  ],
  notes: [
    'Cross-port reliefs let the oil go round: feed the inlet side, or it runs dry by what the case drain takes.',
  ],
  charts: [chart('Setting over the time to stop', 'time', 'time / 4', 'time * 4', ['braking', 'setting'])],
})
