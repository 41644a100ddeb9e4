import { card, chart, choice, input, step, trade, warning } from '../../card'
import { viscosityInputs } from '../../common-inputs'

/** Pressure at the inlet of the pump when it starts cold and high up. */
export const pumpInlet = card({
  id: 'pump-inlet',
  title: 'Inlet of the pump',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['fixedPump', 'highLow', 'compensated', 'loadSensing', 'accumulator'] },
  about: 'Bore of the inlet line, and the absolute pressure that is left at the pump at the coldest start.',
  source: 'standard atmosphere, ISO 2533; Hagen–Poiseuille for laminar and Blasius for turbulent flow',
  answer: 'inletPressure',
  variables: {
    flow: input('Q', 'Flow of the pump', 'flow', '35 L/min', 1e-8, 1, {
      from: ['pump-displacement.delivered', 'high-low-pump.delivered', 'cycle.peakFlow'],
      required: true,
    }),
    velocity: input('v₀', 'Velocity that is allowed', 'speed', '0.8 m/s', 0.05, 5, {
      note: '0.5 to 1.2 m/s',
    }),
    length: input('L', 'Length of the line', 'length', '1 m', 0, 100),
    fittings: input('ζ', 'Loss factors of elbows, strainer and valve', 'ratio', '2', 0, 100),
    height: input('h', 'Oil level above the pump', 'length', '0.2 m', -10, 50, {
      note: 'negative where the pump draws up',
    }),
    altitude: input('H', 'Altitude', 'length', '0 m', -500, 6000, { from: 'brief.altitude' }),
    temperature: input('ϑ', 'Coldest start', 'temperature', '0 °C', 213.15, 363.15, {
      from: 'brief.ambientMin',
    }),
    ...viscosityInputs,
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    lowest: input('p_min', 'Lowest absolute inlet pressure of the pump', 'pressure', '0.8 bar', 0.1e5, 2e5, {
      note: 'gear 0.8, vane 0.85, piston 0.9 bar or more',
    }),
    outlet: input('d_o', 'Bore of the outlet', 'length', '16 mm', 1e-3, 0.5, { from: 'line-pressure.bore' }),
    boreNeeded: step('d₀', 'Bore needed', 'length', 'sqrt(4 * flow / (pi * velocity))', {
      trade: trade('sqrt(0.4085 * flow / velocity)', 'in', { flow: 'gpm', velocity: 'ft/s' }),
    }),
    bore: choice('d', 'Bore of the inlet', 'length', 'pipeBores', 'boreNeeded', {
      service: 'suction',
      atLeast: true,
    }),
    atmosphere: step(
      'p_a',
      'Pressure of the air',
      'pressure',
      '101325 * (1 - 2.25577e-5 * altitude)^5.25588',
      { source: 'ISO 2533' },
    ),
    viscosity: step(
      'ν',
      'Viscosity at the start',
      'viscosity',
      'viscosity(temperature, viscosity40, viscosity100)',
      {
        source: 'ASTM D341',
        valid: {
          max: 1000e-6,
          message:
            'Above about 1000 mm²/s most pumps must not be started: heat the oil or take a thinner one.',
        },
      },
    ),
    speed: step('v', 'Velocity', 'speed', '4 * flow / (pi * bore^2)'),
    reynolds: step('Re', 'Reynolds number', 'ratio', 'speed * bore / viscosity'),
    friction: step(
      'λ',
      'Friction factor',
      'ratio',
      'reynolds < 2300 ? 64 / reynolds : 0.3164 / reynolds^0.25',
    ),
    loss: step(
      'Δp',
      'Pressure loss',
      'pressure',
      '(friction * length / bore + fittings) * density * speed^2 / 2',
    ),
    inletPressure: step(
      'p_i',
      'Pressure at the inlet, absolute',
      'pressure',
      'atmosphere + density * 9.80665 * height - loss',
    ),
  },
  warnings: [
    warning(
      'inletPressure',
      'inletPressure < lowest',
      'The pump starves at this start: larger or shorter inlet, higher oil level, thinner or warmer oil.',
    ),
    warning('bore', 'bore < outlet', 'The inlet is smaller than the outlet of the pump.'),
  ],
  compare: ['speed', 'loss', 'inletPressure'],
  charts: [
    chart(
      'Inlet pressure over the temperature of the start',
      'temperature',
      '253.15',
      '323.15',
      ['inletPressure'],
      ['lowest'],
    ),
  ],
})
