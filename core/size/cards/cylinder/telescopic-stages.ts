import { card, choice, input, option, step, warning } from '../../card'

/** Diameters of the stages of a telescopic cylinder, and what each hand-over changes. */
export const telescopicStages = card({
  id: 'telescopic-stages',
  title: 'Stages',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['telescopic'] },
  about:
    'The stages from the last, which must carry the load alone, out to the first, which takes the most oil for its way.',
  source:
    'balance of forces and continuity at each stage; the diameters fall evenly from the first to the last',
  answer: 'first',
  variables: {
    last: input('d_n', 'Diameter of the last stage', 'length', '50 mm', 1e-3, 2, {
      from: 'cylinder-bore.bore',
      required: true,
    }),
    stages: option(
      '',
      'Stages',
      'ratio',
      { '2': [2, 'two'], '3': [3, 'three'], '4': [4, 'four'], '5': [5, 'five'] },
      '3',
    ),
    step: input('Δd', 'From stage to stage', 'length', '20 mm', 2e-3, 0.2, {
      note: 'two walls and the guide between them',
    }),
    stroke: input('s', 'Stroke', 'length', '1.2 m', 1e-3, 20, { from: 'motion.travel', required: true }),
    force: input('F', 'Force, extending', 'force', '25 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-bore.efficiency',
    }),
    ends: input('l₀', 'Head, foot and guides', 'length', '200 mm', 0, 2),
    lastStage: step('d_l', 'Last stage', 'length', 'last', { sized: 'lastStage' }),
    firstNeeded: step('d₁₀', 'First stage, at least', 'length', 'last + (stages - 1) * step'),
    first: choice('d₁', 'First stage', 'length', 'bores', 'firstNeeded', { sized: 'firstStage' }),
    firstPressure: step(
      'p₁',
      'Pressure of the first stage',
      'pressure',
      'force / (efficiency * pi * first^2 / 4)',
    ),
    lastPressure: step(
      'p_n',
      'Pressure of the last stage',
      'pressure',
      'force / (efficiency * pi * last^2 / 4)',
    ),
    faster: step('v_n/v₁', 'Last stage faster than the first, at the same flow', 'ratio', '(first / last)^2'),
    oil: step(
      'V',
      'Oil for the whole stroke',
      'volume',
      'stroke * pi / 4 * (last^2 + last * (first - last) + (first - last)^2 * (2 * stages - 1) / (6 * (stages - 1)))',
      { source: 'sum over stages of equal stroke' },
    ),
    retracted: step('l', 'Length, retracted', 'length', 'stroke / stages + ends'),
  },
  warnings: [
    warning(
      'faster',
      'faster > 4',
      'The last stage is more than four times as fast as the first: it strikes its end. Throttle, or take fewer stages.',
    ),
  ],
  notes: ['Each hand-over is a jerk of speed and pressure; long loads sway at it.'],
  compare: ['firstPressure', 'faster', 'oil', 'cylinder-motion.flowOut', 'pump-displacement.displacement'],
})
