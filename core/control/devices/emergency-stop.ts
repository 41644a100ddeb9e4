import { defineDevice, pressed, PRESSED_CONDITIONS, stuck } from '../device'

/** Latches when it is pressed; its normally closed contacts open positively (ISO 13850). */
export const emergencyStop = defineDevice({
  name: 'emergency-stop',
  label: 'Emergency stop',
  letter: 'S',
  description: 'Stays pressed until it is reset by hand; its normally closed contacts open positively.',
  searchTerms: ['emergency', 'e-stop', 'mushroom', 'stop'],
  place: 'operator',
  parameters: {},
  inputs: () => [pressed(true)],
  faults: [stuck],
  contacts: () => [{ terminal: '', label: 'contact' }],
  stopsMotion: true,
  conditions: PRESSED_CONDITIONS,
  closed: ({ input }) => input('pressed') > 0.5,
})
