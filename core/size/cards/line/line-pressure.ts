import { card, input } from '../../card'
import { boreVariables } from '../../common-inputs'

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
    ...boreVariables('5 m/s', 'to 100 bar 4 m/s, to 200 bar 5, above it 6', 'pressure'),
  },
  compare: ['speed', 'line-loss.loss'],
})
