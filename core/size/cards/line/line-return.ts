import { card, input } from '../../card'
import { boreVariables } from '../../common-inputs'

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
      from: ['max:flow-control.greatestReturn', 'max:cylinder-motion.returnBack', 'cycle.peakFlow'],
      required: true,
    }),
    ...boreVariables('2 m/s', '1.5 to 2.5 m/s; the piston side gives more than the pump', 'return'),
  },
  compare: ['speed', 'line-loss.loss'],
})
