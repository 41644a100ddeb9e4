import { card, input, step, warning } from '../../card'

/** What a motor does with the pump that was chosen, to be seen in a run. */
export const motorResult = card({
  id: 'motor-result',
  title: 'Resulting motion',
  group: 'rotary',
  scope: 'motion',
  applies: { actuators: ['motor', 'winch'] },
  about: 'Speed and port pressure of the motor with the sizes that were chosen; a run shows the same.',
  source: 'continuity; T = V · Δp / (2 · π)',
  answer: 'speed',
  variables: {
    ratioOut: input('k', 'Greatest speed against the speed asked for, out', 'share', '100 %', 0, 1e6, {
      from: 'flow-control.ratioOut',
    }),
    ratioBack: input('kᵣ', 'Greatest speed against the speed asked for, back', 'share', '100 %', 0, 1e6, {
      from: 'flow-control.ratioBack',
    }),
    displacement: input('V', 'Displacement', 'displacement', '100 cm³/rev', 1e-7, 0.1, {
      from: 'motor-displacement.displacement',
      required: true,
    }),
    wanted: input('ω₀', 'Speed wanted, out', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: 'motor-displacement.speedOut',
      required: true,
    }),
    wantedBack: input('ω₀ᵣ', 'Speed wanted, back', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: 'motor-displacement.speedBack',
      required: true,
    }),
    torque: input('T', 'Greatest torque', 'torque', '200 N·m', 0, 1e8, {
      from: 'motor-displacement.torqueOut',
      required: true,
    }),
    mechanical: input('η_hm', 'Hydro-mechanical efficiency', 'share', '90 %', 0.2, 1, {
      from: 'motor-displacement.mechanical',
    }),
    backPressure: input('p₂', 'Back pressure at the outlet', 'pressure', '5 bar', 0, 200e5, {
      from: 'motor-displacement.backPressure',
    }),
    speed: step('ω', 'Speed of the motor, out', 'rotationalSpeed', 'wanted * ratioOut', {
      measure: { what: 'speed', while: 'out', take: 'usual' },
    }),
    speedBack: step('ωᵣ', 'Speed of the motor, back', 'rotationalSpeed', 'wantedBack * ratioBack', {
      measure: { what: 'speed', while: 'back', take: 'usual' },
    }),
    pressure: step(
      'p',
      'Pressure at the inlet, starting',
      'pressure',
      '2 * pi * torque / (displacement * mechanical) + backPressure',
      { measure: { what: 'pressure', while: 'out', take: 'most' } },
    ),
  },
  warnings: [
    warning('speed', 'speed < wanted * 0.98', 'It turns more slowly than the brief asks for.'),
    warning(
      'speedBack',
      'speedBack < wantedBack * 0.98',
      'Going back it turns more slowly than the brief asks for.',
    ),
  ],
})
