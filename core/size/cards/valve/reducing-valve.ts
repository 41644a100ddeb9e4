import { card, choice, input, step, warning } from '../../card'

/** Reduced pressure for a force. */
export const reducingValve = card({
  id: 'reducing-valve',
  title: 'Reducing valve',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear'], onRequest: true },
  about: 'The reduced pressure that limits a force, for example that of a clamp.',
  source: 'balance of forces at the piston',
  answer: 'setting',
  variables: {
    force: input('F', 'Force that is wanted', 'force', '10 kN', 0, 1e8),
    area: input('A₁', 'Area', 'area', '50.27 cm²', 1e-6, 4, { from: 'cylinder-motion.capArea' }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-motion.efficiency',
    }),
    supply: input('p', 'Pressure before it', 'pressure', '150 bar', 1e5, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
    }),
    leakage: input('q', 'Leakage to drain', 'flow', '0.5 L/min', 0, 0.01),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', 'force / (area * efficiency)', {
      sized: 'reducedPressure',
      ruler: 'setting',
    }),
    reached: step('F₁', 'Force that it gives', 'force', 'setting * area * efficiency'),
    heat: step('P', 'Heat while holding', 'power', 'supply * leakage'),
  },
  warnings: [
    warning(
      'setting',
      'setting > supply - 10e5',
      'The reduced pressure lies too close to the pressure before it: the valve stays open.',
    ),
  ],
})
