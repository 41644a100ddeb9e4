import { card, failure, input, step, warning } from '../../card'
import { holdingOption, inducedPressures } from '../../common-inputs'

/** How far a cylinder creeps while it is held. */
export const cylinderDrift = card({
  id: 'cylinder-drift',
  title: 'Drift while held',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'], holding: ['spool', 'pilotCheck', 'counterbalance', 'lock'] },
  about:
    'How far the load creeps in the time for which it is held, by leakage of what really holds it: rod side for a load that drives it out, piston side for one that drives it back.',
  source: 'laminar leakage in proportion to pressure and to 1/ν',
  answer: 'drift',
  variables: {
    holding: holdingOption(),
    ...inducedPressures('50 bar'),
    seals: input('q_s', 'Leakage of the piston seal at 100 bar and 46 mm²/s', 'flow', '0 cm³/min', 0, 1e-3, {
      note: 'good seals none, worn ones 1 to 10',
    }),
    viscosity: input('ν', 'Viscosity while held', 'viscosity', '46 mm²/s', 1e-6, 5e-3),
    time: input('t', 'Held for', 'time', '600 s', 0, 1e7, { from: 'motion.holdTime' }),
    allowed: input('x_a', 'Allowed drift', 'length', '5 mm', 1e-6, 1, { from: 'motion.accuracy' }),
    leakage: step(
      'q',
      'Leakage of what holds at 100 bar and 46 mm²/s',
      'flow',
      'holding <= 1 ? 3.333e-7 : (holding == 3 ? 4.167e-9 : (holding == 2 ? 1.667e-9 : 0))',
      {
        note: 'usual: spool 20 cm³/min, counterbalance valve 0.25, seat 0.1; give that of the valve that is bought',
      },
    ),
    pressure: step('p', 'Pressure that holds', 'pressure', 'max(inducedOut, inducedBack)'),
    area: step('A', 'Area that holds', 'area', 'inducedOut > inducedBack ? rodArea : capArea'),
    flow: step(
      'q₁',
      'Leakage at this pressure',
      'flow',
      'holding == 5 ? 0 : (leakage + seals) * pressure / 100e5 * 46e-6 / viscosity',
      { note: 'a mechanical lock holds without oil' },
    ),
    speed: step('v', 'Speed of the drift', 'speed', 'flow / area'),
    drift: step('x', 'Drift', 'length', 'speed * time'),
  },
  warnings: [
    failure(
      'drift',
      'drift > allowed',
      'It drifts further than is allowed: hold it with a seat valve, or with a mechanical lock.',
    ),
    warning(
      'pressure',
      'pressure == 0 and holding >= 2 and holding <= 3',
      'No load drives this motion, so there is nothing to be held: check slope, mass and signs of the forces.',
    ),
  ],
  notes: ['No valve alone may hold a load under which somebody works: a mechanical lock belongs under it.'],
})
