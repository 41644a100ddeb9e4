import { card, choice, failure, input, step, trade } from '../../card'

/** Compensator of a pressure-compensated pump. */
export const compensatedPump = card({
  id: 'compensated-pump',
  title: 'Compensator setting',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['compensated'] },
  about:
    'A setting at which full flow is still there at the highest load, and what the pump takes standing by.',
  source: 'pressure of the load, a reserve and the band from full stroke to none',
  answer: 'compensator',
  variables: {
    load: input('p_L', 'Highest pressure of the cycle', 'pressure', '130 bar', 0, 700e5, {
      from: 'working-pressure.highest',
      required: true,
    }),
    reserve: input('k', 'Reserve', 'share', '10 %', 0, 1),
    band: input('b', 'Band from full stroke to none', 'pressure', '5 bar', 0, 50e5),
    leakage: input('Q_s', 'Leakage standing by', 'flow', '2 L/min', 0, 0.1),
    overall: input('η', 'Efficiency standing by', 'share', '50 %', 0.05, 1),
    maximumPressure: input('p_max', 'Pressure class', 'pressure', '160 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    compensator: choice('p_c', 'Compensator setting', 'pressure', 'settings', 'load * (1 + reserve) + band', {
      sized: 'compensatorSetting',
      ruler: 'limit',
    }),
    full: step('p_f', 'Full flow up to', 'pressure', 'compensator - band'),
    standby: step('P', 'Shaft power standing by', 'power', 'compensator * leakage / overall', {
      trade: trade('compensator * leakage / (1714 * overall)', 'hp', {
        compensator: 'psi',
        leakage: 'gpm',
        overall: '',
      }),
    }),
  },
  warnings: [
    failure(
      'compensator',
      'compensator > maximumPressure',
      'The compensator would be set above the pressure class: make the actuators larger.',
    ),
  ],
})
