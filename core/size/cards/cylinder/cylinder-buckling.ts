import { card, chart, choice, input, option, step, warning } from '../../card'

/** Rod from buckling: Euler for slender rods, Johnson or Tetmajer for stocky ones. */
export const cylinderBuckling = card({
  id: 'cylinder-buckling',
  title: 'Rod and buckling',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'The rod that does not buckle under the force when it is out, for the way its ends are held.',
  source:
    'Euler; J. B. Johnson’s parabola; Tetmajer’s line for steel with 335 N/mm² − 0.62 N/mm² · λ; rods of ISO 3320',
  answer: 'rod',
  variables: {
    force: input('F', 'Force that pushes the rod', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    bore: input('D', 'Bore', 'length', '80 mm', 1e-3, 2, { from: 'cylinder-bore.bore', required: true }),
    stroke: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    overhang: input('s₀', 'Additional length that can buckle', 'length', '250 mm', 0, 10, {
      note: 'mountings and what the cylinder itself adds',
    }),
    mounting: option(
      'K',
      'End mountings',
      'ratio',
      {
        fixedFree: [2, 'cylinder fixed, rod end free'],
        pivotedPivoted: [1, 'cylinder pivoted, rod end pivoted'],
        fixedPivoted: [0.7, 'cylinder fixed, rod end pivoted and guided'],
        pivotedFixed: [0.7, 'cylinder pivoted, rod end fixed and guided'],
        fixedFixed: [0.5, 'cylinder fixed, rod end fixed and guided'],
        trunnionPivoted: [1, 'trunnion, rod end pivoted (length from the trunnion)'],
      },
      'pivotedPivoted',
    ),
    safety: input('S', 'Safety against buckling', 'ratio', '3.5', 1, 10),
    modulus: input('E', 'Modulus of elasticity', 'stress', '210 GPa', 1e9, 1e12, { note: 'steel' }),
    yieldStress: input('Rₑ', 'Yield strength of the rod', 'stress', '355 MPa', 50e6, 2e9),
    method: option(
      '',
      'Below the limit of Euler',
      'ratio',
      { johnson: [0, 'Johnson'], tetmajer: [1, 'Tetmajer'] },
      'johnson',
    ),
    tetmajerStress: input('a', 'Tetmajer, stress at no slenderness', 'stress', '335 MPa', 50e6, 2e9, {
      note: 'structural steel',
    }),
    tetmajerSlope: input('b', 'Tetmajer, less for each unit of slenderness', 'stress', '0.62 MPa', 1e4, 1e8),
    smallest: input('k', 'Smallest rod, share of the bore', 'share', '55 %', 0, 0.95, {
      note: 'about the smaller of the two usual rods of a bore',
    }),
    length: step('Lₖ', 'Buckling length', 'length', 'mounting * (stroke + overhang)'),
    rodEuler: step(
      'd_E',
      'Rod needed, slender',
      'length',
      '(64 * safety * force * length^2 / (pi^3 * modulus))^(1/4)',
      { source: 'Euler' },
    ),
    rodJohnson: step(
      'd_J',
      'Rod needed, stocky, Johnson',
      'length',
      'sqrt(4 * safety * force / (pi * yieldStress) + 4 * yieldStress * length^2 / (pi^2 * modulus))',
      { source: 'Johnson' },
    ),
    rodTetmajer: step(
      'd_T',
      'Rod needed, stocky, Tetmajer',
      'length',
      '(4 * tetmajerSlope * length + sqrt((4 * tetmajerSlope * length)^2 + 16 * tetmajerStress * safety * force / pi)) / (2 * tetmajerStress)',
      { source: 'Tetmajer' },
    ),
    rodStocky: step('d_S', 'Rod needed, stocky', 'length', 'method == 1 ? rodTetmajer : rodJohnson'),
    limit: step(
      'λ_E',
      'Slenderness from which Euler holds',
      'ratio',
      'method == 1 ? 88 : pi * sqrt(2 * modulus / yieldStress)',
    ),
    rodNeeded: step(
      'd₀',
      'Rod needed',
      'length',
      '4 * length / max(rodStocky, 1e-9) < limit ? rodStocky : rodEuler',
    ),
    rod: choice('d', 'Rod', 'length', 'rods', 'max(rodNeeded, smallest * bore)', {
      sized: 'rod',
      atLeast: true,
    }),
    slenderness: step('λ', 'Slenderness of this rod', 'ratio', '4 * length / rod'),
    stress: step(
      'σₖ',
      'Buckling stress',
      'stress',
      'slenderness >= limit ? pi^2 * modulus / slenderness^2 : (method == 1 ? tetmajerStress - tetmajerSlope * slenderness : yieldStress * (1 - yieldStress * slenderness^2 / (4 * pi^2 * modulus)))',
    ),
    bucklingForce: step('Fₖ', 'Buckling force', 'force', 'stress * pi * rod^2 / 4'),
    reached: step('S₁', 'Safety that is reached', 'ratio', 'bucklingForce / max(force, 1)'),
  },
  warnings: [
    warning(
      'rod',
      'reached < safety * 0.99999',
      'This rod does not reach the safety against buckling that is asked for.',
    ),
    warning(
      'rod',
      'rod >= bore',
      'The rod is not thinner than the bore: choose a larger bore or a shorter buckling length.',
    ),
  ],
  notes: [
    'A relief valve that can be set higher than the load lets the cylinder push harder: put that force in where the rod can be stopped on its way.',
  ],
  compare: [
    'reached',
    'slenderness',
    'cylinder-motion.flowBack',
    'cylinder-motion.pressureBack',
    'cylinder-motion.mass',
  ],
  charts: [
    chart(
      'Safety against buckling over the stroke',
      'stroke',
      'stroke / 4',
      'stroke * 2',
      ['reached'],
      ['safety'],
    ),
  ],
})
