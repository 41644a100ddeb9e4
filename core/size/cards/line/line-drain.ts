import { card, input } from '../../card'
import { boreVariables } from '../../common-inputs'

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
    ...boreVariables('1 m/s', 'below 1 m/s, so that no pressure stands in the case', 'drain'),
  },
  compare: ['speed', 'line-loss.loss'],
})
