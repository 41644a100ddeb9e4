import { card, chart, choice, failure, input, option, relation, step, warning } from '../../card'
import { mountings, type Mounting } from '../../brief/brief'
import { cylinderKind, optionsOf } from '../../common-inputs'

const MOUNTING: Readonly<Record<Mounting, number>> = {
  fixedFree: 0,
  pivotedPivoted: 1,
  fixedPivoted: 2,
  pivotedFixed: 3,
  fixedFixed: 4,
  trunnionPivoted: 5,
  unknown: 6,
}

/** Rod from buckling: Euler for slender rods, Johnson or Tetmajer for stocky ones. */
export const cylinderBuckling = card({
  id: 'cylinder-buckling',
  title: 'Rod and buckling',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about:
    'The rod that does not buckle under the greatest force that can push it while it is out, for the way its ends are held.',
  source:
    'Euler; J. B. Johnson’s parabola; Tetmajer’s line for steel with 335 N/mm² − 0.62 N/mm² · λ; rods of ISO 3320',
  answer: 'rod',
  variables: {
    load: input('F_L', 'Load that presses on the rod', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.stoppingBack',
      note: 'what drives it back, while it is stopped',
    }),
    pull: input('F_z', 'Load that pulls at the rod', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.stoppingOut',
      note: 'what drives it out, while it is stopped',
    }),
    resisting: input('Fᵣ', 'Force that resists, back', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.forceBack',
      note: 'pulls at the rod as well',
    }),
    pressure: input('p', 'Highest pressure on the piston side', 'pressure', '160 bar', 0, 700e5, {
      from: 'brief.maximumPressure',
      note: 'up to which the relief valve may be set: the rod may be stopped on its way',
    }),
    kind: cylinderKind(),
    bore: input('D', 'Bore', 'length', '80 mm', 1e-3, 2, { from: 'cylinder-bore.bore', required: true }),
    stroke: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    overhang: input('s₀', 'Additional length that can buckle', 'length', '250 mm', 0, 10, {
      note: 'mountings and what the cylinder itself adds',
    }),
    mounting: option('', 'End mountings', 'ratio', optionsOf(mountings, MOUNTING), 'pivotedPivoted', {
      from: 'motion.mounting',
    }),
    factor: step(
      'K',
      'Buckling length, of the length',
      'ratio',
      'mounting == 1 ? 1 : (mounting == 2 ? 0.7 : (mounting == 3 ? 0.7 : (mounting == 4 ? 0.5 : (mounting == 5 ? 1 : 2))))',
      { note: 'as for a free rod end where the mounting is not given', source: 'Euler’s cases' },
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
    bore0: input('D_g', 'First guess of the bore', 'length', '80 mm', 0, 2, {
      from: 'cylinder-bore.guess',
    }),
    forceGuess: step(
      'F_g',
      'Force that pushes the rod, a size above that guess',
      'force',
      'max(load, pressure * pi * (1.25 * bore0)^2 / 4)',
    ),
    rodGuess: step(
      'd_g',
      'Rod expected',
      'length',
      'max(max(sqrt(4 * safety * forceGuess / (pi * yieldStress)), (64 * safety * forceGuess * (factor * (stroke + overhang))^2 / (pi^3 * modulus))^(1/4) * 1.05), smallest * 1.25 * bore0)',
      { note: 'by which the bore leaves room for it', source: 'Euler, and crushing of a stocky rod' },
    ),
    force: step(
      'F',
      'Greatest force that pushes the rod',
      'force',
      'max(load, pressure * pi * (bore^2 - (kind == 1 ? (smallest * bore)^2 : 0)) / 4)',
      { note: 'relief valve at the pressure class, or the load alone' },
    ),
    length: step('Lₖ', 'Buckling length', 'length', 'factor * (stroke + overhang)'),
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
    rodTension: step(
      'd_z',
      'Rod needed, pulled',
      'length',
      'sqrt(4 * safety * max(pull, resisting) / (pi * yieldStress))',
    ),
    rod: choice('d', 'Rod', 'length', 'rods', 'max(max(rodNeeded, rodTension), smallest * bore)', {
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
  relations: [
    relation(
      'rod',
      'kind >= 3 or rod < bore',
      'The rod is not thinner than the bore: choose a larger bore, a shorter buckling length or better guided ends.',
    ),
  ],
  warnings: [
    failure(
      'rod',
      'reached < safety * 0.99999',
      'This rod does not reach the safety against buckling that is asked for.',
    ),
    failure(
      'rod',
      'rod < rodTension * 0.99999',
      'This rod does not reach the safety against being pulled apart that is asked for.',
    ),
    failure(
      'rod',
      'kind == 3 and rod > bore * 1.000001',
      'The plunger itself would buckle: it must be at least this thick.',
    ),
    warning(
      'mounting',
      'mounting == 6',
      'How the ends are held is not given: the rod is computed for the worst case, a free rod end. Give the mounting in the brief.',
    ),
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
