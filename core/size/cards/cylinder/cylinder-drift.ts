import { card, input, step, warning } from '../../card'

/** How far a cylinder creeps while it is held. */
export const cylinderDrift = card({
  id: 'cylinder-drift',
  title: 'Drift while held',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'], holding: ['spool', 'pilotCheck', 'counterbalance', 'lock'] },
  about: 'How far the load creeps in the time for which it is held, by leakage of valve and seals.',
  source: 'laminar leakage in proportion to pressure and to 1/ν',
  answer: 'drift',
  variables: {
    force: input('F', 'Force on the rod', 'force', '10 kN', 0, 1e8, {
      from: ['linear-load.drivingBack', 'linear-load.forceOut'],
    }),
    area: input('A', 'Area that holds', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    leakage: input('q', 'Leakage at 100 bar and 46 mm²/s', 'flow', '20 cm³/min', 0, 1e-3, {
      note: 'a spool 10 to 50, a seat below 0.1, good seals none',
    }),
    viscosity: input('ν', 'Viscosity while held', 'viscosity', '46 mm²/s', 1e-6, 5e-3),
    time: input('t', 'Held for', 'time', '600 s', 0, 1e7, { from: 'motion.holdTime' }),
    allowed: input('x_a', 'Allowed drift', 'length', '5 mm', 1e-6, 1, { from: 'motion.accuracy' }),
    pressure: step('p', 'Pressure that holds', 'pressure', 'force / area'),
    flow: step('q₁', 'Leakage at this pressure', 'flow', 'leakage * pressure / 100e5 * 46e-6 / viscosity'),
    speed: step('v', 'Speed of the drift', 'speed', 'flow / area'),
    drift: step('x', 'Drift', 'length', 'speed * time'),
  },
  warnings: [
    warning(
      'drift',
      'drift > allowed',
      'It drifts further than is allowed: hold it with a seat valve, or with a mechanical lock.',
    ),
  ],
  notes: ['No valve alone may hold a load under which somebody works: a mechanical lock belongs under it.'],
})
