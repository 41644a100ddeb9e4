import { card, input, option, step } from '../../card'
import { supplyInput } from '../../common-inputs'

/** How much of the pressure class is left for the loads when relief valve and pump control have theirs. */
export const pressureLevels = card({
  id: 'pressure-levels',
  title: 'Pressure levels',
  group: 'load',
  scope: 'machine',
  applies: {},
  about:
    'The working pressure that the pressure class leaves: the relief valve at its full flow stays within the class, and opens above the working pressure.',
  source: 'override (p_full − p_crack) / p_full as a straight line of flow over pressure',
  answer: 'available',
  variables: {
    class: input('p_N', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
      required: true,
      note: 'no line rises above it',
    }),
    supply: supplyInput(),
    relief: option(
      '',
      'Relief valve',
      'share',
      {
        pilotOperated: [0.06, 'pilot-operated, 6 % override'],
        direct: [0.2, 'direct-acting, 20 % override'],
      },
      'pilotOperated',
    ),
    override: step('o', 'Override', 'share', 'relief', { note: 'of the valve that is chosen' }),
    margin: input('m', 'Cracking above working pressure', 'share', '10 %', 0, 1),
    reserve: input('Δp', 'Reserve of the pump above the load', 'pressure', '25 bar', 0, 100e5, {
      note: 'margin and band of a controlled pump; charge pressure of a closed circuit',
    }),
    controlled: step('Δp₁', 'Reserve that counts', 'pressure', 'supply >= 2 and supply <= 4 ? reserve : 0'),
    cracking: step('p_c', 'Relief valve opens, at most', 'pressure', 'class * (1 - override)'),
    available: step('p', 'Working pressure, at most', 'pressure', 'cracking / (1 + margin) - controlled', {
      valid: { min: 1e5, message: 'The class leaves no working pressure.' },
    }),
  },
})
