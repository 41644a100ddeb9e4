import { card, chart, input, step, warning } from '../../card'

/** Temperature of the oil after a time, and the time until a temperature. */
export const temperatureTime = card({
  id: 'temperature-time',
  title: 'Temperature over time',
  group: 'tank',
  scope: 'machine',
  applies: { onRequest: true },
  about: 'How warm the oil is after a time of work, and how long it takes to a temperature.',
  source: 'one body that is warmed and loses heat to its surroundings: ϑ(t) = ϑ_∞ + (ϑ₀ − ϑ_∞) · e^(−t/τ)',
  answer: 'after',
  variables: {
    heat: input('P', 'Heat', 'power', '2 kW', 0, 1e7, { from: 'heat-balance.heat' }),
    transfer: input('U·A', 'Heat transfer of tank and cooler', 'heatTransfer', '40 W/K', 0.1, 1e6, {
      from: 'heat-balance.transfer',
    }),
    cooler: input('k_c', 'Heat transfer of the cooler', 'heatTransfer', '0 W/K', 0, 1e6, {
      from: 'heat-balance.fitted',
    }),
    volume: input('V', 'Oil', 'volume', '100 L', 1e-4, 100, { from: 'tank-volume.fill' }),
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    heatCapacity: input('c', 'Heat capacity, against 1900 J/(kg·K)', 'ratio', '1', 0.5, 3),
    start: input('ϑ₀', 'Temperature at the start', 'temperature', '20 °C', 213.15, 393.15, {
      from: 'brief.ambientMax',
    }),
    ambient: input('ϑ_a', 'Ambient', 'temperature', '30 °C', 213.15, 353.15, { from: 'brief.ambientMax' }),
    coolant: input('ϑ_w', 'Coolant', 'temperature', '25 °C', 253.15, 343.15, {
      from: 'heat-balance.coolant',
    }),
    time: input('t', 'Time', 'time', '1 h', 0, 1e8),
    wanted: input('ϑ', 'Temperature that is looked for', 'temperature', '60 °C', 213.15, 473.15),
    steady: step(
      'ϑ_∞',
      'Temperature that it settles at',
      'temperature',
      '(heat + transfer * ambient + cooler * coolant) / (transfer + cooler)',
    ),
    timeConstant: step(
      'τ',
      'Time constant',
      'time',
      'density * volume * 1900 * heatCapacity / (transfer + cooler)',
    ),
    after: step(
      'ϑ_t',
      'Temperature after the time',
      'temperature',
      'steady + (start - steady) * exp(-time / timeConstant)',
    ),
    reached: step('x', 'Part of the way to it, looked for', 'ratio', '(wanted - start) / (steady - start)', {
      note: '1 and more is never reached',
    }),
    until: step(
      't_ϑ',
      'Time until that temperature',
      'time',
      'reached <= 0 ? 0 : (reached < 1 ? -timeConstant * log(1 - reached) : 1e9)',
    ),
  },
  warnings: [
    warning('wanted', 'reached >= 1', 'That temperature is never reached: it settles before it.'),
    warning('steady', 'steady > 343.15', 'Above about 70 °C oil and seals age quickly and clearances leak.'),
  ],
  charts: [chart('Temperature over time', 'time', '0', 'timeConstant * 4', ['after'], ['wanted', 'steady'])],
})
