import { stuckContact } from '../faults'
import { defineKind, quantity, indices } from '../kind'
import { line } from '../symbol'
import { isTripped, switchBox, switchModel, describeSwitch, switchOutputs } from './switch'

const OUTPUT = indices(...switchOutputs, 'temperature')

/** On when the oil has warmed to its set point, off again when it has cooled to its reset point. */
export const temperatureSwitch = defineKind({
  name: 'temperature-switch',
  label: 'Temperature switch',
  family: 'instruments',
  searchTerms: ['temperature switch', 'thermostat', 'over-temperature', 'ts'],
  designationLetter: 'S',
  description: 'Switches when the oil gets too warm.',
  ports: [],
  parameters: {
    set: quantity('Switches on at', 'temperature', '65 °C', 233.15, 423.15),
    reset: quantity('Switches off at', 'temperature', '60 °C', 233.15, 423.15),
  },
  validate: (v) =>
    v.reset >= v.set
      ? [{ parameter: 'reset', message: 'It must switch off below the temperature at which it switches on.' }]
      : [],
  faults: [stuckContact],
  traits: { isOn: isTripped },
  symbol: () => ({
    shapes: [...switchBox('T'), line([0, 1.5], [0, 2.4])],
    ports: {},
    box: { x: -1.5, y: -1.5, w: 3, h: 4 },
  }),
  caption: (v, show) => [`on ${show(v.set, 'temperature')}`],
  model(v, fluid) {
    const model = switchModel(() => fluid.temperature, v.set, v.reset)
    return {
      ...model,
      outputs: [
        ...model.outputs!,
        { name: 'temperature', label: 'oil temperature', quantity: 'temperature' },
      ],
      observe(l) {
        model.observe!(l)
        l.o[OUTPUT.temperature] = fluid.temperature
      },
    }
  },
  describeState: (l, v, show) =>
    describeSwitch(l, l.o[OUTPUT.temperature], v.set, v.reset, 'temperature', show),
})
