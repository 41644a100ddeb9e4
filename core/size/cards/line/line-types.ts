import { assessLines } from '../../hose-types'
import { card, failure, input, step } from '../../card'

/** Which tubes and hoses carry the pressure of the machine at the bore of its pressure line. */
export const lineTypes = card({
  id: 'line-types',
  title: 'Tubes and hoses by pressure',
  group: 'line',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'The list of standard tubes and hoses of at least a bore, each with the pressure that it carries.',
  source: 'ISO 10763 with Barlow’s formula; ISO 1436, ISO 3862',
  answer: 'wanted',
  variables: {
    pressure: input('p', 'Highest pressure', 'pressure', '160 bar', 0, 2000e5, {
      from: ['highest-pressures.highest', 'brief.maximumPressure'],
    }),
    bore: input('d', 'Bore needed', 'length', '12 mm', 1e-3, 0.2, { from: 'line-pressure.boreNeeded' }),
    strength: input('R_m', 'Tensile strength of the tube', 'stress', '360 MPa', 50e6, 2e9, {
      from: 'line-wall.strength',
    }),
    safety: input('S', 'Safety factor of the tube', 'ratio', '4', 1, 10, { from: 'line-wall.safety' }),
    surges: input('k', 'Added for surges', 'share', '0 %', 0, 1),
    wanted: step('p_w', 'Working pressure that the line must have', 'pressure', 'pressure * (1 + surges)'),
    wall: step(
      's',
      'Wall of a tube of this bore',
      'length',
      'wanted * bore / (2 * (strength / safety - wanted))',
    ),
  },
  warnings: [
    failure('wall', 'wall <= 0', 'No tube of this strength carries the pressure with the safety asked for.'),
  ],
  assess: ({ wanted, bore, strength, safety }) => assessLines(wanted, bore, strength, safety),
})
