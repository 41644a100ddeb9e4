import { defineDevice } from '../device'

/** Control voltage: without it no coil has current. */
export const supply = defineDevice({
  name: 'supply',
  label: 'Control supply',
  letter: 'T',
  description: 'The control voltage; it may fail and return.',
  searchTerms: ['supply', 'voltage', '24 v', 'power'],
  place: 'cabinet',
  parameters: { voltage: { type: 'text', label: 'Voltage', default: '24 V DC' } },
  faults: [
    {
      name: 'lost',
      label: 'control voltage lost',
      form: 'lost',
      quantity: 'ratio',
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'lost' },
        { value: 0, label: 'there' },
      ],
    },
  ],
  single: true,
  suppliesControl: true,
  closed: ({ input }) => input('lost') < 0.5,
})
