import { defineDevice } from '../device'

const COLOURS = {
  white: 'white',
  green: 'green: normal',
  yellow: 'yellow: abnormal',
  red: 'red: danger',
  blue: 'blue: action needed',
} as const

/** Shows whether its path has current (colours of IEC 60073). */
export const lamp = defineDevice({
  name: 'lamp',
  label: 'Lamp',
  letter: 'P',
  description: 'Shows a state to the operator.',
  searchTerms: ['lamp', 'light', 'indicator', 'pilot light'],
  place: 'operator',
  parameters: { colour: { type: 'choice', label: 'Colour', default: 'white', choices: COLOURS } },
  coils: [{ terminal: '', label: 'lamp' }],
})

export const horn = defineDevice({
  name: 'horn',
  label: 'Horn',
  letter: 'P',
  description: 'Sounds while its path has current.',
  searchTerms: ['horn', 'buzzer', 'sounder'],
  place: 'operator',
  parameters: {},
  coils: [{ terminal: '', label: 'horn' }],
})
