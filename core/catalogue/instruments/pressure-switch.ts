import { misread, stuckContact } from '../faults'
import { defineKind, quantity } from '../kind'
import { line } from '../symbol'
import { isTripped, switchBox, switchModel, describeSwitch } from './switch'

/** On when the pressure reaches its set point, off when it falls to its reset point. Takes no oil. */
export const pressureSwitch = defineKind({
  name: 'pressure-switch',
  label: 'Pressure switch',
  family: 'instruments',
  searchTerms: ['pressure switch', 'pressostat', 'hysteresis', 'ps'],
  designationLetter: 'S',
  description: 'Switches on at its set point and off at its lower reset point.',
  ports: [{ name: 'P', domain: 'oil', role: 'line to be watched' }],
  parameters: {
    set: quantity('Switches on at', 'pressure', '150 bar', 0, 1000e5),
    reset: quantity('Switches off at', 'pressure', '120 bar', 0, 1000e5),
  },
  validate: (v) =>
    v.reset >= v.set
      ? [{ parameter: 'reset', message: 'It must switch off below the pressure at which it switches on.' }]
      : [],
  faults: [misread(0), stuckContact],
  traits: { measuringPort: 'P', isOn: isTripped, sizingTargets: { switchSet: 'set', switchReset: 'reset' } },
  symbol: () => ({
    shapes: [...switchBox('p'), line([0, 1.5], [0, 3])],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [`on ${show(values.set, 'pressure')}`, `off ${show(values.reset, 'pressure')}`],
  model: (values) => switchModel((l) => l.p[0], values.set, values.reset),
  describeState: (l, values, show) => describeSwitch(l, l.p[0], values.set, values.reset, 'pressure', show),
})
