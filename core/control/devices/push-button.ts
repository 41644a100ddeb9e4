import { defineDevice, pressed, PRESSED_CONDITIONS, stuck } from '../device'

/** Acts while it is pressed; latching, until it is pushed back. */
export const pushButton = defineDevice({
  name: 'push-button',
  label: 'Push button',
  letter: 'S',
  description: 'Any number of contacts, one operator. Momentary, or latching.',
  searchTerms: ['button', 'start', 'stop', 'push'],
  place: 'operator',
  parameters: {
    purpose: {
      type: 'choice',
      label: 'Purpose',
      default: 'other',
      choices: { start: 'starts', stop: 'stops', other: 'something else' },
      note: 'a button that stops is wired normally closed, so that a broken wire stops too',
    },
    latching: { type: 'switch', label: 'Stays pressed until it is pushed back', default: false },
  },
  inputs: ({ latching }) => [pressed(latching)],
  faults: [stuck],
  contacts: () => [{ terminal: '', label: 'contact' }],
  conditions: PRESSED_CONDITIONS,
  closed: ({ input }) => input('pressed') > 0.5,
})
