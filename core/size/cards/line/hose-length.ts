import { card, input, step, warning } from '../../card'

/** Length and bend of a hose. */
export const hoseLength = card({
  id: 'hose-length',
  title: 'Hose: length and bend',
  group: 'line',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'A length that leaves room for the change under pressure, the travel and the smallest bend.',
  source: 'geometry of a half-turn bend; change of length under pressure of −4 to +2 % (ISO 17165-2)',
  answer: 'length',
  variables: {
    radius: input('r', 'Smallest bend radius', 'length', '130 mm', 5e-3, 2, {
      note: 'of the hose at its rated pressure',
    }),
    straight: input('a', 'Straight piece at each end', 'length', '60 mm', 0, 1, {
      note: 'at least one and a half outside diameters',
    }),
    travel: input('s', 'Travel that it follows', 'length', '400 mm', 0, 20),
    change: input('k', 'Shortening under pressure', 'share', '4 %', 0, 0.1),
    length: step(
      'L',
      'Length for a half-turn bend',
      'length',
      '(pi * radius + 2 * straight + travel / 2) / (1 - change)',
    ),
    change1: step('ΔL', 'Change of length under pressure', 'length', 'length * change'),
    distance: step('A', 'Distance of the ends', 'length', '2 * radius'),
  },
  warnings: [warning('straight', 'straight < 0.03', 'Bent close behind its fitting a hose breaks there.')],
})
