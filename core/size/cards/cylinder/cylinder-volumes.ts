import { card, input, step } from '../../card'

/** Oil that a cylinder takes and gives, and by how much the level of the tank moves. */
export const cylinderVolumes = card({
  id: 'cylinder-volumes',
  title: 'Oil volumes',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'Oil for a stroke each way, and the difference that the tank must take.',
  source: 'geometry',
  answer: 'difference',
  variables: {
    capArea: input('A₁', 'Area, extending', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    rodArea: input('A₂', 'Area, retracting', 'area', '34.36 cm²', 0, 4, {
      from: 'cylinder-motion.rodArea',
      required: true,
    }),
    stroke: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    volumeOut: step('V₁', 'Oil to extend', 'volume', 'capArea * stroke'),
    volumeBack: step('V₂', 'Oil to retract', 'volume', 'rodArea * stroke'),
    difference: step('ΔV', 'Differential volume', 'volume', 'volumeOut - volumeBack', {
      note: 'the tank gives it when the rod goes out, and takes it back',
    }),
  },
})
