import { card, choice, input, option, step, warning } from '../../card'

/** Orifice or flow control for a wanted speed: meter-in, meter-out or bleed-off. */
export const flowControl = card({
  id: 'flow-control',
  title: 'Flow control',
  group: 'valve',
  scope: 'motion',
  applies: { actuators: ['linear'], onRequest: true },
  about:
    'Orifice for a wanted speed in the inlet, in the outlet or beside the motion, and what it does to pressures and heat.',
  source: 'Q = C_d · A · √(2 · Δp / ρ), C_d = 0.7',
  answer: 'orifice',
  variables: {
    method: option(
      '',
      'Throttled',
      'ratio',
      { meterIn: [0, 'in the inlet'], meterOut: [1, 'in the outlet'], bleedOff: [2, 'beside it, to tank'] },
      'meterOut',
    ),
    speed: input('v', 'Speed wanted', 'speed', '50 mm/s', 1e-6, 20, { from: 'cylinder-motion.speedOut' }),
    capArea: input('A₁', 'Area at the inlet', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
    }),
    rodArea: input('A₂', 'Area at the outlet', 'area', '34.36 cm²', 1e-6, 4, {
      from: 'cylinder-motion.rodArea',
    }),
    force: input('F', 'Load', 'force', '20 kN', -1e8, 1e8, { from: 'linear-load.forceOut' }),
    supply: input('p', 'Supply pressure', 'pressure', '150 bar', 1e5, 700e5, {
      from: ['relief-setting.cracking', 'brief.maximumPressure'],
    }),
    pump: input('Q_p', 'Flow of the pump', 'flow', '30 L/min', 1e-8, 1, {
      from: ['pump-displacement.delivered', 'high-low-pump.delivered'],
    }),
    density: input('ρ', 'Density', 'density', '870 kg/m³', 500, 1500),
    rating: input('p_R', 'Rated pressure of the cylinder', 'pressure', '250 bar', 1e5, 1000e5, {
      from: 'cylinder-motion.rating',
    }),
    inlet: step('Q₁', 'Flow in', 'flow', 'capArea * speed'),
    outlet: step('Q₂', 'Flow out', 'flow', 'rodArea * speed'),
    loadPressure: step('p_L', 'Pressure of the load at the inlet', 'pressure', 'max(0, force / capArea)'),
    rodPressure: step(
      'p₂',
      'Pressure at the outlet, throttled there',
      'pressure',
      '(supply * capArea - force) / rodArea',
    ),
    noLoad: step('p₂₀', 'The same without load', 'pressure', 'supply * capArea / rodArea'),
    throttled: step(
      'Q_t',
      'Flow through the orifice',
      'flow',
      'method == 0 ? inlet : (method == 1 ? outlet : pump - inlet)',
      { valid: { min: 0, message: 'The pump gives less than the speed needs.' } },
    ),
    drop: step(
      'Δp',
      'Pressure drop of the orifice',
      'pressure',
      'method == 0 ? supply - loadPressure : (method == 1 ? rodPressure : loadPressure)',
    ),
    diameter: step(
      'd₀',
      'Orifice needed',
      'length',
      'sqrt(4 * throttled / (pi * 0.7 * sqrt(2 * drop / density)))',
    ),
    orifice: choice('d', 'Orifice', 'length', 'orifices', 'diameter', { sized: 'orifice' }),
    flowSetting: step('Q_s', 'Setting of a compensated flow control', 'flow', 'throttled', {
      sized: 'flowSetting',
    }),
    over: step('Q_R', 'Over the relief valve', 'flow', 'method == 2 ? 0 : max(0, pump - inlet)'),
    heat: step('P', 'Heat of the throttling', 'power', 'over * supply + throttled * drop'),
  },
  warnings: [
    warning(
      'noLoad',
      'method == 1 and noLoad > rating',
      'Without load the rod side rises above the rating of the cylinder by intensification: throttle in the inlet, or limit the pressure.',
    ),
    warning(
      'method',
      'method == 0 and force < 0',
      'A load that drives runs away with a throttled inlet: throttle the outlet, or hold it with a counterbalance valve.',
    ),
  ],
  compare: ['drop', 'over', 'heat'],
})
