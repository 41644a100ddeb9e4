import { stuck } from '../faults'
import { defineKind, quantity } from '../kind'
import { line } from '../symbol'
import { filterParameter, transducerBox, transducerModel, STATE, OUTPUT } from './transducer'

/** Signal = (T − T_low)/(T_high − T_low) behind a first-order filter; T is that of the oil as one lump. */
export const temperatureTransducer = defineKind({
  name: 'temperature-transducer',
  label: 'Temperature transducer',
  family: 'instruments',
  searchTerms: ['temperature transducer', 'temperature sensor', 'thermometer', 'tt'],
  designationLetter: 'S',
  description: 'Gives an electric signal in proportion to the temperature of the oil.',
  ports: [],
  parameters: {
    low: quantity('Start of the signal range', 'temperature', '0 °C', 223.15, 423.15),
    high: quantity('Full signal at', 'temperature', '100 °C', 223.15, 473.15),
    filter: filterParameter,
  },
  faults: [stuck(STATE.filtered, 'signal frozen')],
  validate: (v) =>
    v.high <= v.low
      ? [{ parameter: 'high', message: 'The whole signal must lie above where it begins.' }]
      : [],
  symbol: () => ({
    shapes: [...transducerBox('T'), line([0, 1.5], [0, 2.4])],
    ports: {},
    box: { x: -1.5, y: -1.5, w: 3, h: 4 },
    reading: 'reading',
  }),
  model: (v, fluid) =>
    transducerModel(
      () => fluid.temperature,
      v.low,
      v.high,
      v.filter,
      { quantity: 'temperature', label: 'measured temperature' },
      (fluid.temperature - v.low) / (v.high - v.low),
    ),
  describeState: (l, _v, show) =>
    `Reads ${show(l.o[OUTPUT.reading], 'temperature')}, a signal of ${Math.round(l.o[OUTPUT.signal] * 100)} %.`,
})
