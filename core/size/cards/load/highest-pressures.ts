import { card, failure, input, step } from '../../card'

/** The highest pressure that each line can see, against the class of the machine and the rating of what lies on it. */
export const highestPressures = card({
  id: 'highest-pressures',
  title: 'Highest pressures',
  group: 'valve',
  scope: 'machine',
  applies: {},
  about:
    'The highest pressure of each line (setting, override at the flow that passes, intensification, surge) against the pressure class and the ratings.',
  source: 'the largest of what the other cards give',
  answer: 'highest',
  variables: {
    pumpLine: input('p₁', 'Pump line: relief valve at its flow', 'pressure', '150 bar', 0, 2000e5, {
      from: ['relief-setting.highest', 'closed-circuit-pump.relief'],
    }),
    intensified: input(
      'p₂',
      'Cylinder lines: throttled outlet without load',
      'pressure',
      '0 bar',
      0,
      2000e5,
      {
        from: 'max:flow-control.unloadedOut',
      },
    ),
    intensifiedBack: input(
      'p₂ᵣ',
      'Cylinder lines, back: throttled outlet without load',
      'pressure',
      '0 bar',
      0,
      2000e5,
      { from: 'max:flow-control.unloadedBack' },
    ),
    held: input('p₃', 'Cylinder lines: setting of counterbalance valves', 'pressure', '0 bar', 0, 2000e5, {
      from: 'max:counterbalance.setting',
    }),
    braking: input(
      'p₄',
      'Motor lines: setting of brake or cross-port valves',
      'pressure',
      '0 bar',
      0,
      2000e5,
      {
        from: 'max:motor-braking.setting',
      },
    ),
    surge: input('p₅', 'Pressure line: surge when a valve shuts', 'pressure', '0 bar', 0, 5000e5, {
      from: 'water-hammer.peak',
    }),
    class: input('p_N', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
      required: true,
    }),
    cylinders: input('p_R', 'Lowest rating of the cylinders', 'pressure', '250 bar', 1e5, 1000e5, {
      from: 'min:cylinder-motion.rating',
    }),
    line: input('p_Rₗ', 'Rating of the pressure line', 'pressure', '250 bar', 1e5, 5000e5),
    highest: step(
      'p',
      'Highest pressure',
      'pressure',
      'max(max(pumpLine, max(intensified, intensifiedBack)), max(max(held, braking), surge))',
    ),
    ofClass: step('k', 'Highest pressure, share of the class', 'share', 'highest / class'),
  },
  warnings: [
    failure('pumpLine', 'pumpLine > class * 1.000001', 'The pump line rises above the pressure class.'),
    failure(
      'intensified',
      'max(intensified, intensifiedBack) > class * 1.000001',
      'Intensification raises the outlet of a cylinder above the pressure class: throttle in the inlet, or choose lines and cylinder for this pressure.',
    ),
    failure(
      'held',
      'held > class * 1.000001',
      'A counterbalance valve is set above the pressure class: the line between it and the cylinder sees that.',
    ),
    failure(
      'braking',
      'braking > class * 1.000001',
      'A brake or cross-port valve is set above the pressure class.',
    ),
    failure('surge', 'surge > class * 1.000001', 'The surge rises above the pressure class.'),
    failure(
      'cylinders',
      'max(max(pumpLine, max(intensified, intensifiedBack)), held) > cylinders * 1.000001',
      'A cylinder sees more than its rating.',
    ),
    failure('line', 'max(pumpLine, surge) > line * 1.000001', 'The pressure line sees more than its rating.'),
  ],
})
