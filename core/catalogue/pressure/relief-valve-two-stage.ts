import { defineKind, quantity, type Local, indices, inputSpecs } from '../kind'
import { leak, lost, stuck } from '../faults'
import {
  reliefCaption,
  reliefModel,
  reliefParameters,
  reliefPorts,
  describeReliefValve,
  reliefSymbol,
  reliefTraits,
  STATE,
} from './relief'

const INPUT = indices('boost')

const settingOf = (values: { setting: number; high: number }) => (l: Local) =>
  values.setting + (values.high - values.setting) * l.u[INPUT.boost]

/** A relief whose spring is pushed further by a solenoid: p_set = p_low + (p_high − p_low)·u. The law is that of relief.ts. */
export const reliefValveTwoStage = defineKind({
  name: 'relief-valve-two-stage',
  label: 'Relief valve, two settings',
  family: 'pressure',
  searchTerms: ['two-stage relief', 'two pressure', 'power boost', 'dual relief', 'second setting'],
  designationLetter: 'V',
  description: 'A main relief with a lower setting at rest and a higher one while its solenoid is on.',
  guide: {
    acts: 'At rest the lower setting holds; with its solenoid on the pilot is loaded to the higher one.',
    fails: 'Without voltage the machine has only the lower pressure, which looks like a weak pump.',
    mistakes:
      'The higher setting above what the pipes and the pump are rated for; both settings measured cold and not at working flow.',
  },
  ports: reliefPorts,
  parameters: {
    ...reliefParameters('6 %', '15 ms'),
    high: quantity('Higher setting', 'pressure', '210 bar', 2e5, 700e5, { note: 'solenoid on' }),
  },
  inputs: inputSpecs(INPUT, {
    boost: {
      label: 'higher setting',
      electric: 'coil',
      quantity: 'ratio',
      rest: 0,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'on', action: 'goes to its higher setting' },
        { value: 0, label: 'off', action: 'goes to its lower setting' },
      ],
    },
  }),
  faults: [lost(INPUT.boost, 'coil without voltage'), stuck(STATE.opening), leak(0, 1, 'leaks')],
  traits: { ...reliefTraits, electricFaults: () => ['lost'] },
  validate: (v) =>
    v.high < v.setting
      ? [{ parameter: 'high', message: 'The higher setting lies below the lower one.' }]
      : [],
  forms: true,
  symbol: (_values, form) => reliefSymbol(true, 'two', form),
  caption: (values, show) => [
    `${show(values.setting, 'pressure')} / ${show(values.high, 'pressure')}`,
    reliefCaption(values, show)[1],
  ],
  model: (values) => reliefModel(values, settingOf(values)),
  describeState: (l, values, show) =>
    `${l.u[INPUT.boost] > 0.5 ? 'At its higher setting' : 'At its lower setting'}. ${describeReliefValve(l, values, show, settingOf(values))}`,
})
