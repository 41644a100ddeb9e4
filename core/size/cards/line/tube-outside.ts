import { card, choice, failure, input, relation, step, trade } from '../../card'

/** Wall and bore of a tube of a given outside diameter. */
export const tubeOutside = card({
  id: 'tube-outside',
  title: 'Wall by the outside diameter',
  group: 'line',
  scope: 'machine',
  applies: { onRequest: true },
  about:
    'The wall that a tube of this outside diameter needs for a pressure, and the bore and speed it leaves.',
  source: 'Barlow’s formula for the outside diameter; walls of ISO 10763',
  answer: 'wall',
  variables: {
    outside: input('D', 'Outside diameter', 'length', '20 mm', 2e-3, 1, { from: 'line-wall.outside' }),
    pressure: input('p', 'Highest pressure', 'pressure', '200 bar', 0, 2000e5, {
      from: ['highest-pressures.highest', 'brief.maximumPressure'],
    }),
    strength: input('R_m', 'Tensile strength', 'stress', '360 MPa', 50e6, 2e9, {
      note: 'cold-drawn precision tube of soft steel',
    }),
    safety: input('S', 'Safety factor', 'ratio', '4', 1, 10),
    flow: input('Q', 'Flow', 'flow', '30 L/min', 0, 1, { from: ['line-pressure.flow', 'cycle.peakFlow'] }),
    wallNeeded: step('s₀', 'Wall needed', 'length', 'pressure * outside * safety / (2 * strength)', {
      trade: trade('pressure * outside * safety / (2 * strength)', 'in', {
        pressure: 'psi',
        outside: 'in',
        safety: '',
        strength: 'psi',
      }),
    }),
    wall: choice('s', 'Wall', 'length', 'tubeWalls', 'wallNeeded'),
    bore: step('d', 'Bore that is left', 'length', 'outside - 2 * wall'),
    rating: step('p_R', 'Rating of this tube', 'pressure', '2 * strength * wall / (safety * outside)'),
    burst: step('p_B', 'Burst pressure, about', 'pressure', '2 * strength * wall / outside'),
    speed: step('v', 'Velocity in it', 'speed', '4 * flow / (pi * bore^2)'),
  },
  relations: [
    relation(
      'wall',
      '2 * wall < outside',
      'The wall needed leaves no bore: take a larger or a stronger tube.',
    ),
  ],
  warnings: [
    failure(
      'rating',
      'rating < pressure * 0.99999',
      'This wall does not carry the pressure with the safety asked for.',
    ),
  ],
})
