import { card, input, step, warning } from '../../card'

/** Pressure that opens a pilot-operated check valve against a load. */
export const pilotCheck = card({
  id: 'pilot-check',
  title: 'Pilot-operated check valve',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear'], holding: ['pilotCheck', 'lock'] },
  about: 'The pilot pressure that opens the check valve against the load, and whether it is there.',
  source: 'balance of the pilot piston: R · (p_X − p_Y) = p_B − p_A + p_crack',
  answer: 'pilot',
  variables: {
    load: input('F', 'Load that hangs on it', 'force', '30 kN', 0, 1e8, { from: 'linear-load.drivingBack' }),
    area: input('A₁', 'Area that holds the load', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    otherArea: input('A₂', 'Area on the other side', 'area', '34.36 cm²', 0, 4, {
      from: 'cylinder-motion.rodArea',
    }),
    ratio: input('R', 'Pilot ratio', 'ratio', '3', 0.5, 20),
    crack: input('p_c', 'Cracking pressure', 'pressure', '1 bar', 0, 50e5),
    back: input('p_A', 'Pressure behind the valve', 'pressure', '5 bar', 0, 300e5),
    available: input('p', 'Pressure that is there', 'pressure', '150 bar', 0, 700e5, {
      from: 'brief.maximumPressure',
    }),
    induced: step('p_L', 'Pressure that the load induces', 'pressure', 'load / area'),
    areaRatio: step('φ', 'Area of the other side, share', 'ratio', 'otherArea / area'),
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
    warning(
      'ratio',
      'ratio <= areaRatio',
      'With this pilot ratio the pressure on the other side shuts the valve as fast as the pilot opens it.',
    ),
    warning(
      'pilot',
      'pilot > available',
      'The pressure that is there does not open the valve against the load.',
    ),
    warning(
      'load',
      'load > 0',
      'Lowering a load that drives through a plain check valve jerks: throttle behind it, or take a counterbalance valve.',
    ),
  ],
})
