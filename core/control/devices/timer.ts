import { quantity } from '../../catalogue/kind'
import { burnt, defineDevice, stuck } from '../device'

/** Timers of IEC 61131-3, by function. */
const BLOCKS = { onDelay: 'TON', offDelay: 'TOF', oneShot: 'TP' } as const

/** On-delay: on a time after current comes. Off-delay: off a time after it goes. One-shot: on for a time after it comes. */
export const timer = defineDevice({
  name: 'timer',
  label: 'Timer',
  letter: 'K',
  description: 'Its contacts follow its coil with a delay, or act for a time.',
  searchTerms: ['timer', 'delay', 'on-delay', 'off-delay', 'one-shot', 'pulse'],
  place: 'cabinet',
  parameters: {
    function: {
      type: 'choice',
      label: 'Function',
      default: 'onDelay',
      choices: { onDelay: 'on-delay', offDelay: 'off-delay', oneShot: 'one-shot' },
    },
    time: quantity('Time', 'time', '1 s', 1e-3, 1e5),
  },
  faults: [stuck, burnt],
  contacts: () => [{ terminal: '', label: 'contact' }],
  coils: [{ terminal: '', label: 'coil' }],
  freeDelay: true,
  functionBlock: {
    typeName: (values) => BLOCKS[values.function],
    valuesOf(typeName) {
      const found = Object.entries(BLOCKS).find(([, name]) => name === typeName)
      return found && { function: found[0] }
    },
    inputs: { '': 'IN' },
    constant: { input: 'PT', parameter: 'time', type: 'TIME' },
  },
  words: { on: 'goes on', off: 'goes off' },
  closed: ({ state }) => state.on,
  currentChanged({ state, values }, coil, t) {
    const current = state.coils[coil]
    if (values.function === 'onDelay') {
      state.on = false
      state.due = current ? t + values.time : Infinity
    } else if (values.function === 'offDelay') {
      if (current) state.on = true
      state.due = current || !state.on ? Infinity : t + values.time
    } else if (current && !state.on) {
      state.on = true
      state.due = t + values.time
    }
  },
  expire({ state, values }) {
    state.on = values.function === 'onDelay'
    state.due = Infinity
  },
})
