import { card, input, step } from '../../card'

/** Something that takes a flow at a pressure for a time: a test bench, a flushing line, another machine. */
export const consumer = card({
  id: 'consumer',
  title: 'Consumer',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['flow'] },
  about: 'Flow and pressure that it asks of the supply, the losses on the way included.',
  source: 'sum of pressures along the line',
  answer: 'pressureOut',
  demand: {
    out: {
      flow: 'flowOut',
      pressure: 'pressureOut',
      idlePressure: 'idle',
      speed: ['consumer.pace'],
      load: [],
    },
    back: {
      flow: 'flowOut',
      pressure: 'pressureOut',
      idlePressure: 'idle',
      speed: ['consumer.pace'],
      load: [],
    },
  },
  variables: {
    flow: input('Q', 'Flow', 'flow', '20 L/min', 1e-8, 1, { from: 'motion.flow', required: true }),
    needed: input('p₀', 'Pressure that it needs', 'pressure', '100 bar', 0, 700e5, {
      from: 'motion.pressure',
      required: true,
    }),
    lineLoss: input('Δp', 'Pressure loss to it', 'pressure', '5 bar', 0, 100e5),
    time: input('t', 'Time', 'time', '10 s', 0.01, 86400, { from: 'motion.outTime', required: true }),
    flowOut: step('Q₁', 'Flow asked for', 'flow', 'flow'),
    idle: step('pᵢ', 'Pressure without it', 'pressure', 'lineLoss'),
    pressureOut: step('p', 'Pressure of the supply', 'pressure', 'needed + lineLoss', { ruler: 'working' }),
    volume: step('V', 'Oil that it takes', 'volume', 'flow * time'),
    pace: step('v', 'Share of it a second', 'frequency', '1 / time'),
  },
})
