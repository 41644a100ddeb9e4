import { card, chart, choice, failure, input, option, relation, step, trade, warning } from '../../card'

/** Counterbalance valve that holds a load which drives the motion. */
export const counterbalance = card({
  id: 'counterbalance',
  title: 'Counterbalance valve',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear', 'rotary', 'winch'], holding: ['counterbalance', 'brakeAndValve'] },
  about:
    'Setting and pilot ratio for the highest pressure that the load induces on the side that holds it, and the pressure needed to lower.',
  source: 'balance of the valve: p₁ + R · p_X = p_set; setting 1.3 times the load as a usual rule',
  answer: 'setting',
  variables: {
    inducedOut: input(
      'p_h',
      'Pressure that a load induces against the way out',
      'pressure',
      '0 bar',
      0,
      1500e5,
      {
        from: ['cylinder-motion.inducedOut', 'motor-displacement.inducedOut', 'semi-rotary.inducedOut'],
        note: 'of a cylinder on the rod side',
      },
    ),
    inducedBack: input(
      'p_hᵣ',
      'Pressure that a load induces against the way back',
      'pressure',
      '60 bar',
      0,
      1500e5,
      {
        from: ['cylinder-motion.inducedBack', 'motor-displacement.inducedBack', 'semi-rotary.inducedBack'],
        note: 'of a cylinder on the piston side',
      },
    ),
    side: option(
      '',
      'Sized for the way',
      'ratio',
      { greater: [0, 'on which the load induces more'], out: [1, 'out'], back: [2, 'back'] },
      'greater',
      { note: 'a load that drives both ways needs a valve on each side' },
    ),
    greatestOut: input('F_d', 'Greatest load that drives it, out', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.drivingOut',
    }),
    greatestBack: input('F_dᵣ', 'Greatest load that drives it, back', 'force', '30 kN', 0, 1e8, {
      from: 'linear-load.drivingBack',
    }),
    leastOut: input('F_l', 'Least load that drives it, out', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.leastDrivingOut',
    }),
    leastBack: input('F_lᵣ', 'Least load that drives it, back', 'force', '0 N', 0, 1e8, {
      from: 'linear-load.leastDrivingBack',
    }),
    askedOut: input('q', 'Flow in, out', 'flow', '30 L/min', 0, 1, {
      from: [
        'flow-control.flowOut',
        'cylinder-motion.flowOut',
        'motor-displacement.flowOut',
        'semi-rotary.flowOut',
      ],
    }),
    askedBack: input('qᵣ', 'Flow in, back', 'flow', '17 L/min', 0, 1, {
      from: [
        'flow-control.flowBack',
        'cylinder-motion.flowBack',
        'motor-displacement.flowBack',
        'semi-rotary.flowBack',
      ],
    }),
    returnOut: input('q₂', 'Flow given back, out', 'flow', '20 L/min', 0, 1, {
      from: [
        'flow-control.returnOut',
        'cylinder-motion.returnOut',
        'motor-displacement.flowOut',
        'semi-rotary.flowOut',
      ],
    }),
    returnBack: input('q₂ᵣ', 'Flow given back, back', 'flow', '25 L/min', 0, 1, {
      from: [
        'flow-control.returnBack',
        'cylinder-motion.returnBack',
        'motor-displacement.flowBack',
        'semi-rotary.flowBack',
      ],
    }),
    factor: input('k', 'Setting above load pressure', 'ratio', '1.3', 1, 3),
    ratio: input('R', 'Pilot ratio', 'ratio', '4', 0.5, 20, {
      note: 'low for loads that vary or swing, high for steady ones',
    }),
    back: input('p_b', 'Back pressure behind it', 'pressure', '5 bar', 0, 200e5),
    class: input('p_N', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    way: step('w', 'The way: 1 out, 2 back', 'ratio', 'side > 0 ? side : (inducedOut > inducedBack ? 1 : 2)'),
    induced: step(
      'p_L',
      'Pressure that the load induces',
      'pressure',
      'way == 1 ? inducedOut : inducedBack',
      { ruler: 'working' },
    ),
    least: step(
      'p_l',
      'Pressure that the least load induces',
      'pressure',
      'induced * (way == 1 ? (greatestOut > 0 ? leastOut / greatestOut : 0) : (greatestBack > 0 ? leastBack / greatestBack : 0))',
    ),
    setting: choice('p_s', 'Setting', 'pressure', 'settings', 'factor * induced', {
      sized: 'counterbalanceSetting',
      ruler: 'setting',
    }),
    ratioSet: step('R₁', 'Pilot ratio', 'ratio', 'ratio', {
      sized: 'pilotRatio',
      sizedWhen: 'induced > 0',
    }),
    areaRatio: step(
      'φ',
      'Area of the other side, share',
      'ratio',
      'way == 1 ? (returnOut > 0 ? askedOut / returnOut : 1) : (returnBack > 0 ? askedBack / returnBack : 0)',
      { note: 'flow in over flow out' },
    ),
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
      'max(0, (setting - least + back * (1 + ratio)) / (ratio + areaRatio))',
    ),
    flow: step(
      'Q',
      'Greatest flow while lowering',
      'flow',
      'side == 0 and inducedOut > 0 and inducedBack > 0 ? max(returnOut, returnBack) : (way == 1 ? returnOut : returnBack)',
    ),
    rated: choice('q_r', 'Rated flow', 'flow', 'valveFlows', 'flow', {
      sized: 'counterbalanceFlow',
      sizedWhen: 'induced > 0',
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
  relations: [
    relation(
      'induced',
      'induced > 0',
      'No load drives this motion that way, so there is nothing for a counterbalance valve to hold: check slope, mass and signs of the forces in the brief.',
    ),
  ],
  warnings: [
    failure('setting', 'setting < induced', 'The valve opens by the load alone: the load falls.'),
    warning(
      'setting',
      'setting >= induced and setting < 1.15 * induced',
      'Less than about 15 % above the load: the valve may open by shocks.',
    ),
    failure(
      'setting',
      'setting > class',
      'The setting lies above the pressure class: take a larger area, so that the load induces less.',
    ),
    failure(
      'side',
      'side == 0 and inducedOut > 0 and inducedBack > 0',
      'The load drives the motion both ways: a valve is needed on each side. Size this one for one way, and the other by itself.',
    ),
    warning(
      'rated',
      'flow > rated * 1.000001',
      'More than its rated flow goes through it while lowering: it takes more pressure than it is rated for.',
    ),
    warning(
      'ratio',
      'gain > 4 and least < induced / 2',
      'A high pilot ratio with a load that varies tends to hunt: take a lower ratio, or damp the pilot.',
    ),
  ],
  notes: ['No single valve may hold a load under which somebody stands: support it mechanically.'],
  compare: ['lowering', 'loweringEmpty', 'power'],
  charts: [
    chart(
      'Pressure to lower over the pressure of the load',
      'inducedBack',
      '0',
      'max(inducedBack, inducedOut) * 1.2',
      ['lowering', 'induced'],
      ['setting'],
    ),
  ],
})
