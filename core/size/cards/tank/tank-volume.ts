import { card, choice, input, step, warning } from '../../card'

/** Volume of the reservoir, level and sight glass. */
export const tankVolume = card({
  id: 'tank-volume',
  title: 'Reservoir and oil level',
  group: 'tank',
  scope: 'machine',
  applies: {},
  about:
    'Volume by the flow of the pump and by what the rods displace, and the level with all rods in and out.',
  source: 'three to five times the flow a minute as a usual rule; differential volume of the cylinders',
  answer: 'volume',
  variables: {
    flow: input('Q', 'Flow of the pump', 'flow', '35 L/min', 0, 1, {
      from: [
        'pump-displacement.delivered',
        'high-low-pump.delivered',
        'accumulator-cycle.pumpFlow',
        'charge-pump.flow',
        'cycle.peakFlow',
      ],
      required: true,
    }),
    minutes: input('k', 'Dwell of the oil', 'time', '3 min', 1, 3600, {
      note: 'three to five minutes; mobile machines one',
    }),
    difference: input('ΔV', 'Differential volume of all cylinders', 'volume', '1 L', 0, 10, {
      from: 'sum:cylinder-volumes.difference',
    }),
    stored: input('V_a', 'Oil that accumulators give back', 'volume', '0 L', 0, 10, {
      from: 'accumulator-volume.gives',
    }),
    drain: input('V_d', 'Oil of lines that can run back', 'volume', '0.5 L', 0, 10),
    air: input('k_a', 'Air above the highest level', 'share', '15 %', 0, 0.5),
    bottom: input('k_b', 'Below the lowest level', 'share', '40 %', 0.05, 0.9, {
      note: 'so that the inlet stays covered and settled dirt stays down',
    }),
    height: input('H', 'Height of the tank', 'length', '400 mm', 0.05, 5),
    byFlow: step('V₁', 'By the flow', 'volume', 'flow * minutes / (1 - air)'),
    swing: step('V_s', 'Swing between highest and lowest level', 'volume', 'difference + stored + drain'),
    bySwing: step('V₂', 'By the swing', 'volume', 'swing / (1 - air - bottom)', {
      valid: { min: 0, message: 'Air and bottom leave nothing for the swing.' },
    }),
    volume: choice('V', 'Reservoir', 'volume', 'tankVolumes', 'max(byFlow, bySwing)', {}),
    highest: step('h_o', 'Highest level: all rods in, stores empty', 'length', 'height * (1 - air)'),
    lowest: step(
      'h_u',
      'Lowest level: all rods out, stores full',
      'length',
      'height * (1 - air) - height * (difference + stored) / volume',
    ),
    stopped: step(
      'h_s',
      'Level with lines run back',
      'length',
      'height * (1 - air) + height * drain / volume',
    ),
    fill: step('V_f', 'Oil to fill in, rods in', 'volume', 'volume * (1 - air)'),
  },
  warnings: [
    warning(
      'lowest',
      'lowest < height * bottom',
      'With all rods out the level falls below the lowest that was asked for.',
    ),
    warning('stopped', 'stopped > height', 'Oil that runs back overflows the tank: leave more air.'),
  ],
  compare: ['highest', 'lowest', 'heat-balance.temperature'],
})
