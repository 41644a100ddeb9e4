import { assessPumps } from '../../pump-types'
import { card, choice, input, option, step, trade, warning } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Displacement of the pump from the flow of the cycle. */
export const pumpDisplacement = card({
  id: 'pump-displacement',
  title: 'Pump',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['fixedPump', 'compensated', 'loadSensing'] },
  about: 'The displacement that delivers the greatest flow of the cycle at the speed of the drive.',
  source: 'Q = V · n · η_v; displacements of ISO 3662',
  answer: 'displacement',
  variables: {
    flow: input('Q', 'Greatest flow', 'flow', '30 L/min', 1e-8, 1, {
      from: 'cycle.peakFlow',
      required: true,
    }),
    spare: input('k', 'Spare', 'share', '0 %', 0, 2, { note: 'for wear and for motions that may come' }),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '92 %', 0.2, 1),
    hydromechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '92 %', 0.2, 1),
    pressure: input('p', 'Highest pressure of the cycle', 'pressure', '150 bar', 0, 700e5, {
      from: 'working-pressure.highest',
    }),
    supply: option(
      '',
      'Its flow',
      'ratio',
      {
        fixedPump: [0, 'is fixed'],
        compensated: [1, 'follows the pressure'],
        loadSensing: [1, 'follows the load'],
      },
      'fixedPump',
      { from: 'brief.supply' },
    ),
    coldest: input('ϑ', 'Coldest start', 'temperature', '0 °C', 213.15, 363.15, { from: 'brief.ambientMin' }),
    ...viscosityInputs,
    fineness: input('x', 'Fineness of the filter', 'length', '10 µm', 1e-6, 1e-3, {
      from: 'filter-size.fineness',
    }),
    viscosity: step(
      'ν',
      'Viscosity at the coldest start',
      'viscosity',
      'viscosity(coldest, viscosity40, viscosity100)',
      { source: 'ASTM D341' },
    ),
    displacementNeeded: step(
      'V₀',
      'Displacement needed',
      'displacement',
      'flow * (1 + spare) * 2 * pi / (speed * volumetric)',
      {
        trade: trade('231 * flow * (1 + spare) / (speed * volumetric)', 'in³/rev', {
          flow: 'gpm',
          spare: '',
          speed: 'rpm',
          volumetric: '',
        }),
      },
    ),
    displacement: choice('V', 'Displacement', 'displacement', 'displacements', 'displacementNeeded', {
      sized: 'displacement',
    }),
    delivered: step('Q₁', 'Flow delivered', 'flow', 'displacement * speed / (2 * pi) * volumetric', {
      trade: trade('displacement * speed * volumetric / 231', 'gpm', {
        displacement: 'in³/rev',
        speed: 'rpm',
        volumetric: '',
      }),
      measure: { what: 'delivery', while: 'run', take: 'usual', of: 'displacement' },
    }),
    faster: step('k_v', 'Speed of the motions against the brief', 'share', 'delivered / flow'),
    torque: step(
      'T',
      'Torque at the highest pressure',
      'torque',
      'displacement * pressure / (2 * pi * hydromechanical)',
      {
        trade: trade('displacement * pressure / (2 * pi * hydromechanical) / 12', 'lbf·ft', {
          displacement: 'in³/rev',
          pressure: 'psi',
          hydromechanical: '',
        }),
      },
    ),
    shaftPower: step('P', 'Shaft power at the highest pressure', 'power', 'torque * speed', {
      trade: trade('12 * torque * speed / 63025', 'hp', { torque: 'lbf·ft', speed: 'rpm' }),
    }),
  },
  warnings: [
    warning(
      'displacement',
      'delivered < flow * 0.999',
      'This pump does not deliver the greatest flow: the motions are slower than the brief asks for.',
    ),
  ],
  assess: ({ pressure, displacement, speed, supply, viscosity, fineness }) =>
    assessPumps({ pressure, displacement, speed, variable: supply === 1, viscosity, fineness }),
  compare: [
    'delivered',
    'faster',
    'torque',
    'shaftPower',
    'electric-motor.motor',
    'line-pressure.bore',
    'tank-volume.volume',
  ],
})
