import { card, choice, input, step, trade, warning } from '../../card'

/** Wall of a tube for a pressure. */
export const lineWall = card({
  id: 'line-wall',
  title: 'Wall of the pressure line',
  group: 'line',
  scope: 'machine',
  applies: {},
  about: 'The wall that carries the pressure with a safety factor, and the rating of the tube.',
  source: 'Barlow’s formula for the outside diameter',
  answer: 'wall',
  variables: {
    pressure: input('p', 'Highest pressure', 'pressure', '200 bar', 0, 2000e5, {
      from: ['highest-pressures.highest', 'relief-setting.highest', 'brief.maximumPressure'],
      required: true,
    }),
    bore: input('d', 'Bore', 'length', '13 mm', 1e-3, 1, { from: 'line-pressure.bore', required: true }),
    strength: input('R_m', 'Tensile strength', 'stress', '360 MPa', 50e6, 2e9, {
      note: 'cold-drawn precision tube of soft steel',
    }),
    safety: input('S', 'Safety factor', 'ratio', '4', 1, 10),
    wallNeeded: step(
      's₀',
      'Wall needed',
      'length',
      'pressure * bore / (2 * (strength / safety - pressure))',
      {
        valid: { min: 0, message: 'The strength divided by the safety factor is below the pressure.' },
      },
    ),
    wall: choice('s', 'Wall', 'length', 'tubeWalls', 'wallNeeded'),
    outside: step('D', 'Outside diameter', 'length', 'bore + 2 * wall'),
    rating: step('p_R', 'Rating of this tube', 'pressure', '2 * strength * wall / (safety * outside)', {
      trade: trade('2 * strength * wall / (safety * outside)', 'psi', {
        strength: 'psi',
        wall: 'in',
        safety: '',
        outside: 'in',
      }),
      ruler: 'rating',
    }),
    burst: step('p_B', 'Burst pressure, about', 'pressure', '2 * strength * wall / outside'),
  },
  warnings: [
    warning('safety', 'safety < 3.5', 'Safety factors below about 4 need proof, and shocks counted in.'),
  ],
  compare: ['rating', 'burst', 'outside'],
})
