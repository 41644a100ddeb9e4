import { defineDevice, pressed } from '../device'

/** States of an alarm, as `count` has them. */
export const ALARM = { clear: 0, unacknowledged: 1, acknowledged: 2, gone: 3 } as const

/** Comes with its current, stands until it is gone and somebody has acknowledged it. */
export const alarm = defineDevice({
  name: 'alarm',
  label: 'Alarm',
  letter: 'P',
  description:
    'A row of the alarm panel: it comes with its current and stands until it is acknowledged and gone.',
  searchTerms: ['alarm', 'annunciator', 'warning', 'trip', 'fault'],
  place: 'operator',
  parameters: {
    severity: {
      type: 'choice',
      label: 'What it is',
      default: 'early',
      choices: { early: 'early alarm: look at it', trip: 'trip: something was stopped' },
    },
  },
  inputs: () => [{ ...pressed(false), name: 'acknowledge', label: 'acknowledge' }],
  contacts: () => [{ terminal: '', label: 'not acknowledged' }],
  coils: [{ terminal: '', label: 'alarm' }],
  outputs: [{ name: 'state', label: 'state of the alarm', quantity: 'ratio' }],
  closed: ({ state }) => state.count === ALARM.unacknowledged || state.count === ALARM.gone,
  currentChanged({ state }, coil) {
    if (state.coils[coil]) state.count = ALARM.unacknowledged
    else if (state.count === ALARM.acknowledged) state.count = ALARM.clear
    else if (state.count === ALARM.unacknowledged) state.count = ALARM.gone
  },
  worked({ state, input }) {
    if (input('acknowledge') < 0.5) return
    if (state.count === ALARM.unacknowledged) state.count = ALARM.acknowledged
    else if (state.count === ALARM.gone) state.count = ALARM.clear
  },
})
