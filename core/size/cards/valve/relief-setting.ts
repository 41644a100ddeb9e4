import { card, choice, failure, input, option, step, warning } from '../../card'

/** Setting of the main relief valve, by either convention. */
export const reliefSetting = card({
  id: 'relief-setting',
  title: 'Relief valve',
  group: 'valve',
  scope: 'machine',
  applies: { supply: ['fixedPump', 'highLow', 'compensated', 'loadSensing', 'accumulator'] },
  about:
    'A setting that loses no oil while the machine works and stays within the pressure class at the flow that the valve must pass; named at cracking or at rated flow.',
  source:
    'override (p_full − p_crack) / p_full as a straight line of flow over pressure; rounded up to 5 bar',
  answer: 'setting',
  variables: {
    working: input('p', 'Highest working pressure', 'pressure', '120 bar', 0, 700e5, {
      from: [
        'load-sensing.compensator',
        'compensated-pump.compensator',
        'accumulator-volume.high',
        'working-pressure.highest',
      ],
      required: true,
    }),
    margin: input('m', 'Cracking above working pressure', 'share', '10 %', 0, 1, {
      from: 'pressure-levels.margin',
    }),
    override: input('o', 'Override', 'share', '6 %', 0.005, 0.6, {
      from: 'pressure-levels.override',
      note: 'about 20 % direct-acting, 6 % pilot-operated',
    }),
    settingAt: option(
      '',
      'Setting named at',
      'ratio',
      { ratedFlow: [1, 'rated flow'], cracking: [0, 'cracking'] },
      'ratedFlow',
    ),
    flow: input('Q', 'Flow that it must pass', 'flow', '30 L/min', 0, 1, {
      from: [
        'pump-displacement.delivered',
        'high-low-pump.highFlow',
        'accumulator-cycle.pumpFlow',
        'cycle.peakFlow',
      ],
      note: 'all that the pump gives at this pressure',
    }),
    class: input('p_N', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    rating: input('p_R', 'Lowest rating on the line', 'pressure', '250 bar', 1e5, 1000e5, {
      from: 'min:cylinder-motion.rating',
    }),
    crack: step('p_c', 'Cracking pressure, at least', 'pressure', 'working * (1 + margin)'),
    fullNeeded: step('p_f₀', 'Pressure at rated flow, at least', 'pressure', 'crack / (1 - override)'),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', 'settingAt == 1 ? fullNeeded : crack', {
      sized: 'reliefSetting',
    }),
    rated: choice('q_r', 'Rated flow', 'flow', 'valveFlows', 'flow', { sized: 'reliefFlow', atLeast: true }),
    full: step(
      'p_f',
      'Pressure at rated flow',
      'pressure',
      'settingAt == 1 ? setting : setting / (1 - override)',
    ),
    cracking: step('p_c₁', 'Pressure at which it opens', 'pressure', 'full * (1 - override)', {
      ruler: 'limit',
    }),
    highest: step(
      'p_h',
      'Pressure at the flow that it passes',
      'pressure',
      'cracking + (full - cracking) * flow / rated',
      {
        ruler: 'limit',
        note: 'the override in proportion to the flow',
        measure: { what: 'pressure', while: 'run', take: 'most', of: 'setting' },
      },
    ),
  },
  warnings: [
    failure(
      'highest',
      'highest > class * 1.000001',
      'At the flow that it passes the pressure rises above the pressure class: take a valve with less override, a smaller margin, or larger actuators.',
    ),
    failure(
      'highest',
      'highest > rating * 1.000001',
      'At the flow that it passes the pressure rises above the rating of what lies on the line.',
    ),
    warning(
      'setting',
      'cracking < working * 1.0001',
      'The valve opens below the working pressure: oil and speed are lost.',
    ),
    failure(
      'rated',
      'flow > rated * 1.000001',
      'The valve must pass more than its rated flow: the pressure rises above the setting without limit.',
    ),
  ],
  notes: [
    'Some offices name the pressure at which the valve starts to open, others that at rated flow. The sheet says which; keep both in mind when a knob is set on the machine.',
  ],
  compare: ['highest', 'cracking', 'electric-motor.motor'],
})
