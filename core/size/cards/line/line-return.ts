import { card, choice, input, step, trade } from '../../card'

/** Bore of the return line by velocity. */
export const lineReturn = card({
  id: 'line-return',
  title: 'Return line',
  group: 'line',
  scope: 'machine',
  applies: {},
  about: 'Bore of tube or hose for a usual velocity.',
  source: 'continuity; tubes of ISO 10763, hoses of ISO 4397',
  answer: 'bore',
  variables: {
    flow: input('Q', 'Flow', 'flow', '30 L/min', 0, 1, {
      from: ['max:cylinder-motion.returnBack', 'cycle.peakFlow'],
      required: true,
    }),
    velocity: input('v₀', 'Velocity that is allowed', 'speed', '2 m/s', 0.05, 15, {
      note: '1.5 to 2.5 m/s; the piston side gives more than the pump',
    }),
    boreNeeded: step('d₀', 'Bore needed', 'length', 'sqrt(4 * flow / (pi * velocity))', {
      trade: trade('sqrt(0.4085 * flow / velocity)', 'in', { flow: 'gpm', velocity: 'ft/s' }),
    }),
    bore: choice('d', 'Bore of the tube', 'length', 'pipeBores', 'boreNeeded', {
      service: 'return',
      atLeast: true,
    }),
    hose: choice('d_h', 'Hose', 'length', 'hoseBores', 'boreNeeded'),
    speed: step('v', 'Velocity in the tube', 'speed', '4 * flow / (pi * bore^2)', {
      trade: trade('0.4085 * flow / bore^2', 'ft/s', { flow: 'gpm', bore: 'in' }),
    }),
  },
  compare: ['speed', 'line-loss.loss'],
})
