import { card, choice, input, step, warning } from '../../card'

/** Band in which a sequence valve keeps the order of two motions. */
export const sequenceSetting = card({
  id: 'sequence-setting',
  title: 'Sequence valve',
  group: 'valve',
  scope: 'machine',
  applies: { actuators: ['linear'], onRequest: true },
  about:
    'The band between the pressure of the first motion and the relief valve in which the order is kept, and a setting in it.',
  source: 'pressures of the motions; the middle of the band',
  answer: 'setting',
  variables: {
    moving: input('p₁', 'Highest pressure while the first motion moves', 'pressure', '35 bar', 0, 700e5, {
      from: 'max:cylinder-motion.movingOut',
      note: 'that of the surge when it starts, where it is known',
    }),
    next: input('p₂', 'Lowest pressure at which the next may start', 'pressure', '60 bar', 0, 700e5, {
      note: 'for example that at which the clamp holds',
    }),
    relief: input('p_c', 'Relief valve opens', 'pressure', '150 bar', 1e5, 700e5, {
      from: 'relief-setting.cracking',
      required: true,
    }),
    range: input('r', 'From opening to fully open', 'pressure', '5 bar', 0, 100e5),
    reserve: input('k', 'Distance from both ends', 'pressure', '10 bar', 0, 100e5),
    low: step('p_l', 'Lowest setting', 'pressure', 'max(moving, next) + reserve'),
    high: step('p_h', 'Highest setting', 'pressure', 'relief - range - reserve'),
    band: step('b', 'Width of the band', 'pressure', 'high - low'),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', '(low + high) / 2', {
      rounding: 'down',
      sized: 'sequenceSetting',
      ruler: 'setting',
    }),
  },
  warnings: [
    warning(
      'band',
      'band < 0',
      'There is no setting that keeps the order: raise the relief valve, or lower the pressure of the first motion.',
    ),
    warning('setting', 'setting < low or setting > high', 'This setting lies outside the band.'),
  ],
  notes: [
    'Pressure tells that something has met resistance, not that it has arrived: where a jam would be dangerous, a position switch belongs to it.',
  ],
})
