import { card, chart, input, step, warning } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Viscosity over temperature against what the components allow. */
export const oilViscosity = card({
  id: 'oil-viscosity',
  title: 'Viscosity',
  group: 'tank',
  scope: 'machine',
  applies: {},
  about: 'Whether the oil is thin enough at the start and thick enough when hot.',
  source: 'Walther equation, ASTM D341',
  answer: 'working',
  variables: {
    ...viscosityInputs,
    coldest: input('ϑ₀', 'Coldest start', 'temperature', '0 °C', 213.15, 353.15, {
      from: 'brief.ambientMin',
    }),
    usual: input('ϑ₁', 'Working temperature', 'temperature', '45 °C', 253.15, 393.15, {
      from: 'brief.oilTemperature',
    }),
    hottest: input('ϑ₂', 'Hottest', 'temperature', '65 °C', 253.15, 393.15, {
      from: 'heat-balance.withCooler',
    }),
    highest: input('ν_max', 'Highest at the start', 'viscosity', '1000 mm²/s', 1e-5, 1e-2, {
      note: 'gear pumps 1000 to 2000, vane 800, piston 1000',
    }),
    lowest: input('ν_min', 'Lowest when hot', 'viscosity', '12 mm²/s', 1e-6, 1e-4),
    atStart: step('ν₀', 'At the coldest start', 'viscosity', 'viscosity(coldest, viscosity40, viscosity100)'),
    working: step('ν₁', 'At working temperature', 'viscosity', 'viscosity(usual, viscosity40, viscosity100)'),
    hot: step('ν₂', 'At the hottest', 'viscosity', 'viscosity(hottest, viscosity40, viscosity100)'),
  },
  warnings: [
    warning(
      'atStart',
      'atStart > highest',
      'Too thick at the coldest start: a thinner oil, a heater, or start unloaded and slowly.',
    ),
    warning('hot', 'hot < lowest', 'Too thin when hot: a thicker oil, or a cooler.'),
    warning(
      'working',
      'working < 16e-6 or working > 100e-6',
      'Outside of about 16 to 100 mm²/s, where most components work best.',
    ),
  ],
  charts: [chart('Viscosity over temperature', 'usual', '273.15', '363.15', ['working'], ['lowest'])],
})
