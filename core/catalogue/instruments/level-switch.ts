import { stuckContact } from '../faults'
import { defineKind, quantity, indices } from '../kind'
import { tankIndex, tankParameter } from '../tank'
import { line } from '../symbol'
import { isTripped, switchBox, switchModel, describeSwitch, switchOutputs } from './switch'

const OUTPUT = indices(...switchOutputs, 'level')

/** On when the oil in its tank has sunk to its set point, off again when it has risen to its reset point. */
export const levelSwitch = defineKind({
  name: 'level-switch',
  label: 'Level switch',
  family: 'instruments',
  searchTerms: ['level switch', 'float switch', 'low oil', 'ls'],
  designationLetter: 'S',
  description: 'Switches when the oil in the tank sinks too far.',
  ports: [],
  parameters: {
    set: quantity('Switches on below', 'volume', '70 L', 1e-5, 1000),
    reset: quantity('Switches off above', 'volume', '80 L', 1e-5, 1000),
    tank: tankParameter(),
  },
  validate: (v) =>
    v.reset <= v.set
      ? [{ parameter: 'reset', message: 'It must switch off above the level at which it switches on.' }]
      : [],
  faults: [stuckContact],
  traits: { isOn: isTripped },
  symbol: () => ({
    shapes: [...switchBox('L'), line([0, 1.5], [0, 2.4]), line([-1, 2.4], [1, 2.4])],
    ports: {},
    box: { x: -1.5, y: -1.5, w: 3, h: 4 },
  }),
  caption: (v, show) => [`below ${show(v.set, 'volume')}`],
  model(v, fluid) {
    const tank = tankIndex(v)
    const model = switchModel(() => fluid.tanks[tank], v.set, v.reset)
    return {
      ...model,
      outputs: [...model.outputs!, { name: 'level', label: 'oil in the tank', quantity: 'volume' }],
      observe(l) {
        model.observe!(l)
        l.o[OUTPUT.level] = fluid.tanks[tank]
      },
    }
  },
  describeState: (l, v, show) => describeSwitch(l, l.o[OUTPUT.level], v.set, v.reset, 'volume', show),
})
