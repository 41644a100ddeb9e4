import { quantity } from '../../catalogue/kind'
import { defineDevice, stuck } from '../device'

/** Closed while something of the sheet lies in a range: a lever in its neutral, a lock that is set, a transducer beyond a value. */
export const valueContact = defineDevice({
  name: 'value-contact',
  label: 'Contact at a value',
  letter: 'B',
  description:
    'Closed while a value lies in a range: a joystick in its neutral, a lock that is set, the reading of a transducer. Unfitted, it only watches a run.',
  searchTerms: ['lever', 'joystick', 'neutral', 'lock', 'contact', 'comparator', 'limit'],
  place: 'cabinet',
  parameters: {
    watches: {
      type: 'text',
      label: 'Watches',
      default: '-',
      note: 'component and signal, such as P1.stroke',
    },
    from: quantity('Closed from', 'signal', '-0.05', -1e9, 1e9, { note: 'with a unit, such as 60 bar' }),
    to: quantity('to', 'signal', '0.05', -1e9, 1e9),
    fitted: {
      type: 'switch',
      label: 'Fitted to the machine',
      default: true,
      note: 'off: it is no part of the machine and only watches a run',
    },
  },
  faults: [stuck],
  contacts: () => [{ terminal: '', label: 'contact' }],
  references: { watches: 'value' },
  isVirtual: ({ fitted }) => !fitted,
  watched: ({ watches }) => (watches === '-' ? undefined : watches),
  conditions: { closed: 'in its range', open: 'outside its range' },
  closed: ({ state }) => state.on,
  observe({ state, values }, value) {
    state.on = value >= values.from && value <= values.to
    if (state.on) return [values.from, values.to]
    return value < values.from ? [-Infinity, values.from] : [values.to, Infinity]
  },
})
