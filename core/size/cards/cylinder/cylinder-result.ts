import { card, input, step, warning } from '../../card'

/** What a cylinder does with the pump that was chosen, to be seen in a run. */
export const cylinderResult = card({
  id: 'cylinder-result',
  title: 'Resulting motion',
  group: 'cylinder',
  scope: 'motion',
  applies: { actuators: ['linear'] },
  about: 'Greatest speeds and chamber pressures with the sizes that were chosen; a run shows the same.',
  source: 'continuity and balance of forces at the piston',
  answer: 'speedOut',
  variables: {
    ratioOut: input('k', 'Greatest speed against the speed asked for, out', 'share', '100 %', 0, 1e6, {
      from: 'flow-control.ratioOut',
    }),
    ratioBack: input('kᵣ', 'Greatest speed against the speed asked for, back', 'share', '100 %', 0, 1e6, {
      from: 'flow-control.ratioBack',
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
    force: input('F', 'Greatest force that resists, out', 'force', '60 kN', 0, 1e8, {
      from: 'linear-load.forceOut',
      required: true,
    }),
    forceBack: input('Fᵣ', 'Greatest force that resists, back', 'force', '4 kN', 0, 1e8, {
      from: 'linear-load.forceBack',
    }),
    backPressure: input('p₂', 'Back pressure on the other side', 'pressure', '5 bar', 0, 200e5, {
      from: 'cylinder-motion.backPressure',
    }),
    efficiency: input('η', 'Cylinder efficiency', 'share', '93 %', 0.3, 1, {
      from: 'cylinder-motion.efficiency',
    }),
    speedOut: step('v', 'Speed, extending', 'speed', 'wantedOut * ratioOut', {
      measure: { what: 'speed', while: 'out', take: 'usual' },
    }),
    speedBack: step('vᵣ', 'Speed, retracting', 'speed', 'wantedBack * ratioBack', {
      measure: { what: 'speed', while: 'back', take: 'usual' },
    }),
    timeOut: step('t', 'Time, extending', 'time', 'travel / speedOut'),
    timeBack: step('tᵣ', 'Time, retracting', 'time', 'travel / speedBack'),
    chamber: step(
      'p',
      'Chamber pressure at the greatest force',
      'pressure',
      '(force + backPressure * rodArea) / (capArea * efficiency)',
      { measure: { what: 'pressure', while: 'out', take: 'most' } },
    ),
    chamberBack: step(
      'pᵣ',
      'Chamber pressure at the greatest force, back',
      'pressure',
      'rodArea > 0 ? (forceBack + backPressure * capArea) / (rodArea * efficiency) : 0',
      { measure: { what: 'pressure', while: 'back', take: 'most' } },
    ),
  },
  warnings: [
    warning('speedOut', 'speedOut < wantedOut * 0.98', 'It extends more slowly than the brief asks for.'),
    warning('speedBack', 'speedBack < wantedBack * 0.98', 'It retracts more slowly than the brief asks for.'),
  ],
})
