import { card, input, step } from '../../card'

/** The load of the brief as the symbol of the cylinder takes it, so that a run meets it. */
export const sheetLoad = card({
  id: 'sheet-load',
  title: 'The load on the sheet',
  group: 'load',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about:
    'So that a run meets the load of the brief: stroke, mass, force and workpiece of the cylinder on the sheet.',
  source: 'a workpiece whose force rises in a straight line over the last part of the stroke',
  answer: 'stiffness',
  variables: {
    travel: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    mass: input('m', 'Moved mass', 'mass', '0 kg', 0, 1e7, { from: 'motion.mass' }),
    rod: input('d', 'Rod', 'length', '45 mm', 0, 2, {
      from: ['cylinder-buckling.rod', 'cylinder-bore.bore'],
    }),
    work: input('F_w', 'Force of the workpiece', 'force', '0 N', 0, 1e8, { from: 'motion.workForce' }),
    workStroke: input('s_w', 'Stroke on the workpiece', 'length', '150 mm', 1e-4, 20, {
      from: ['motion.workStroke', 'motion.travel'],
    }),
    stroke: step('s₁', 'Stroke', 'length', 'travel', { sized: 'stroke' }),
    rodMass: step('m_d', 'Mass of the rod', 'mass', '7850 * pi / 4 * rod^2 * travel', {
      source: 'a bar of steel as long as the stroke',
      note: 'moves in any case',
    }),
    moved: step('m₁', 'Moved mass', 'mass', 'max(mass, rodMass)', { sized: 'mass' }),
    start: step('x', 'Workpiece met at', 'length', 'work > 0 ? travel - workStroke : 0', {
      sized: 'workPieceAt',
    }),
    stiffness: step('k', 'Stiffness of the workpiece', 'stiffness', 'work / workStroke', {
      sized: 'workPieceStiffness',
    }),
  },
})
