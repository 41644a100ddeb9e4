import { card, input, step } from '../../card'

/** Oil for a number of strokes without the pump. */
export const accumulatorStrokes = card({
  id: 'accumulator-strokes',
  title: 'Strokes without the pump',
  group: 'accumulator',
  scope: 'machine',
  applies: { supply: ['accumulator'] },
  about: 'Oil for the strokes that must be possible when the pump stands.',
  source: 'sum of the volumes of the strokes and of the leakage',
  answer: 'oil',
  variables: {
    stroke: input('V', 'Oil for one stroke of all motions', 'volume', '1 L', 1e-7, 10, {
      from: 'sum:cylinder-volumes.volumeOut',
      required: true,
    }),
    strokes: input('z', 'Strokes', 'ratio', '1', 1, 1000),
    leakage: input('q', 'Leakage', 'flow', '0.1 L/min', 0, 0.01),
    time: input('t', 'Time until the last stroke', 'time', '60 s', 0, 1e7),
    oil: step('ΔV', 'Oil that must be there', 'volume', 'stroke * strokes + leakage * time'),
  },
})
