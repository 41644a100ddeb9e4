import { card, failure, input, step, warning } from '../../card'
import { inducedPressures } from '../../common-inputs'

/** Pressure that opens a pilot-operated check valve against a load. */
export const pilotCheck = card({
  id: 'pilot-check',
  title: 'Pilot-operated check valve',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear'], holding: ['pilotCheck', 'lock'] },
  about:
    'The pilot pressure that opens the check valve against the load on the side that holds it, and whether it is there.',
  source: 'balance of the pilot piston: R · (p_X − p_Y) = p_B − p_A + p_crack',
  answer: 'pilot',
  variables: {
    ...inducedPressures('60 bar'),
    ratio: input('R', 'Pilot ratio', 'ratio', '3', 0.5, 20),
    crack: input('p_c', 'Cracking pressure', 'pressure', '1 bar', 0, 50e5),
    back: input('p_A', 'Pressure behind the valve', 'pressure', '5 bar', 0, 300e5),
    available: input('p', 'Pressure that is there', 'pressure', '150 bar', 0, 700e5, {
      from: ['relief-setting.cracking', 'brief.maximumPressure'],
    }),
    induced: step('p_L', 'Pressure that the load induces', 'pressure', 'max(inducedOut, inducedBack)'),
    areaRatio: step(
      'φ',
      'Area of the other side, share',
      'ratio',
      'inducedOut > inducedBack and rodArea > 0 ? capArea / rodArea : rodArea / capArea',
    ),
    pilot: step(
      'p_X',
      'Pilot pressure that opens it',
      'pressure',
      'max(0, (induced + crack + (ratio - 1) * back) / max(ratio - areaRatio, 1e-9))',
      {
        note: 'the pilot pressure also acts on the other side of the cylinder and raises the pressure to be opened; internally drained',
      },
    ),
    ratioSet: step('R₁', 'Pilot ratio', 'ratio', 'ratio', { sized: 'checkRatio' }),
  },
  warnings: [
    failure(
      'ratio',
      'ratio <= areaRatio',
      'With this pilot ratio the pressure on the other side shuts the valve as fast as the pilot opens it.',
    ),
    failure(
      'pilot',
      'ratio > areaRatio and pilot > available',
      'The pressure that is there does not open the valve against the load.',
    ),
    warning(
      'induced',
      'induced > 0',
      'Lowering a load that drives through a plain check valve jerks: throttle behind it, or take a counterbalance valve.',
    ),
  ],
})
