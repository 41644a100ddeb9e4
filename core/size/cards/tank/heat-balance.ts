import { card, chart, choice, input, step, warning } from '../../card'

/** Heat of the machine, steady temperature, cooler and warm-up. */
export const heatBalance = card({
  id: 'heat-balance',
  title: 'Heat and cooler',
  group: 'tank',
  scope: 'machine',
  applies: {},
  about:
    'The temperature that the oil settles at, the cooler that keeps it lower, and how long warming up takes.',
  source: 'what the shaft puts in less what the actuators take out; first-order warming',
  answer: 'temperature',
  variables: {
    shaft: input('P_s', 'Mean shaft power', 'power', '3 kW', 0, 1e7, { from: 'heat-input.shaftMean' }),
    useful: input('P_u', 'Mean power that the actuators take out', 'power', '1 kW', 0, 1e7, {
      from: 'heat-input.usefulMean',
    }),
    volume: input('V', 'Oil in the tank', 'volume', '100 L', 1e-4, 100, { from: ['tank-volume.fill'] }),
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    surface: input('k', 'Heat transfer of the tank', 'heatTransfer', '0 W/K', 0, 1e5, {
      note: '0: estimated from the volume, 12 W/(m²·K) on five walls',
    }),
    ambient: input('ϑ_a', 'Ambient, highest', 'temperature', '30 °C', 213.15, 353.15, {
      from: 'brief.ambientMax',
    }),
    coolant: input('ϑ_w', 'Coolant', 'temperature', '25 °C', 253.15, 343.15, { from: 'brief.ambientMax' }),
    wanted: input('ϑ_m', 'Highest temperature wanted', 'temperature', '60 °C', 293.15, 393.15),
    heat: step('P', 'Heat', 'power', 'max(0, shaft - useful)'),
    transfer: step(
      'U·A',
      'Heat transfer of the tank',
      'heatTransfer',
      'surface > 0 ? surface : 12 * 5 * volume^(2/3)',
      { source: 'five walls of a cube at 12 W/(m²·K)' },
    ),
    temperature: step(
      'ϑ',
      'Temperature that it settles at, no cooler',
      'temperature',
      'ambient + heat / transfer',
    ),
    needed: step(
      'k_c₀',
      'Cooler needed',
      'heatTransfer',
      'wanted > coolant ? max(0, (heat - transfer * (wanted - ambient)) / (wanted - coolant)) : 0',
    ),
    cooler: choice('k_c', 'Cooler', 'heatTransfer', 'coolers', 'max(1, needed)', {
      sized: 'coolerTransfer',
      atLeast: true,
      note: 'none where nothing is needed',
    }),
    fitted: step('k_f', 'Cooler that counts', 'heatTransfer', 'needed > 0 ? cooler : 0'),
    withCooler: step(
      'ϑ_c',
      'Temperature with this cooler',
      'temperature',
      '(heat + transfer * ambient + fitted * coolant) / (transfer + fitted)',
    ),
    coolerPower: step('P_c', 'Heat that it takes', 'power', 'fitted * (withCooler - coolant)'),
    timeConstant: step(
      'τ',
      'Time constant of warming up',
      'time',
      'density * volume * 1900 / (transfer + fitted)',
      { note: 'after three of these it is warm' },
    ),
  },
  warnings: [
    warning('wanted', 'wanted <= max(ambient, coolant)', 'The oil cannot be kept below what cools it.'),
    warning(
      'withCooler',
      'withCooler > 343.15',
      'Above about 70 °C oil and seals age quickly and clearances leak.',
    ),
  ],
  compare: ['withCooler', 'coolerPower'],
  charts: [
    chart(
      'Temperature over heat',
      'shaft',
      'useful',
      'shaft * 2 + 100',
      ['temperature', 'withCooler'],
      ['wanted'],
    ),
  ],
})
