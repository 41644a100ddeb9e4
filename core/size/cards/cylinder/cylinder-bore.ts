import { card, choice, input, step, trade, warning } from '../../card'
import { cylinderKind } from '../../common-inputs'

/** Bore from force and pressure. */
export const cylinderBore = card({
  id: 'cylinder-bore',
  title: 'Bore',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about:
    'The bore that gives the force with the pressure that is there; of a telescopic cylinder that of its last stage.',
  source: 'balance of forces at the piston; bores of ISO 3320',
  answer: 'bore',
  variables: {
    force: input('F', 'Force, extending', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    maximumPressure: input('p', 'Maximum working pressure', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
      required: true,
    }),
    lineLoss: input('Δp', 'Pressure loss to the cylinder', 'pressure', '10 bar', 0, 100e5, {
      note: 'valve and lines, at full flow',
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, { note: 'seal friction' }),
    kind: cylinderKind(),
    rodShare: input('k', 'Rod to bore, with two rods', 'ratio', '0.5', 0.1, 0.9, {
      note: 'where both sides have a rod it takes its area from both',
    }),
    area: step(
      'A',
      'Piston area needed',
      'area',
      'force / (efficiency * (maximumPressure - lineLoss) - backPressure)',
      {
        note: 'the back pressure on the whole area, on the safe side',
        valid: { min: 0, message: 'Losses and back pressure take the whole working pressure.' },
      },
    ),
    boreNeeded: step(
      'D₀',
      'Bore needed',
      'length',
      'kind == 1 ? sqrt(4 * area / (pi * (1 - rodShare^2))) : sqrt(4 * area / pi)',
    ),
    bore: choice('D', 'Bore', 'length', 'bores', 'boreNeeded', { sized: 'bore' }),
    pistonArea: step(
      'A₁',
      'Area that pushes',
      'area',
      'kind == 1 ? pi * bore^2 / 4 * (1 - rodShare^2) : pi * bore^2 / 4',
      {
        trade: trade('kind == 1 ? 0.7854 * bore^2 * (1 - rodShare^2) : 0.7854 * bore^2', 'in²', {
          bore: 'in',
          kind: '',
          rodShare: '',
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
  warnings: [
    warning(
      'bore',
      'pressure > maximumPressure * 1.000001',
      'With this bore the force needs more than the maximum working pressure.',
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
