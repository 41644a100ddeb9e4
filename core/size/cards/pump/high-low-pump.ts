import { card, chart, choice, input, step, trade, warning } from '../../card'

/** Two pumps on one shaft: both at low pressure, one at high. */
export const highLowPump = card({
  id: 'high-low-pump',
  title: 'High–low pump',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['highLow'] },
  about: 'Two displacements, the pressure at which the large one is unloaded, and the motor that this saves.',
  source: 'Q = V · n · η_v; P = p · Q / η before and after the change-over',
  answer: 'lowDisplacement',
  variables: {
    fastFlow: input('Q', 'Flow of the fast motions', 'flow', '40 L/min', 1e-8, 1, {
      from: 'cycle.peakFlow',
      required: true,
    }),
    slowShare: input('k', 'Flow while pressing, share of the fast', 'share', '25 %', 0.01, 0.99),
    unload: input('p_u', 'Change-over pressure', 'pressure', '40 bar', 1e5, 500e5, {
      note: 'above the pressure of the fast motion',
    }),
    unloaded: input('p₀', 'Pressure of the unloaded pump', 'pressure', '3 bar', 0, 50e5),
    pressure: input('p', 'Highest pressure', 'pressure', '160 bar', 1e5, 700e5, {
      from: ['relief-setting.highest', 'brief.maximumPressure'],
      required: true,
    }),
    fastPressure: input('p_f', 'Pressure of the fast motion', 'pressure', '20 bar', 0, 500e5, {
      from: 'max:cylinder-motion.movingOut',
    }),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '92 %', 0.2, 1),
    hydromechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '92 %', 0.2, 1),
    highNeeded: step(
      'V_h₀',
      'Displacement needed, high pressure',
      'displacement',
      'fastFlow * slowShare * 2 * pi / (speed * volumetric)',
      {
        trade: trade('231 * fastFlow * slowShare / (speed * volumetric)', 'in³/rev', {
          fastFlow: 'gpm',
          slowShare: '',
          speed: 'rpm',
          volumetric: '',
        }),
      },
    ),
    highDisplacement: choice(
      'V_h',
      'Displacement, high pressure',
      'displacement',
      'displacements',
      'highNeeded',
      { sized: 'highDisplacement' },
    ),
    highFlow: step('Q_h', 'Flow, high pressure', 'flow', 'highDisplacement * speed / (2 * pi) * volumetric', {
      trade: trade('highDisplacement * speed * volumetric / 231', 'gpm', {
        highDisplacement: 'in³/rev',
        speed: 'rpm',
        volumetric: '',
      }),
    }),
    lowNeeded: step(
      'V_l₀',
      'Displacement needed, low pressure',
      'displacement',
      'max(0, (fastFlow - highFlow) * 2 * pi / (speed * volumetric))',
      {
        trade: trade('max(0, 231 * (fastFlow - highFlow) / (speed * volumetric))', 'in³/rev', {
          fastFlow: 'gpm',
          highFlow: 'gpm',
          speed: 'rpm',
          volumetric: '',
        }),
      },
    ),
    lowDisplacement: choice(
      'V_l',
      'Displacement, low pressure',
      'displacement',
      'displacements',
      'lowNeeded',
      { sized: 'lowDisplacement' },
    ),
    lowFlow: step('Q_l', 'Flow, low pressure', 'flow', 'lowDisplacement * speed / (2 * pi) * volumetric', {
      trade: trade('lowDisplacement * speed * volumetric / 231', 'gpm', {
        lowDisplacement: 'in³/rev',
        speed: 'rpm',
        volumetric: '',
      }),
    }),
    unloadSetting: step('p_s', 'Setting of the unloading valve', 'pressure', 'unload', {
      sized: 'unloadSetting',
      ruler: 'setting',
    }),
    looked: input('p₁', 'Pressure that is looked at', 'pressure', '160 bar', 0, 700e5, {
      from: ['relief-setting.highest', 'brief.maximumPressure'],
    }),
    flowAt: step('Q₁', 'Flow at this pressure', 'flow', 'looked < unload ? highFlow + lowFlow : highFlow'),
    powerAt: step(
      'P₁',
      'Shaft power at this pressure',
      'power',
      '(looked < unload ? (highFlow + lowFlow) * looked : highFlow * looked + lowFlow * unloaded) / (volumetric * hydromechanical)',
      {
        trade: trade(
          '(looked < unload ? (highFlow + lowFlow) * looked : highFlow * looked + lowFlow * unloaded) / (1714 * volumetric * hydromechanical)',
          'hp',
          {
            highFlow: 'gpm',
            hydromechanical: '',
            looked: 'psi',
            lowFlow: 'gpm',
            unload: 'psi',
            unloaded: 'psi',
            volumetric: '',
          },
        ),
      },
    ),
    singleAt: step(
      'P₂',
      'One pump of the whole flow, at this pressure',
      'power',
      '(highFlow + lowFlow) * looked / (volumetric * hydromechanical)',
      {
        trade: trade('(highFlow + lowFlow) * looked / (1714 * volumetric * hydromechanical)', 'hp', {
          highFlow: 'gpm',
          hydromechanical: '',
          looked: 'psi',
          lowFlow: 'gpm',
          volumetric: '',
        }),
      },
    ),
    before: step(
      'P_b',
      'Shaft power just before the change-over',
      'power',
      '(highFlow + lowFlow) * unload / (volumetric * hydromechanical)',
      {
        trade: trade('(highFlow + lowFlow) * unload / (1714 * volumetric * hydromechanical)', 'hp', {
          highFlow: 'gpm',
          lowFlow: 'gpm',
          unload: 'psi',
          volumetric: '',
          hydromechanical: '',
        }),
      },
    ),
    after: step(
      'P_a',
      'Shaft power at the highest pressure',
      'power',
      '(highFlow * pressure + lowFlow * unloaded) / (volumetric * hydromechanical)',
      {
        trade: trade(
          '(highFlow * pressure + lowFlow * unloaded) / (1714 * volumetric * hydromechanical)',
          'hp',
          {
            highFlow: 'gpm',
            hydromechanical: '',
            lowFlow: 'gpm',
            pressure: 'psi',
            unloaded: 'psi',
            volumetric: '',
          },
        ),
      },
    ),
    shaftPower: step('P', 'Greatest shaft power', 'power', 'max(before, after)'),
    affordable: step(
      'Q_P',
      'Flow that this power drives at this pressure',
      'flow',
      'min(2 * (highFlow + lowFlow), shaftPower * volumetric * hydromechanical / max(looked, 1e5))',
      { note: 'the hyperbola of constant power' },
    ),
    single: step(
      'P_e',
      'With one pump of the whole flow',
      'power',
      '(highFlow + lowFlow) * pressure / (volumetric * hydromechanical)',
      {
        trade: trade('(highFlow + lowFlow) * pressure / (1714 * volumetric * hydromechanical)', 'hp', {
          highFlow: 'gpm',
          hydromechanical: '',
          lowFlow: 'gpm',
          pressure: 'psi',
          volumetric: '',
        }),
      },
    ),
    saving: step('k_P', 'Motor saved', 'share', '1 - shaftPower / single'),
    delivered: step('Q_s', 'Flow of both', 'flow', 'highFlow + lowFlow'),
  },
  warnings: [
    warning(
      'unload',
      'unload <= fastPressure',
      'The large pump is unloaded before the fast motion is over: set the change-over above its pressure.',
    ),
    warning(
      'unload',
      'unload >= pressure',
      'The change-over lies above the highest pressure and is never reached.',
    ),
  ],
  compare: ['delivered', 'before', 'after', 'saving', 'electric-motor.motor'],
  charts: [
    chart(
      'Flow over pressure, with the hyperbola of the power',
      'looked',
      '0',
      'pressure',
      ['flowAt', 'affordable'],
      [],
      { 'fast motion': ['fastPressure', 'fastFlow'], pressing: ['pressure', 'fastFlow * slowShare'] },
    ),
    chart(
      'Shaft power over pressure, against one pump',
      'looked',
      '0',
      'pressure',
      ['powerAt', 'singleAt'],
      ['shaftPower'],
    ),
  ],
})
