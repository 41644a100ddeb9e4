import { defineKind, quantity, type Local, indices, inputSpecs } from '../kind'
import { leak, lost, stuck } from '../faults'
import {
  reliefModel,
  reliefParameters,
  reliefPorts,
  describeReliefValve,
  reliefSymbol,
  reliefTraits,
  STATE,
} from './relief'

const INPUT = indices('command')

const settingOf = (values: { setting: number; least: number }) => (l: Local) =>
  values.least + (values.setting - values.least) * l.u[INPUT.command]

/** A relief set by a proportional solenoid: p_set = p_least + (p_most − p_least)·u, u from 0 to 1. The law is that of relief.ts. */
export const reliefValveProportional = defineKind({
  name: 'relief-valve-proportional',
  label: 'Relief valve, proportional',
  family: 'pressure',
  searchTerms: ['proportional relief', 'electric relief', 'pressure control'],
  designationLetter: 'V',
  description: 'Its setting follows an electric command, from its least to its most.',
  guide: {
    acts: 'The solenoid takes the place of the spring: more current, a higher pressure, from the least to the most of its range.',
    fails:
      'Air in the pressure tube makes the pressure swing; a sticking armature gives another pressure going up than going down.',
    mistakes:
      'No mechanical relief above it: when the amplifier fails to full current nothing limits the pressure.',
  },
  ports: reliefPorts,
  parameters: {
    ...reliefParameters('10 %', '20 ms'),
    least: quantity('Setting without command', 'pressure', '8 bar', 2e5, 100e5),
  },
  inputs: inputSpecs(INPUT, {
    command: { label: 'command', quantity: 'share', rest: 0, min: 0, max: 1, electric: 'signal' },
  }),
  faults: [lost(INPUT.command, 'command lost'), stuck(STATE.opening), leak(0, 1, 'leaks')],
  traits: { ...reliefTraits, electricFaults: () => ['lost'] },
  validate: (v) =>
    v.setting < v.least
      ? [{ parameter: 'least', message: 'The setting without command lies above the setting.' }]
      : [],
  safetyNote: 'Without its command it relieves at its least setting: what it held may move.',
  symbol: () => reliefSymbol(false, 'proportional'),
  caption: (values, show) => [`${show(values.least, 'pressure')} to ${show(values.setting, 'pressure')}`],
  model: (values) => reliefModel(values, settingOf(values)),
  describeState: (l, values, show) =>
    `Commanded to ${Math.round(l.u[INPUT.command] * 100)} %. ${describeReliefValve(l, values, show, settingOf(values))}`,
})
