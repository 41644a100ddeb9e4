import { quantity } from '../../catalogue/kind'
import { burnt, defineDevice, stuck, type DeviceView } from '../device'

const coilTimes = {
  pullIn: quantity('Pull-in time', 'time', '15 ms', 1e-4, 1),
  dropOut: quantity('Drop-out time', 'time', '10 ms', 1e-4, 1),
} as const

interface CoilTimes {
  readonly pullIn: number
  readonly dropOut: number
}
/** Pulls in and drops out a time after its coil has gained or lost current; one that loses it before does not pull in. */
const follows = {
  place: 'cabinet',
  faults: [stuck, burnt],
  contacts: () => [{ terminal: '', label: 'contact' }],
  coils: [{ terminal: '', label: 'coil' }],
  settlesAtStart: true,
  words: { on: 'pulls in', off: 'drops out' },
  closed: ({ state }: DeviceView<CoilTimes>) => state.on,
  currentChanged({ state, values }: DeviceView<CoilTimes>, coil: number, t: number) {
    const current = state.coils[coil]
    state.due = current === state.on ? Infinity : t + (current ? values.pullIn : values.dropOut)
  },
  expire({ state }: DeviceView<CoilTimes>) {
    state.on = state.coils[0]
    state.due = Infinity
  },
} as const

export const relay = defineDevice({
  ...follows,
  name: 'relay',
  label: 'Relay',
  letter: 'K',
  description: 'A coil and any number of contacts, which follow it after its pull-in and drop-out times.',
  searchTerms: ['relay', 'auxiliary', 'memory', 'coil'],
  parameters: coilTimes,
})

/** A relay for the current of a motor. */
export const contactor = defineDevice({
  ...follows,
  name: 'contactor',
  label: 'Contactor',
  letter: 'Q',
  description: 'A relay whose main contacts switch a motor; its auxiliary contacts are those of the control.',
  searchTerms: ['contactor', 'motor starter', 'power'],
  parameters: {
    ...coilTimes,
    motor: {
      type: 'text',
      label: 'Motor that it switches',
      default: '-',
      note: 'id and input of a motor of the sheet, such as M1.on',
    },
  },
  references: { motor: 'coil' },
  drives: ({ motor }) => (motor === '-' ? undefined : motor),
  output: ({ state }) => (state.on ? 1 : 0),
})
