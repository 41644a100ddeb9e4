import { card, chart, choice, input, step, trade, warning } from '../../card'

/** Counterbalance valve that holds a hanging load. */
export const counterbalance = card({
  id: 'counterbalance',
  title: 'Counterbalance valve',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear'], holding: ['counterbalance'] },
  about:
    'Setting and pilot ratio for the highest pressure that the load induces, and the pressure needed to lower.',
  source: 'balance of the valve: p₁ + R · p_X = p_set; setting 1.3 times the load as a usual rule',
  answer: 'setting',
  variables: {
    load: input('F', 'Load that hangs on it', 'force', '30 kN', 0, 1e8, {
      from: 'linear-load.drivingBack',
      required: true,
    }),
    least: input('F_l', 'Least load', 'force', '0 N', 0, 1e8),
    area: input('A₁', 'Area that holds the load', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
      note: 'the rod side where the load pulls',
    }),
    otherArea: input('A₂', 'Area on the other side', 'area', '34.36 cm²', 0, 4, {
      from: 'cylinder-motion.rodArea',
    }),
    factor: input('k', 'Setting above load pressure', 'ratio', '1.3', 1, 3),
    ratio: input('R', 'Pilot ratio', 'ratio', '4', 0.5, 20, {
      note: 'low for loads that vary or swing, high for steady ones',
    }),
    back: input('p_b', 'Back pressure behind it', 'pressure', '5 bar', 0, 200e5),
    flow: input('Q', 'Flow while lowering', 'flow', '25 L/min', 0, 1, { from: 'cylinder-motion.returnBack' }),
    induced: step('p_L', 'Pressure that the load induces', 'pressure', 'load / area', { ruler: 'working' }),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', 'factor * induced', {
      sized: 'counterbalanceSetting',
      ruler: 'setting',
    }),
    ratioSet: step('R₁', 'Pilot ratio', 'ratio', 'ratio', { sized: 'pilotRatio' }),
    areaRatio: step('φ', 'Area of the other side, share', 'ratio', 'otherArea / area'),
    lowering: step(
      'p_X',
      'Pressure to lower with the load',
      'pressure',
      'max(0, (setting - induced + back * (1 + ratio)) / (ratio + areaRatio))',
      {
        source: 'the pressure on the other side adds to that of the load',
      },
    ),
    loweringEmpty: step(
      'p_X₀',
      'Pressure to lower with the least load',
      'pressure',
      'max(0, (setting - least / area + back * (1 + ratio)) / (ratio + areaRatio))',
    ),
    rated: choice('q_r', 'Rated flow', 'flow', 'valveFlows', 'flow', {
      sized: 'counterbalanceFlow',
      atLeast: true,
    }),
    power: step('P', 'Heat while lowering', 'power', '(induced + lowering * areaRatio) * flow', {
      trade: trade('(induced + lowering * areaRatio) * flow / 1714', 'hp', {
        induced: 'psi',
        lowering: 'psi',
        areaRatio: '',
        flow: 'gpm',
      }),
    }),
    gain: step('G', 'Loop gain, pilot ratio against areas', 'ratio', 'ratio * areaRatio'),
  },
  warnings: [
    warning(
      'setting',
      'setting < 1.15 * induced',
      'Less than about 15 % above the load: the valve may open by shocks.',
    ),
    warning(
      'ratio',
      'gain > 4 and least < load / 2',
      'A high pilot ratio with a load that varies tends to hunt: take a lower ratio, or damp the pilot.',
    ),
  ],
  notes: ['No single valve may hold a load under which somebody stands: support it mechanically.'],
  compare: ['lowering', 'loweringEmpty', 'power'],
  charts: [
    chart('Pressure to lower over the load', 'load', '0', 'load * 1.2', ['lowering', 'induced'], ['setting']),
  ],
})
