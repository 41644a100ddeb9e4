import { card, choice, input, step, trade } from '../../card'

/** Bore of the case and drain line by velocity. */
export const lineDrain = card({
  id: 'line-drain',
  title: 'Case and drain line',
  group: 'line',
  scope: 'machine',
  applies: { actuators: ['motor', 'winch'] },
  about: 'Bore of tube or hose for a usual velocity.',
  source: 'continuity; tubes of ISO 10763, hoses of ISO 4397',
  answer: 'bore',
  variables: {
    flow: input('Q', 'Flow', 'flow', '30 L/min', 0, 1, {
      from: ['sum:motor-displacement.caseFlow'],
      required: true,
    }),
    velocity: input('v₀', 'Velocity that is allowed', 'speed', '1 m/s', 0.05, 15, {
      note: 'below 1 m/s, so that no pressure stands in the case',
    }),
    boreNeeded: step('d₀', 'Bore needed', 'length', 'sqrt(4 * flow / (pi * velocity))', {
      trade: trade('sqrt(0.4085 * flow / velocity)', 'in', { flow: 'gpm', velocity: 'ft/s' }),
    }),
    bore: choice('d', 'Bore of the tube', 'length', 'pipeBores', 'boreNeeded', {
      service: 'drain',
      atLeast: true,
    }),
    hose: choice('d_h', 'Hose', 'length', 'hoseBores', 'boreNeeded'),
    speed: step('v', 'Velocity in the tube', 'speed', '4 * flow / (pi * bore^2)', {
      trade: trade('0.4085 * flow / bore^2', 'ft/s', { flow: 'gpm', bore: 'in' }),
    }),
  },
  compare: ['speed', 'line-loss.loss'],
})
