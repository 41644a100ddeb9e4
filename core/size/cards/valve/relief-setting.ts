import { card, choice, input, option, step, warning } from '../../card'

/** Setting of the main relief valve, by either convention. */
export const reliefSetting = card({
  id: 'relief-setting',
  title: 'Relief valve',
  group: 'valve',
  scope: 'machine',
  applies: { supply: ['fixedPump', 'highLow', 'compensated', 'loadSensing', 'accumulator'] },
  about: 'A setting that loses no oil while the machine works, named at cracking or at rated flow.',
  source:
    'override (p_full − p_crack) / p_full as a straight line of flow over pressure; rounded up to 5 bar',
  answer: 'setting',
  variables: {
    working: input('p', 'Highest working pressure', 'pressure', '150 bar', 0, 700e5, {
      from: [
        'load-sensing.compensator',
        'compensated-pump.compensator',
        'accumulator-volume.high',
        'working-pressure.highest',
      ],
      required: true,
    }),
    margin: input('m', 'Cracking above working pressure', 'share', '10 %', 0, 1),
    override: input('o', 'Override', 'share', '20 %', 0.005, 0.6, {
      note: 'about 20 % direct-acting, 6 % pilot-operated',
    }),
    settingAt: option(
      '',
      'Setting named at',
      'ratio',
      { ratedFlow: [1, 'rated flow'], cracking: [0, 'cracking'] },
      'ratedFlow',
    ),
    rating: input('p_R', 'Lowest rating on the line', 'pressure', '250 bar', 1e5, 1000e5),
    crack: step('p_c', 'Cracking pressure, at least', 'pressure', 'working * (1 + margin)'),
    fullNeeded: step('p_f₀', 'Pressure at rated flow, at least', 'pressure', 'crack / (1 - override)'),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', 'settingAt == 1 ? fullNeeded : crack', {
      sized: 'reliefSetting',
    }),
    full: step(
      'p_f',
      'Pressure at rated flow',
      'pressure',
      'settingAt == 1 ? setting : setting / (1 - override)',
      { ruler: 'limit', measure: { what: 'pressure', while: 'run', take: 'most', of: 'setting' } },
    ),
    cracking: step('p_c₁', 'Pressure at which it opens', 'pressure', 'full * (1 - override)', {
      ruler: 'limit',
    }),
  },
  warnings: [
    warning(
      'full',
      'full > rating',
      'At full flow the pressure rises above the rating of what lies on the line: take a valve with less override, or a smaller margin.',
    ),
    warning(
      'setting',
      'cracking < working * 1.0001',
      'The valve opens below the working pressure: oil and speed are lost.',
    ),
  ],
  notes: [
    'Some offices name the pressure at which the valve starts to open, others that at rated flow. The sheet says which; keep both in mind when a knob is set on the machine.',
  ],
  compare: ['full', 'cracking', 'electric-motor.motor'],
})
