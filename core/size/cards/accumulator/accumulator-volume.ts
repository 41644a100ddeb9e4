import { card, chart, choice, input, option, step, warning } from '../../card'

/** Gas volume and precharge of an accumulator that gives a volume between two pressures. */
export const accumulatorVolume = card({
  id: 'accumulator-volume',
  title: 'Accumulator',
  group: 'accumulator',
  scope: 'machine',
  applies: { supply: ['accumulator'] },
  about: 'Gas volume and precharge for the oil that is discharged between two pressures.',
  source:
    'polytropic change of state, p · Vⁿ constant with absolute pressures; real nitrogen by the equation of Peng and Robinson at constant temperature',
  answer: 'volume',
  variables: {
    oil: input('ΔV', 'Oil that is discharged', 'volume', '2 L', 1e-6, 10, {
      from: ['accumulator-strokes.oil', 'cycle.volume'],
      required: true,
    }),
    low: input('p₁', 'Lowest working pressure', 'pressure', '100 bar', 1e5, 700e5, {
      from: 'working-pressure.highest',
      required: true,
    }),
    high: input('p₂', 'Highest working pressure', 'pressure', '160 bar', 1e5, 1000e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
      required: true,
    }),
    share: input('k', 'Precharge, share of the lowest pressure', 'share', '90 %', 0.2, 1, {
      note: 'absolute pressures; 90 % for bladders, 100 % for weights',
    }),
    charging: input('n_c', 'Exponent, charging', 'ratio', '1', 1, 2, {
      note: '1 isothermal (slow), 1.4 adiabatic (fast)',
    }),
    discharging: input('n_d', 'Exponent, discharging', 'ratio', '1.4', 1, 2),
    gas: option(
      '',
      'Gas',
      'ratio',
      { ideal: [0, 'ideal'], real: [1, 'real nitrogen, constant temperature'] },
      'ideal',
    ),
    temperature: input('ϑ', 'Gas temperature', 'temperature', '20 °C', 233.15, 353.15),
    air: input('p_a', 'Pressure of the air', 'pressure', '1.01325 bar', 0.5e5, 1.1e5),
    looked: input('p', 'Pressure that is looked at', 'pressure', '130 bar', 0, 1000e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
    }),
    precharge: step('p₀', 'Precharge', 'pressure', 'share * (low + air) - air', {
      sized: 'precharge',
      ruler: 'setting',
    }),
    full: step(
      'V₂/V₀',
      'Gas left when full, of the whole',
      'ratio',
      'gas == 1 ? nitrogenDensity(precharge + air, temperature) / nitrogenDensity(high + air, temperature) : ((precharge + air) / (high + air))^(1 / charging)',
    ),
    emptied: step(
      'V₁/V₀',
      'Gas at the lowest pressure, of the whole',
      'ratio',
      'gas == 1 ? nitrogenDensity(precharge + air, temperature) / nitrogenDensity(low + air, temperature) : full * ((high + air) / (low + air))^(1 / discharging)',
    ),
    usable: step('ΔV/V₀', 'Share of the gas volume that gives oil', 'ratio', 'min(1, emptied) - full', {
      valid: { min: 0, message: 'The highest pressure must lie above the lowest.' },
    }),
    needed: step('V₀₀', 'Gas volume needed', 'volume', 'oil / usable'),
    volume: choice('V₀', 'Gas volume', 'volume', 'accumulatorVolumes', 'needed', {
      sized: 'accumulatorVolume',
      atLeast: true,
    }),
    gives: step('ΔV₁', 'Oil that this one gives', 'volume', 'volume * usable'),
    content: step(
      'V_o',
      'Oil in it at this pressure, charged slowly',
      'volume',
      'looked <= precharge ? 0 : volume * (1 - ((precharge + air) / (looked + air))^(1 / charging))',
    ),
    ratio: step('r', 'Highest pressure to precharge', 'ratio', '(high + air) / (precharge + air)'),
    energy: step(
      'E',
      'Energy stored when full, about',
      'energy',
      '(high + air) * volume * full * log(max(1, ratio))',
      { note: 'isothermal' },
    ),
  },
  warnings: [
    warning(
      'ratio',
      'ratio > 4',
      'A bladder is folded too tightly above four times its precharge: take a piston accumulator or a narrower band.',
    ),
    warning('usable', 'usable <= 0', 'Nothing is discharged between these pressures.'),
    warning(
      'high',
      'gas == 0 and high > 200e5',
      'Above about 200 bar nitrogen is not an ideal gas: the accumulator gives noticeably less. Choose real nitrogen.',
    ),
  ],
  notes: [
    'An accumulator is a pressure vessel: rules for pressure vessels and local codes hold. Shut it off and relieve it before any work; oil that is trapped stays under pressure when the machine is off.',
  ],
  compare: ['gives', 'ratio', 'energy'],
  charts: [
    chart('Oil in it over pressure', 'looked', '0', 'high * 1.1', ['content']),
    chart('Oil that it gives over the lowest pressure', 'low', 'high / 4', 'high', ['gives'], ['oil']),
  ],
})
