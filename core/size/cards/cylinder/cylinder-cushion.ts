import { card, input, step, warning } from '../../card'

/** Energy that the end cushions take, and the pressure that it makes. */
export const cylinderCushion = card({
  id: 'cylinder-cushion',
  title: 'End cushion',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['doubleActing', 'doubleRod'] },
  about: 'Whether the cushion can stop what moves without too high a pressure.',
  source:
    'energy of the mass and work of the driving pressure over the cushion; peak by the factor of a cushion of constant throttling',
  answer: 'peak',
  variables: {
    mass: input('m', 'Moved mass', 'mass', '450 kg', 0, 1e7, { from: 'motion.mass' }),
    speed: input('v', 'Speed at the cushion', 'speed', '100 mm/s', 0, 20, {
      from: 'cylinder-motion.speedOut',
      required: true,
    }),
    drivingPressure: input('p₁', 'Driving pressure', 'pressure', '50 bar', 0, 700e5, {
      from: 'cylinder-motion.movingOut',
      note: 'on the piston side, without work',
    }),
    capArea: input('A₁', 'Driving area', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    cushionArea: input('A_c', 'Area of the cushion', 'area', '28 cm²', 1e-6, 4, {
      from: 'cylinder-motion.rodArea',
      note: 'rod side less the cushion spear',
    }),
    length: input('s_c', 'Length of the cushion', 'length', '20 mm', 1e-3, 0.5),
    helping: input('F_d', 'Load that drives on', 'force', '0 N', 0, 1e8, { from: 'linear-load.drivingOut' }),
    shape: input('k', 'Peak over mean pressure', 'ratio', '2', 1, 4, {
      note: '2 for one fixed throttle, nearly 1 for a stepped spear',
    }),
    allowed: input('p_max', 'Allowed pressure in the cushion', 'pressure', '350 bar', 1e5, 1500e5),
    kinetic: step('E', 'Energy of the mass', 'energy', 'mass * speed^2 / 2'),
    driving: step(
      'W',
      'Work of pressure and load',
      'energy',
      '(drivingPressure * capArea + helping) * length',
    ),
    mean: step(
      'p_c',
      'Mean pressure in the cushion',
      'pressure',
      '(kinetic + driving) / (cushionArea * length)',
    ),
    peak: step(
      'p_k',
      'Peak pressure',
      'pressure',
      'shape * kinetic / (cushionArea * length) + driving / (cushionArea * length)',
    ),
    deceleration: step('a', 'Mean deceleration', 'acceleration', 'speed^2 / (2 * length)'),
  },
  warnings: [
    warning(
      'peak',
      'peak > allowed',
      'The cushion would see too high a pressure: slow down before it, or stop against an external damper.',
    ),
  ],
})
