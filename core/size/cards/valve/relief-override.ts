import { card, chart, failure, input, option, step } from '../../card'

/** The pressure of a relief valve at a part of its rated flow. */
export const reliefOverride = card({
  id: 'relief-override',
  title: 'Relief valve at partial flow',
  group: 'valve',
  scope: 'machine',
  applies: { onRequest: true },
  about:
    'The pressure at which a relief valve passes a flow, by its setting, its override and its rated flow.',
  source: 'override (p_full − p_crack) / p_full as a straight line of flow over pressure',
  answer: 'pressure',
  variables: {
    setting: input('p_s', 'Setting', 'pressure', '150 bar', 1e5, 700e5, { from: 'relief-setting.setting' }),
    settingAt: option(
      '',
      'Setting named at',
      'ratio',
      { ratedFlow: [1, 'rated flow'], cracking: [0, 'cracking'] },
      'ratedFlow',
    ),
    override: input('o', 'Override', 'share', '20 %', 0.005, 0.6, {
      from: 'relief-setting.override',
      note: 'about 20 % direct-acting, 6 % pilot-operated',
    }),
    rated: input('q_r', 'Rated flow', 'flow', '40 L/min', 1e-7, 1, { from: 'relief-setting.rated' }),
    flow: input('Q', 'Flow that passes', 'flow', '10 L/min', 0, 1, { from: 'relief-setting.flow' }),
    full: step(
      'p_f',
      'Pressure at rated flow',
      'pressure',
      'settingAt == 1 ? setting : setting / (1 - override)',
    ),
    cracking: step('p_c', 'Pressure at which it opens', 'pressure', 'full * (1 - override)'),
    pressure: step('p', 'Pressure at this flow', 'pressure', 'cracking + (full - cracking) * flow / rated'),
    above: step('Δp', 'Above cracking', 'pressure', 'pressure - cracking'),
    heat: step('P', 'Heat', 'power', 'pressure * flow'),
  },
  warnings: [failure('flow', 'flow > rated', 'More than its rated flow: the pressure rises without limit.')],
  charts: [chart('Pressure over flow', 'flow', '0', 'rated', ['pressure'], ['setting'])],
})
