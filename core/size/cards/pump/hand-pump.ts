import { card, input, step, warning } from '../../card'

/** Strokes of a hand pump, and the force on its lever. */
export const handPump = card({
  id: 'hand-pump',
  title: 'Hand pump',
  group: 'pump',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'How often somebody must pump, and how hard.',
  source: 'continuity; lever rule',
  answer: 'strokes',
  variables: {
    volume: input('V', 'Oil needed', 'volume', '2 L', 1e-7, 1, { from: 'max:cylinder-volumes.volumeOut' }),
    displacement: input('V_s', 'Oil a double stroke', 'volume', '25 cm³', 1e-8, 1e-3),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '90 %', 0.2, 1),
    pressure: input('p', 'Pressure', 'pressure', '60 bar', 0, 1000e5, { from: 'cycle.pressure' }),
    piston: input('d', 'Piston diameter', 'length', '20 mm', 2e-3, 0.2),
    lever: input('l', 'Length of the lever', 'length', '600 mm', 0.05, 3),
    arm: input('a', 'Distance of the piston from the pivot', 'length', '40 mm', 5e-3, 1),
    efficiency: input('η', 'Mechanical efficiency', 'share', '85 %', 0.2, 1),
    rate: input('f', 'Double strokes', 'rate', '30 1/min', 1e-4, 3),
    strokes: step('z', 'Double strokes', 'ratio', 'volume / (displacement * volumetric)'),
    time: step('t', 'Time', 'time', 'strokes / rate'),
    force: step(
      'F',
      'Force on the lever',
      'force',
      'pressure * pi * piston^2 / 4 * arm / (lever * efficiency)',
    ),
  },
  warnings: [
    warning(
      'force',
      'force > 350',
      'More than about 350 N at the lever is too much for most people over many strokes.',
    ),
    warning(
      'strokes',
      'strokes > 300',
      'Over some hundred strokes nobody keeps pumping: take a larger pump, or two stages.',
    ),
  ],
})
