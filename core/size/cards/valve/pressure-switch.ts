import { card, choice, input, step, warning } from '../../card'

/** Set and reset of a pressure switch between a moving pressure and the relief valve. */
export const pressureSwitch = card({
  id: 'pressure-switch',
  title: 'Pressure switch',
  group: 'valve',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'Switching and reset pressure that tell a motion under way from one that is done.',
  source: 'a switch that is sure: above the moving pressure, below the relief valve, each by its tolerance',
  answer: 'set',
  variables: {
    moving: input('p₁', 'Highest pressure while moving', 'pressure', '40 bar', 0, 700e5, {
      from: 'max:cylinder-motion.movingOut',
    }),
    relief: input('p_c', 'Relief valve opens', 'pressure', '150 bar', 1e5, 700e5, {
      from: 'relief-setting.cracking',
    }),
    wanted: input('p_w', 'Pressure that must be reached', 'pressure', '100 bar', 0, 700e5),
    tolerance: input('k', 'Tolerance of the switch', 'share', '2 %', 0, 0.2),
    differential: input('h', 'Hysteresis', 'share', '10 %', 0.001, 0.9),
    set: choice('p_s', 'Switches at', 'pressure', 'settings', 'max(wanted, moving * 1.1) * (1 + tolerance)', {
      sized: 'switchSet',
      ruler: 'setting',
    }),
    reset: step('p_r', 'Falls back at', 'pressure', 'set * (1 - differential)', {
      sized: 'switchReset',
      ruler: 'setting',
    }),
    highest: step('p_h', 'Highest switching pressure', 'pressure', 'set * (1 + tolerance)'),
  },
  warnings: [
    warning(
      'set',
      'highest >= relief',
      'The relief valve may open before the switch does: it would never switch.',
    ),
    warning('reset', 'reset <= moving', 'It falls back only below the moving pressure: it may stay on.'),
  ],
})
