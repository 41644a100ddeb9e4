import { card, choice, input, option, step, trade, warning } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Charge pump of a closed circuit. */
export const chargePump = card({
  id: 'charge-pump',
  title: 'Charge pump',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['closedCircuit'] },
  about: 'A tenth to a fifth of the main pump, checked against what leaves by the cases when hot and worn.',
  source: 'usual share of 10 to 20 %; leakage laminar, in proportion to 1/ν',
  answer: 'displacement',
  variables: {
    main: input('V', 'Displacement of the main pump', 'displacement', '45 cm³/rev', 1e-7, 0.01, {
      from: 'closed-circuit-pump.displacement',
      required: true,
    }),
    share: input('k', 'Share of the main pump', 'share', '20 %', 0.02, 0.5),
    speed: input('n', 'Shaft speed', 'rotationalSpeed', '1450 rpm', 1, 1000, { from: 'brief.shaftSpeed' }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '90 %', 0.2, 1),
    leakage: input('q', 'Case leakage of pump and motor, new, at 46 mm²/s', 'flow', '2 L/min', 0, 0.1, {
      from: 'max:motor-displacement.caseFlow',
    }),
    ...viscosityInputs,
    temperature: input('ϑ', 'Oil temperature, hottest', 'temperature', '70 °C', 273.15, 393.15),
    wear: input('k_w', 'Leakage when worn, against new', 'ratio', '2', 1, 10),
    flushing: input('Q_f', 'Flushing flow', 'flow', '0 L/min', 0, 0.1),
    pressure: input('p', 'Charge pressure', 'pressure', '20 bar', 1e5, 50e5, {
      from: 'closed-circuit-pump.charge',
    }),
    into: option('', 'Charge relief', 'ratio', { tank: [0, 'to tank'], case: [1, 'into the case'] }, 'case', {
      note: 'into the case it flushes the case; to tank its setting does not depend on case pressure',
    }),
    displacement: choice('V_c', 'Displacement', 'displacement', 'displacements', 'share * main', {
      rounding: 'up',
      sized: 'chargeDisplacement',
    }),
    flow: step('Q', 'Charge flow', 'flow', 'displacement * speed / (2 * pi) * volumetric', {
      trade: trade('displacement * speed * volumetric / 231', 'gpm', {
        displacement: 'in³/rev',
        speed: 'rpm',
        volumetric: '',
      }),
    }),
    hotViscosity: step(
      'ν',
      'Viscosity, hot',
      'viscosity',
      'viscosity(temperature, viscosity40, viscosity100)',
      { source: 'ASTM D341' },
    ),
    worn: step('q₁', 'Leakage, hot and worn', 'flow', 'leakage * wear * 46e-6 / hotViscosity'),
    left: step('Q_r', 'Left for the charge relief', 'flow', 'flow - worn - flushing'),
    setting: step('p_c', 'Setting of the charge relief', 'pressure', 'pressure', {
      sized: 'chargeReliefSetting',
      ruler: 'limit',
    }),
    power: step('P', 'Shaft power of the charge pump', 'power', 'flow * pressure / (volumetric * 0.9)', {
      trade: trade('flow * pressure / (1714 * volumetric * 0.9)', 'hp', {
        flow: 'gpm',
        pressure: 'psi',
        volumetric: '',
      }),
    }),
    reached: step('k₁', 'Share of the main pump that is reached', 'share', 'displacement / main'),
    caseFlow: step('Q_k', 'Through the case', 'flow', 'into == 1 ? flow : worn'),
  },
  warnings: [
    warning(
      'left',
      'left < 0',
      'Hot and worn, the cases take more than the charge pump gives: charge pressure falls and the drive starves.',
    ),
    warning(
      'displacement',
      'reached < 0.1',
      'Less than a tenth of the main pump is unusual: check leakage and flushing.',
    ),
    warning(
      'displacement',
      'reached > 0.3',
      'More than usual: the charge relief heats the oil with what is not needed.',
    ),
  ],
  compare: ['flow', 'left', 'reached', 'power'],
})
