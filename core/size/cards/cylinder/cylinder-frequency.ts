import { card, chart, input, step, warning } from '../../card'

/** Natural frequency of a mass between two columns of oil, and the shortest ramp that does not excite it. */
export const cylinderFrequency = card({
  id: 'cylinder-frequency',
  title: 'Natural frequency and ramp',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'How fast the motion can be started and stopped before it swings.',
  source: 'two oil springs in parallel on a mass; ramp of six periods as a usual rule',
  answer: 'ramp',
  variables: {
    mass: input('m', 'Moved mass', 'mass', '450 kg', 0.01, 1e7, { from: 'motion.mass' }),
    capArea: input('A₁', 'Area, extending', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    rodArea: input('A₂', 'Area, retracting', 'area', '34.36 cm²', 0, 4, { from: 'cylinder-motion.rodArea' }),
    stroke: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    position: input('x/s', 'Position in the stroke', 'share', '50 %', 0, 1),
    deadVolume: input('V_d', 'Oil in the line of each side', 'volume', '0.3 L', 0, 10),
    bulk: input('K', 'Bulk modulus of the oil', 'stress', '1400 MPa', 1e8, 3e9),
    periods: input('n', 'Periods of a ramp', 'ratio', '6', 1, 20),
    stiffness: step(
      'c',
      'Stiffness of the oil',
      'stiffness',
      'bulk * (capArea^2 / (capArea * stroke * position + deadVolume + 1e-9) + rodArea^2 / (rodArea * stroke * (1 - position) + deadVolume + 1e-9))',
    ),
    frequency: step('f', 'Natural frequency', 'frequency', 'sqrt(stiffness / mass) / (2 * pi)'),
    ramp: step('t_a', 'Shortest sensible ramp', 'time', 'periods / frequency'),
  },
  warnings: [
    warning(
      'frequency',
      'frequency < 3',
      'Below about 3 Hz the motion swings visibly: use longer ramps, larger areas or shorter lines.',
    ),
  ],
  charts: [chart('Natural frequency over the stroke', 'position', '0', '1', ['frequency'])],
})
