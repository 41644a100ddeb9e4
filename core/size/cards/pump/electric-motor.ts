import { card, choice, input, option, step, trade, warning } from '../../card'

/** The motor that drives the pump. */
export const electricMotor = card({
  id: 'electric-motor',
  title: 'Drive motor',
  group: 'pump',
  scope: 'machine',
  applies: {},
  about:
    'Rated power by the greatest load or by the root mean square over the cycle, and the current it takes.',
  source: 'ratings of IEC 60072-1; r.m.s. power for periodic duty after IEC 60034-1',
  answer: 'motor',
  variables: {
    flow: input('Q', 'Flow of the pump', 'flow', '30 L/min', 0, 1, {
      from: ['pump-displacement.delivered', 'closed-circuit-pump.delivered', 'accumulator-cycle.pumpFlow'],
    }),
    pressure: input('p', 'Pressure at full flow', 'pressure', '180 bar', 0, 700e5, {
      from: [
        'load-sensing.compensator',
        'compensated-pump.compensator',
        'closed-circuit-pump.pressure',
        'relief-setting.highest',
        'brief.maximumPressure',
      ],
      note: 'at which the relief valve passes it, on the safe side',
    }),
    overall: input('η', 'Overall efficiency of the pump', 'share', '85 %', 0.1, 1),
    given: input('P₀', 'Shaft power from another card', 'power', '0 kW', 0, 1e7, {
      from: 'high-low-pump.shaftPower',
      note: '0 where flow and pressure count',
    }),
    rmsHydraulic: input('P_q', 'R.m.s. of the hydraulic power over the cycle', 'power', '2 kW', 0, 1e7, {
      from: 'cycle.rmsPower',
    }),
    duty: option(
      '',
      'Rated by',
      'ratio',
      { continuous: [0, 'the greatest load, continuously'], rms: [1, 'the root mean square of the cycle'] },
      'continuous',
    ),
    overload: input('k', 'Short overload that is allowed', 'ratio', '1.5', 1, 3, {
      note: 'for the greatest load, where the motor is rated by r.m.s.',
    }),
    drive: option(
      '',
      'Drive',
      'ratio',
      { electric: [0, 'electric motor'], engine: [1, 'combustion engine'] },
      'electric',
      { from: 'brief.drive' },
    ),
    grid: option('f', 'Grid', 'frequency', { hz50: [50, '50 Hz'], hz60: [60, '60 Hz'] }, 'hz50', {
      from: 'brief.grid',
    }),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    voltage: input('U', 'Voltage', 'voltage', '400 V', 24, 15000, { from: 'brief.voltage' }),
    powerFactor: input('cos φ', 'Power factor at rated load', 'ratio', '0.84', 0.3, 1),
    motorEfficiency: input('η_M', 'Efficiency of the motor', 'share', '89 %', 0.3, 1),
    shaftPower: step('P', 'Greatest shaft power', 'power', 'given > 0 ? given : flow * pressure / overall', {
      trade: trade('given > 0 ? given : flow * pressure / (1714 * overall)', 'hp', {
        given: 'hp',
        flow: 'gpm',
        pressure: 'psi',
        overall: '',
      }),
      measure: { what: 'shaftPower', while: 'run', take: 'most', of: 'motor' },
    }),
    rmsPower: step('P_r', 'R.m.s. shaft power', 'power', 'rmsHydraulic / overall'),
    needed: step(
      'P_n',
      'Rated power needed',
      'power',
      'duty == 1 ? max(rmsPower, shaftPower / overload) : shaftPower',
    ),
    motor: choice('P_M', 'Motor', 'power', 'motorPowers', 'needed', { sized: 'motorPower', atLeast: true }),
    horsepower: choice('P_hp', 'Motor by the horsepower series', 'power', 'horsepowers', 'needed'),
    load: step('k_M', 'Load of the motor at the greatest power', 'share', 'shaftPower / motor'),
    shaftSpeed: step('n_s', 'Shaft speed', 'rotationalSpeed', 'speed', { sized: 'shaftSpeed' }),
    polePairs: step('p_p', 'Pole pairs', 'ratio', 'max(1, round(2 * pi * grid / speed))', {
      note: 'of an induction motor on this grid',
    }),
    synchronous: step('n₀', 'Synchronous speed', 'rotationalSpeed', '2 * pi * grid / polePairs'),
    slip: step('s', 'Slip at the shaft speed', 'share', '1 - speed / synchronous'),
    ratedCurrent: step(
      'I',
      'Current at rated power',
      'current',
      'drive == 1 ? 0 : motor / (sqrt(3) * voltage * powerFactor * motorEfficiency)',
    ),
    idleCurrent: step('I₀', 'Current idle, about', 'current', 'ratedCurrent * sqrt(1 - powerFactor^2)', {
      source: 'reactive part of the rated current',
    }),
    loadedCurrent: step(
      'I₁',
      'Current at the greatest power, about',
      'current',
      'drive == 1 ? 0 : sqrt((shaftPower / (sqrt(3) * voltage * motorEfficiency))^2 + idleCurrent^2)',
    ),
  },
  warnings: [
    warning(
      'speed',
      'drive == 0 and (slip < -0.005 or slip > 0.08)',
      'No induction motor on this grid turns at this speed: take a speed a few per cent below a synchronous one, or a gear or an inverter.',
    ),
    warning(
      'motor',
      'load > overload',
      'The greatest load is more than this motor takes even for a short time.',
    ),
  ],
  compare: ['load', 'ratedCurrent', 'loadedCurrent'],
})
