import { defineDevice, stuck } from '../device'
import { quantity } from '../../catalogue/kind'

/** Counts the times its coil gains current; on from its preset on, until its other coil resets it. */
export const counter = defineDevice({
  name: 'counter',
  label: 'Counter',
  letter: 'K',
  description: 'Counts closures; its contacts act when it has reached its preset, until it is reset.',
  searchTerms: ['counter', 'preset', 'pieces', 'cycles'],
  place: 'cabinet',
  parameters: { preset: quantity('Preset', 'ratio', '10', 1, 1e6) },
  faults: [stuck],
  contacts: () => [{ terminal: '', label: 'preset reached' }],
  coils: [
    { terminal: '', label: 'counts' },
    { terminal: 'reset', label: 'resets' },
  ],
  functionBlock: {
    typeName: () => 'CTU',
    valuesOf: (typeName) => (typeName === 'CTU' ? {} : undefined),
    inputs: { '': 'CU', reset: 'R' },
    constant: { input: 'PV', parameter: 'preset', type: 'INT' },
  },
  outputs: [{ name: 'count', label: 'counted', quantity: 'ratio' }],
  words: { on: 'has reached its preset', off: 'is reset' },
  closed: ({ state }) => state.on,
  currentChanged({ state, values }, coil) {
    const [, resets] = state.coils
    if (coil === 0 && state.coils[0] && !resets) state.count++
    if (resets) state.count = 0
    state.on = state.count >= values.preset
  },
})
