import { card, choice, input, step, trade } from '../../card'

/** Bore of the pressure line by velocity. */
export const linePressure = card({
  id: 'line-pressure',
  title: 'Pressure line',
  group: 'line',
  scope: 'machine',
  applies: {},
  about: 'Bore of tube or hose for a usual velocity.',
  source: 'continuity; tubes of ISO 10763, hoses of ISO 4397',
  answer: 'bore',
  variables: {
    flow: input('Q', 'Flow', 'flow', '30 L/min', 0, 1, {
      from: [
        'pump-displacement.delivered',
        'high-low-pump.delivered',
        'closed-circuit-pump.delivered',
        'accumulator-cycle.pumpFlow',
        'cycle.peakFlow',
      ],
      required: true,
    }),
    velocity: input('v₀', 'Velocity that is allowed', 'speed', '5 m/s', 0.05, 15, {
      note: 'to 100 bar 4 m/s, to 200 bar 5, above it 6',
    }),
    boreNeeded: step('d₀', 'Bore needed', 'length', 'sqrt(4 * flow / (pi * velocity))', {
      trade: trade('sqrt(0.4085 * flow / velocity)', 'in', { flow: 'gpm', velocity: 'ft/s' }),
    }),
    bore: choice('d', 'Bore of the tube', 'length', 'pipeBores', 'boreNeeded', {
      service: 'pressure',
      atLeast: true,
    }),
    hose: choice('d_h', 'Hose', 'length', 'hoseBores', 'boreNeeded'),
    speed: step('v', 'Velocity in the tube', 'speed', '4 * flow / (pi * bore^2)', {
      trade: trade('0.4085 * flow / bore^2', 'ft/s', { flow: 'gpm', bore: 'in' }),
    }),
  },
  compare: ['speed', 'line-loss.loss'],
})
