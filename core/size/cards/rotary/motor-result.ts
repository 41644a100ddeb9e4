import { card, input, step, warning } from '../../card'
import { supplyInput } from '../../common-inputs'

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
    supply: supplyInput('a fixed pump sets the speed, else the valve or the stroke does'),
    delivered: input('Q', 'Flow of the pump', 'flow', '32 L/min', 0, 1, {
      from: ['pump-displacement.delivered', 'high-low-pump.delivered'],
    }),
    displacement: input('V', 'Displacement', 'displacement', '100 cm³/rev', 1e-7, 0.1, {
      from: 'motor-displacement.displacement',
      required: true,
    }),
    volumetric: input('η_v', 'Volumetric efficiency', 'share', '94 %', 0.2, 1, {
      from: 'motor-displacement.volumetric',
    }),
    wanted: input('ω₀', 'Speed wanted', 'rotationalSpeed', '300 rpm', 1e-6, 2000, {
      from: 'motor-displacement.speedOut',
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
    speed: step(
      'ω',
      'Speed of the motor',
      'rotationalSpeed',
      'supply <= 1 ? delivered * volumetric * 2 * pi / displacement : wanted',
      { measure: { what: 'speed', while: 'out', take: 'usual' } },
    ),
    pressure: step(
      'p',
      'Pressure at the inlet, starting',
      'pressure',
      '2 * pi * torque / (displacement * mechanical) + backPressure',
      { measure: { what: 'pressure', while: 'out', take: 'most' } },
    ),
  },
  warnings: [warning('speed', 'speed < wanted * 0.98', 'It turns more slowly than the brief asks for.')],
})
