import { card, choice, input, step, warning } from '../../card'

/** Start–stop against unloading: how often the pump cuts in, and what each costs. */
export const accumulatorCycle = card({
  id: 'accumulator-cycle',
  title: 'Charging: start–stop or unloading',
  group: 'accumulator',
  scope: 'machine',
  applies: { supply: ['accumulator'] },
  about: 'Pump, cut-in and cut-out, how often the motor starts, and the energy of both ways.',
  source: 'oil balance over a charging cycle, gas isothermal; most starts at half the flow of the pump',
  answer: 'starts',
  variables: {
    gasVolume: input('V₀', 'Gas volume', 'volume', '10 L', 1e-5, 10, {
      from: 'accumulator-volume.volume',
      required: true,
    }),
    precharge: input('p₀', 'Precharge', 'pressure', '90 bar', 1e5, 700e5, {
      from: 'accumulator-volume.precharge',
      required: true,
    }),
    low: input('p₁', 'Cut-in', 'pressure', '120 bar', 1e5, 700e5, { from: 'accumulator-volume.low' }),
    high: input('p₂', 'Cut-out', 'pressure', '150 bar', 1e5, 700e5, { from: 'accumulator-volume.high' }),
    air: input('p_a', 'Pressure of the air', 'pressure', '1.01325 bar', 0.5e5, 1.1e5),
    consumption: input('Q_m', 'Mean consumption', 'flow', '2 L/min', 0, 1, { from: 'cycle.meanFlow' }),
    chargeTime: input('t_c', 'Time to charge', 'time', '10 s', 0.1, 36000, {
      note: 'from cut-in to cut-out',
    }),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '92 %', 0.2, 1),
    overall: input('η', 'Overall efficiency', 'share', '85 %', 0.1, 1),
    unloaded: input('p_u', 'Pressure while unloaded', 'pressure', '4 bar', 0, 50e5),
    hours: input('t_d', 'Hours a day', 'time', '8 h', 60, 86400, { from: 'brief.hoursPerDay' }),
    allowedStarts: input('z_a', 'Starts that the motor allows', 'rate', '20 1/h', 1e-5, 1),
    oil: step(
      'ΔV',
      'Oil between cut-in and cut-out',
      'volume',
      'gasVolume * (precharge + air) * (1 / (max(low, precharge) + air) - 1 / (high + air))',
      { valid: { min: 0, message: 'Cut-out must lie above cut-in.' } },
    ),
    displacement: choice(
      'V',
      'Displacement of the pump',
      'displacement',
      'displacements',
      '(oil / chargeTime + consumption) * 2 * pi / (speed * volumetric)',
      { sized: 'displacement' },
    ),
    pumpFlow: step('Q', 'Flow of the pump', 'flow', 'displacement * speed / (2 * pi) * volumetric'),
    charging: step('t₁', 'Time to charge', 'time', 'oil / (pumpFlow - consumption)', {
      valid: { min: 0, message: 'The pump gives less than the mean consumption: pressure is never reached.' },
    }),
    pause: step('t₂', 'Pause', 'time', 'oil / max(consumption, 1e-9)'),
    starts: step('z', 'Starts', 'rate', '1 / (charging + pause)'),
    mostStarts: step('z_m', 'Most starts at any consumption', 'rate', 'pumpFlow / (4 * oil)', {
      note: 'at a consumption of half the flow of the pump',
    }),
    loaded: step('k', 'Share of the time loaded', 'share', 'charging / (charging + pause)'),
    chargePower: step('P', 'Shaft power while charging', 'power', 'pumpFlow * (low + high) / 2 / overall'),
    idlePower: step('P_u', 'Shaft power unloaded', 'power', 'pumpFlow * unloaded / overall'),
    startStop: step('E_s', 'Energy a day, start–stop', 'energy', 'chargePower * loaded * hours'),
    unloading: step(
      'E_u',
      'Energy a day, unloaded',
      'energy',
      '(chargePower * loaded + idlePower * (1 - loaded)) * hours',
    ),
    heat: step('P_w', 'Heat of the unloaded pump', 'power', 'idlePower * (1 - loaded)'),
    cutIn: choice('p_e', 'Pressure switch, cut-in', 'pressure', 'settings', 'low', {
      sized: 'switchReset',
      ruler: 'setting',
    }),
    cutOut: choice('p_s', 'Pressure switch or unloading valve, cut-out', 'pressure', 'settings', 'high', {
      rounding: 'down',
      sized: 'switchSet',
      ruler: 'setting',
    }),
    unloadAt: choice('p_v', 'Setting of the unloading valve', 'pressure', 'settings', 'high', {
      rounding: 'down',
      sized: 'unloadSetting',
    }),
  },
  warnings: [
    warning(
      'starts',
      'starts > allowedStarts',
      'The motor starts more often than it may: unload the pump instead, or take a larger accumulator.',
    ),
    warning(
      'mostStarts',
      'starts <= allowedStarts and mostStarts > allowedStarts',
      'With another consumption the motor may start too often: limit the starts, or unload the pump.',
    ),
  ],
  compare: ['charging', 'starts', 'mostStarts', 'chargePower', 'electric-motor.motor'],
})
