import { card, chart, input, step } from '../../card'

/** Precharge at another temperature than that at which it works. */
export const prechargeTemperature = card({
  id: 'precharge-temperature',
  title: 'Precharge at temperature',
  group: 'accumulator',
  scope: 'machine',
  applies: { supply: ['accumulator'] },
  about:
    'What to fill in cold so that the precharge is right when warm, and what is left on the coldest day.',
  source: 'gas law at constant volume',
  answer: 'filling',
  variables: {
    precharge: input('p₀', 'Precharge at working temperature', 'pressure', '90 bar', 1e5, 700e5, {
      from: 'accumulator-volume.precharge',
      required: true,
    }),
    working: input('ϑ₂', 'Working temperature', 'temperature', '45 °C', 233.15, 373.15, {
      from: 'brief.oilTemperature',
    }),
    fillingTemperature: input('ϑ₁', 'Temperature while filling', 'temperature', '20 °C', 233.15, 333.15),
    coldest: input('ϑ₀', 'Coldest day', 'temperature', '0 °C', 213.15, 333.15, { from: 'brief.ambientMin' }),
    air: input('p_a', 'Pressure of the air', 'pressure', '1.01325 bar', 0.5e5, 1.1e5),
    filling: step(
      'p₀₁',
      'Precharge to fill in',
      'pressure',
      '(precharge + air) * fillingTemperature / working - air',
    ),
    cold: step(
      'p₀₀',
      'Precharge on the coldest day',
      'pressure',
      '(precharge + air) * coldest / working - air',
    ),
  },
  charts: [chart('Precharge over temperature', 'fillingTemperature', '253.15', '333.15', ['filling'])],
  notes: ['Measure the precharge only with the oil side relieved. Nitrogen only: never oxygen, never air.'],
})
