import { card, choice, failure, input, step, trade, warning } from '../../card'

/** Main pump of a closed circuit. */
export const closedCircuitPump = card({
  id: 'closed-circuit-pump',
  title: 'Main pump of the closed circuit',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['closedCircuit'] },
  about: 'The displacement at full stroke that turns the motor at the speed wanted.',
  source: 'continuity between pump and motor; displacements of ISO 3662',
  answer: 'displacement',
  variables: {
    flow: input('Q', 'Flow of the motor', 'flow', '70 L/min', 1e-8, 1, {
      from: 'cycle.peakFlow',
      required: true,
    }),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '95 %', 0.2, 1),
    hydromechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '92 %', 0.2, 1),
    pressure: input('Δp', 'Highest pressure difference', 'pressure', '200 bar', 0, 700e5, {
      from: 'working-pressure.highest',
    }),
    charge: input('p_c', 'Charge pressure', 'pressure', '20 bar', 0, 50e5),
    margin: input('k', 'High-pressure reliefs above the load', 'share', '15 %', 0, 1),
    class: input('p_N', 'Pressure class', 'pressure', '250 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    displacement: choice(
      'V',
      'Displacement',
      'displacement',
      'displacements',
      'flow * 2 * pi / (speed * volumetric)',
      { sized: 'displacement' },
    ),
    delivered: step('Q₁', 'Flow at full stroke', 'flow', 'displacement * speed / (2 * pi) * volumetric', {
      trade: trade('displacement * speed * volumetric / 231', 'gpm', {
        displacement: 'in³/rev',
        speed: 'rpm',
        volumetric: '',
      }),
    }),
    torque: step(
      'T',
      'Torque at the highest pressure',
      'torque',
      'displacement * pressure / (2 * pi * hydromechanical)',
      {
        trade: trade('displacement * pressure / (24 * pi * hydromechanical)', 'lbf·ft', {
          displacement: 'in³/rev',
          hydromechanical: '',
          pressure: 'psi',
        }),
      },
    ),
    shaftPower: step('P', 'Shaft power at full stroke and highest pressure', 'power', 'torque * speed', {
      trade: trade('12 * torque * speed / 63025', 'hp', { speed: 'rpm', torque: 'lbf·ft' }),
    }),
    relief: choice(
      'p_R',
      'Cross-port reliefs',
      'pressure',
      'settings',
      '(pressure + charge) * (1 + margin)',
      { sized: 'crossPortSetting', ruler: 'limit' },
    ),
  },
  warnings: [
    failure(
      'relief',
      'relief > class * 1.000001',
      'The cross-port reliefs stand above the pressure class: take a larger motor, or a smaller margin.',
    ),
    failure(
      'relief',
      'relief < (pressure + charge) * 0.99999',
      'The cross-port reliefs open while the motor drives its load.',
    ),
    warning(
      'displacement',
      'delivered < flow * 0.999',
      'At full stroke the motor does not reach the speed wanted.',
    ),
  ],
  compare: ['delivered', 'torque', 'shaftPower', 'charge-pump.displacement'],
})
