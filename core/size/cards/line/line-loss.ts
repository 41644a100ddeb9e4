import { card, chart, input, step, trade } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Pressure loss of a line, laminar or turbulent, with fittings. */
export const lineLoss = card({
  id: 'line-loss',
  title: 'Pressure loss of a line',
  group: 'line',
  scope: 'machine',
  applies: {},
  about: 'What a line takes at full flow, warm or cold.',
  source: 'Darcy–Weisbach; 64/Re below 2000, Blasius above 4000, in between along a straight line in log Re',
  answer: 'loss',
  variables: {
    flow: input('Q', 'Flow', 'flow', '30 L/min', 1e-9, 1, {
      from: ['line-pressure.flow', 'cycle.peakFlow'],
      required: true,
    }),
    bore: input('d', 'Bore', 'length', '13 mm', 1e-3, 1, { from: 'line-pressure.bore', required: true }),
    length: input('L', 'Length', 'length', '5 m', 0, 10000),
    fittings: input('ζ', 'Loss factors of fittings', 'ratio', '5', 0, 1000, {
      note: 'elbow 1, tee 1.3, coupling 0.5 to 3',
    }),
    temperature: input('ϑ', 'Oil temperature', 'temperature', '45 °C', 233.15, 393.15, {
      from: 'brief.oilTemperature',
    }),
    ...viscosityInputs,
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    viscosity: step('ν', 'Viscosity', 'viscosity', 'viscosity(temperature, viscosity40, viscosity100)', {
      source: 'ASTM D341',
    }),
    speed: step('v', 'Velocity', 'speed', '4 * flow / (pi * bore^2)', {
      trade: trade('0.3208 * flow / (0.7854 * bore^2)', 'ft/s', { bore: 'in', flow: 'gpm' }),
    }),
    reynolds: step('Re', 'Reynolds number', 'ratio', 'speed * bore / viscosity'),
    blend: step('b', 'Part that is turbulent', 'ratio', 'min(1, max(0, log(reynolds / 2000) / log(2)))'),
    friction: step(
      'λ',
      'Friction factor',
      'ratio',
      '(1 - blend) * 64 / min(reynolds, 2000) + blend * 0.3164 / max(reynolds, 4000)^0.25',
      {
        note: 'between 2000 and 4000 a straight line in log Re between the two ends',
      },
    ),
    lossPipe: step(
      'Δp_p',
      'Loss of the tube',
      'pressure',
      'friction * length / bore * density * speed^2 / 2',
    ),
    lossFittings: step('Δp_f', 'Loss of the fittings', 'pressure', 'fittings * density * speed^2 / 2'),
    loss: step('Δp', 'Pressure loss', 'pressure', 'lossPipe + lossFittings'),
    power: step('P', 'Power lost', 'power', 'loss * flow', {
      trade: trade('loss * flow / 1714', 'hp', { flow: 'gpm', loss: 'psi' }),
    }),
  },
  charts: [chart('Loss over temperature', 'temperature', '263.15', '343.15', ['loss'])],
})
