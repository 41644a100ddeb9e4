import { card, choice, failure, input, relation, step, trade } from '../../card'
import { backForces, cylinderKind, heldLoads } from '../../common-inputs'

/** Bore from the forces that resist, out on the piston side and back on the rod side. */
export const cylinderBore = card({
  id: 'cylinder-bore',
  title: 'Bore',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about:
    'The bore that gives the forces both ways with the pressure that is there; of a telescopic cylinder that of its last stage.',
  source: 'balance of forces at the piston; bores of ISO 3320',
  answer: 'bore',
  variables: {
    force: input('F', 'Force that resists, out', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
      note: 'on the piston side',
    }),
    ...backForces('0 N', '0 N'),
    ...heldLoads,
    maximumPressure: input('p', 'Working pressure, at most', 'pressure', '160 bar', 1e5, 700e5, {
      from: ['pressure-levels.available', 'brief.maximumPressure'],
      required: true,
    }),
    lineLoss: input('Δp', 'Pressure loss to the cylinder', 'pressure', '10 bar', 0, 100e5, {
      note: 'valve and lines, at full flow',
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, { note: 'seal friction' }),
    kind: cylinderKind(),
    rodShare: input('k', 'Rod to bore, expected', 'ratio', '0.6', 0.1, 0.95, {
      note: 'for a first guess; the rod itself is chosen by buckling',
    }),
    effective: step(
      'p_e',
      'Pressure that works',
      'pressure',
      'efficiency * (maximumPressure - lineLoss) - backPressure',
      { note: 'the back pressure on the whole area, on the safe side' },
    ),
    areaResisting: step('A_F', 'Area that moves the load, out', 'area', 'force / effective'),
    areaHeld: step(
      'A_h',
      'Area that holds a load which drives back',
      'area',
      '1.2 * heldBack / maximumPressure',
      {
        note: 'a fifth in hand, so that the valve that holds it can be set above it',
      },
    ),
    area: step('A', 'Area needed on the piston side', 'area', 'max(areaResisting, areaHeld)'),
    areaBack: step(
      'Aᵣ',
      'Area needed on the rod side',
      'area',
      'max(forceBack / effective, 1.2 * heldOut / maximumPressure)',
      { note: 'to move the load back, and to hold one that drives out' },
    ),
    guess: step(
      'D_g',
      'First guess of the bore',
      'length',
      'sqrt(4 * max(kind == 1 ? area / (1 - rodShare^2) : area, kind >= 2 ? 0 : areaBack / (1 - rodShare^2)) / pi)',
      { note: 'for the rod that buckling will ask for' },
    ),
    rod: input('d', 'Rod that buckling will ask for', 'length', '45 mm', 0, 2, {
      from: 'cylinder-buckling.rodGuess',
      note: 'takes its section from the area beside it',
    }),
    boreOut: step(
      'D₁',
      'Bore needed, out',
      'length',
      'kind == 1 ? sqrt(4 * area / pi + rod^2) : sqrt(4 * area / pi)',
    ),
    boreBack: step(
      'D₂',
      'Bore needed, back',
      'length',
      'kind >= 2 or areaBack == 0 ? 0 : sqrt(4 * areaBack / pi + rod^2)',
    ),
    boreRod: step(
      'D₃',
      'Bore that takes this rod',
      'length',
      'kind == 4 ? 0 : (kind == 3 ? rod : 1.15 * rod)',
      { note: 'a plunger is its own rod' },
    ),
    boreNeeded: step('D₀', 'Bore needed', 'length', 'max(max(boreOut, boreBack), boreRod)'),
    bore: choice('D', 'Bore', 'length', 'bores', 'boreNeeded', { sized: 'bore' }),
    pistonArea: step(
      'A₁',
      'Area that pushes',
      'area',
      'kind == 1 ? pi * (bore^2 - rod^2) / 4 : pi * bore^2 / 4',
      {
        trade: trade('kind == 1 ? 0.7854 * (bore^2 - rod^2) : 0.7854 * bore^2', 'in²', {
          bore: 'in',
          kind: '',
          rod: 'in',
        }),
      },
    ),
    pressure: step(
      'pₑ',
      'Pressure with this bore',
      'pressure',
      '(force / pistonArea + backPressure) / efficiency + lineLoss',
    ),
    margin: step('M', 'Pressure margin', 'share', '1 - pressure / maximumPressure'),
  },
  relations: [
    relation('effective', 'effective > 0', 'Losses and back pressure take the whole working pressure.'),
    relation('rod', 'kind != 1 or rod < bore', 'The rod must be thinner than the bore.'),
  ],
  warnings: [
    failure(
      'bore',
      'pressure > maximumPressure * 1.000001',
      'With this bore the force needs more than the working pressure that there is.',
    ),
    failure(
      'forceMovingBack',
      'kind >= 2 and forceMovingBack > 0',
      'This cylinder is not pushed back by oil, and a force resists its way back: take a double-acting one, or let the load bring it back.',
    ),
  ],
  compare: [
    'pressure',
    'margin',
    'cylinder-motion.flowOut',
    'cylinder-motion.flowBack',
    'cylinder-motion.mass',
    'pump-displacement.displacement',
    'electric-motor.motor',
  ],
})
