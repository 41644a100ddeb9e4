import { card, choice, failure, input, step, trade } from '../../card'

/** Margin and compensator of a load-sensing pump. */
export const loadSensing = card({
  id: 'load-sensing',
  title: 'Load-sensing settings',
  group: 'pump',
  scope: 'machine',
  applies: { supply: ['loadSensing'] },
  about: 'Margin and compensator setting, and what the pump takes standing by.',
  source: 'pressure balance between pump and highest load',
  answer: 'compensator',
  variables: {
    load: input('p_L', 'Highest load pressure', 'pressure', '150 bar', 0, 700e5, {
      from: 'working-pressure.highest',
      required: true,
    }),
    section: input('Δp_s', 'Pressure drop of the section', 'pressure', '10 bar', 1e5, 100e5),
    line: input('Δp_l', 'Loss in line and signal line', 'pressure', '5 bar', 0, 100e5, {
      note: 'cold, at full flow',
    }),
    reserve: input('Δp_r', 'Reserve of the controller', 'pressure', '5 bar', 0, 100e5),
    flow: input('Q_s', 'Leakage and signal flow standing by', 'flow', '2 L/min', 0, 0.1),
    overall: input('η', 'Efficiency standing by', 'share', '50 %', 0.05, 1),
    band: input('b', 'Band of the compensator', 'pressure', '5 bar', 0, 50e5, {
      note: 'from full stroke to none',
    }),
    maximumPressure: input('p_max', 'Pressure class', 'pressure', '250 bar', 5e5, 700e5, {
      from: 'brief.maximumPressure',
    }),
    margin: step('m', 'Margin', 'pressure', 'section + line + reserve', { sized: 'pumpMargin' }),
    compensator: choice('p_c', 'Compensator setting', 'pressure', 'settings', 'load + margin + band', {
      sized: 'compensatorSetting',
      note: 'so that full flow is there at the highest load',
      ruler: 'limit',
    }),
    standby: step('P', 'Shaft power standing by', 'power', 'margin * flow / overall', {
      trade: trade('margin * flow / (1714 * overall)', 'hp', { flow: 'gpm', margin: 'psi', overall: '' }),
    }),
    lost: step('k', 'Power lost over the section at the highest load', 'share', 'margin / (load + margin)'),
  },
  warnings: [
    failure(
      'compensator',
      'compensator > maximumPressure',
      'The compensator would be set above the pressure class: make the actuators larger or the margin smaller.',
    ),
  ],
})
