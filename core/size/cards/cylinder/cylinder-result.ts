import { card, input, step, warning } from '../../card'
import { supplyInput } from '../../common-inputs'

/** What a cylinder does with the pump that was chosen, to be seen in a run. */
export const cylinderResult = card({
  id: 'cylinder-result',
  title: 'Resulting motion',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'Speeds and chamber pressure with the sizes that were chosen; a run shows the same.',
  source: 'continuity and balance of forces at the piston',
  answer: 'speedOut',
  variables: {
    supply: supplyInput('a fixed pump sets the speed, else the valve does'),
    delivered: input('Q', 'Flow of the pump', 'flow', '34.5 L/min', 0, 1, {
      from: ['pump-displacement.delivered', 'high-low-pump.delivered'],
    }),
    capArea: input('A₁', 'Area, extending', 'area', '50.27 cm²', 1e-6, 4, {
      from: 'cylinder-motion.capArea',
      required: true,
    }),
    rodArea: input('A₂', 'Area, retracting', 'area', '34.36 cm²', 0, 4, {
      from: 'cylinder-motion.rodArea',
      required: true,
    }),
    travel: input('s', 'Stroke', 'length', '600 mm', 1e-3, 20, { from: 'motion.travel', required: true }),
    wantedOut: input('v₀', 'Speed wanted, out', 'speed', '100 mm/s', 1e-6, 20, {
      from: 'cylinder-motion.speedOut',
      required: true,
    }),
    wantedBack: input('v₀ᵣ', 'Speed wanted, back', 'speed', '120 mm/s', 1e-6, 20, {
      from: 'cylinder-motion.speedBack',
      required: true,
    }),
    force: input('F', 'Greatest force, out', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5, {
      from: 'cylinder-motion.backPressure',
    }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-motion.efficiency',
    }),
    speedOut: step('v', 'Speed, extending', 'speed', 'supply <= 1 ? delivered / capArea : wantedOut', {
      measure: { what: 'speed', while: 'out', take: 'usual' },
    }),
    speedBack: step(
      'vᵣ',
      'Speed, retracting',
      'speed',
      'supply <= 1 and rodArea > 0 ? delivered / rodArea : wantedBack',
      { measure: { what: 'speed', while: 'back', take: 'usual' } },
    ),
    timeOut: step('t', 'Time, extending', 'time', 'travel / speedOut'),
    timeBack: step('tᵣ', 'Time, retracting', 'time', 'travel / speedBack'),
    chamber: step(
      'p',
      'Chamber pressure at the greatest force',
      'pressure',
      '(force + backPressure * rodArea) / (capArea * efficiency)',
      { measure: { what: 'pressure', while: 'out', take: 'most' } },
    ),
  },
  warnings: [
    warning('speedOut', 'speedOut < wantedOut * 0.98', 'It extends more slowly than the brief asks for.'),
    warning('speedBack', 'speedBack < wantedBack * 0.98', 'It retracts more slowly than the brief asks for.'),
  ],
})
