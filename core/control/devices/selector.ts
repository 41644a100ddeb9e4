import { defineDevice, stuck } from '../device'

const COUNTS = { two: 'two', three: 'three' } as const

/** Two or three positions; a contact for each, closed while the selector stands there. */
export const selector = defineDevice({
  name: 'selector',
  label: 'Selector',
  letter: 'S',
  description: 'Two or three positions, worked by a knob or by a key; it stays where it is put.',
  searchTerms: ['selector', 'key switch', 'rotary switch', 'mode'],
  place: 'operator',
  selects: true,
  parameters: {
    positions: { type: 'choice', label: 'Positions', default: 'two', choices: COUNTS },
    key: { type: 'switch', label: 'Worked by a key', default: false },
    first: { type: 'text', label: 'Position 0', default: 'off' },
    second: { type: 'text', label: 'Position 1', default: 'on' },
    third: { type: 'text', label: 'Position 2', default: 'automatic', note: 'where it has three' },
  },
  inputs: ({ positions, first, second, third }) => [
    {
      name: 'position',
      label: 'position',
      quantity: 'ratio',
      rest: 0,
      min: 0,
      max: positions === 'three' ? 2 : 1,
      positions: [
        { value: 0, label: first, action: `is turned to ${first}` },
        { value: 1, label: second, action: `is turned to ${second}` },
        ...(positions === 'three' ? [{ value: 2, label: third, action: `is turned to ${third}` }] : []),
      ],
    },
  ],
  faults: [stuck],
  contacts: ({ positions, first, second, third }) => [
    { terminal: '0', label: first },
    { terminal: '1', label: second },
    ...(positions === 'three' ? [{ terminal: '2', label: third }] : []),
  ],
  conditions: { closed: 'at this position', open: 'at another position' },
  closed: ({ input }, terminal) => Math.round(input('position')) === Number(terminal),
})
