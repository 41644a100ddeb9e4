import { card, failure, input, step } from '../../card'

/** Energy that the end cushions take, and the pressure that it makes. */
export const cylinderCushion = card({
  id: 'cylinder-cushion',
  title: 'End cushion',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['doubleActing', 'doubleRod'] },
  about:
    'Whether the cushions at both ends can stop what moves without too high a pressure, at the greatest speed that can occur.',
  source:
    'energy of the mass and work of the driving pressure over the cushion; peak by the factor of a cushion of constant throttling',
  answer: 'peak',
  variables: {
    mass: input('m', 'Moved mass', 'mass', '450 kg', 0, 1e7, { from: 'motion.mass' }),
    speed: input('v', 'Greatest speed, out', 'speed', '100 mm/s', 0, 20, {
      from: ['cylinder-result.speedOut', 'cylinder-motion.speedOut'],
      required: true,
    }),
    speedBack: input('vᵣ', 'Greatest speed, back', 'speed', '100 mm/s', 0, 20, {
      from: ['cylinder-result.speedBack', 'cylinder-motion.speedBack'],
    }),
    drivingPressure: input('p₁', 'Driving pressure, out', 'pressure', '50 bar', 0, 700e5, {
      from: 'cylinder-motion.movingOut',
      note: 'on the piston side, without work',
    }),
    drivingBackPressure: input('p₁ᵣ', 'Driving pressure, back', 'pressure', '50 bar', 0, 700e5, {
      from: 'cylinder-motion.movingBack',
      note: 'on the rod side, without work',
    }),
    capArea: input('A₁', 'Area, extending', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    rodArea: input('A₂', 'Area, retracting', 'area', '28 cm²', 1e-6, 4, {
      from: 'cylinder-motion.rodArea',
    }),
    spear: input('k_c', 'Area of the cushion spear, share', 'share', '20 %', 0, 0.9, {
      note: 'of the area on which the cushion acts',
    }),
    length: input('s_c', 'Length of the cushion', 'length', '20 mm', 1e-3, 0.5),
    helping: input('F_d', 'Load that drives it, out', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.drivingOut',
    }),
    helpingBack: input('F_dᵣ', 'Load that drives it, back', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.drivingBack',
    }),
    shape: input('k', 'Peak over mean pressure', 'ratio', '2', 1, 4, {
      note: '2 for one fixed throttle, nearly 1 for a stepped spear',
    }),
    allowed: input('p_max', 'Allowed pressure in the cushion', 'pressure', '350 bar', 1e5, 1500e5),
    cushionArea: step('A_c', 'Area of the cushion, out', 'area', 'rodArea * (1 - spear)', {
      note: 'on the rod side',
    }),
    cushionAreaBack: step('A_cᵣ', 'Area of the cushion, back', 'area', 'capArea * (1 - spear)', {
      note: 'on the piston side',
    }),
    kinetic: step('E', 'Energy of the mass, out', 'energy', 'mass * speed^2 / 2'),
    kineticBack: step('Eᵣ', 'Energy of the mass, back', 'energy', 'mass * speedBack^2 / 2'),
    driving: step(
      'W',
      'Work of pressure and load, out',
      'energy',
      '(drivingPressure * capArea + helping) * length',
    ),
    drivingBack: step(
      'Wᵣ',
      'Work of pressure and load, back',
      'energy',
      '(drivingBackPressure * rodArea + helpingBack) * length',
    ),
    mean: step(
      'p_c',
      'Mean pressure in the cushion, out',
      'pressure',
      '(kinetic + driving) / (cushionArea * length)',
    ),
    peak: step(
      'p_k',
      'Peak pressure, out',
      'pressure',
      '(shape * kinetic + driving) / (cushionArea * length)',
    ),
    peakBack: step(
      'p_kᵣ',
      'Peak pressure, back',
      'pressure',
      '(shape * kineticBack + drivingBack) / (cushionAreaBack * length)',
    ),
    deceleration: step('a', 'Mean deceleration, out', 'acceleration', 'speed^2 / (2 * length)'),
    decelerationBack: step('aᵣ', 'Mean deceleration, back', 'acceleration', 'speedBack^2 / (2 * length)'),
  },
  warnings: [
    failure(
      'peak',
      'peak > allowed',
      'The cushion would see too high a pressure going out: slow down before it, or stop against an external damper.',
    ),
    failure(
      'peakBack',
      'peakBack > allowed',
      'The cushion would see too high a pressure coming back: slow down before it, or stop against an external damper.',
    ),
  ],
})
