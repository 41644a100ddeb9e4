import { lost } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs, eventSpecs, inputSpecs } from '../kind'
import { arrow } from '../symbol'
import { DIAMOND, conditioningBody } from '../symbol-elements'

const OUTPUT = indices('heat')
const EVENT = indices('thermostat')
const INPUT = indices('enabled')

/** In the tank: P while it is on. Its thermostat switches it on below one temperature and off above another; the command enables it. */
export const heater = defineKind({
  name: 'heater',
  label: 'Heater',
  family: 'conditioning',
  searchTerms: ['heater', 'tank heater', 'warm up'],
  designationLetter: 'Z',
  description: 'Warms the oil in the tank by its thermostat. It counts where the sheet lets its oil warm up.',
  ports: [],
  parameters: {
    power: quantity('Power', 'power', '2 kW', 0, 1e6),
    onBelow: quantity('Switches on below', 'temperature', '20 °C', 233.15, 373.15),
    offAbove: quantity('Switches off above', 'temperature', '25 °C', 233.15, 373.15),
  },
  inputs: inputSpecs(INPUT, {
    enabled: {
      label: 'supply',
      electric: 'coil',
      quantity: 'ratio',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'on', action: 'is switched on' },
        { value: 0, label: 'off', action: 'is switched off' },
      ],
    },
  }),
  faults: [lost(INPUT.enabled, 'supply lost')],
  validate: (v) =>
    v.offAbove <= v.onBelow
      ? [{ parameter: 'offAbove', message: 'It must go off above the temperature at which it goes on.' }]
      : [],
  traits: { electricFaults: () => ['lost'] },
  symbol: () => ({
    shapes: [
      ...conditioningBody(),
      // the heat comes in
      ...arrow([0, -DIAMOND], [0, -0.3]),
      ...arrow([0, DIAMOND], [0, 0.3]),
    ],
    ports: {},
    box: { x: -4, y: -3, w: 8, h: 6 },
  }),
  caption: (v, show) => [show(v.power, 'power')],
  model: (v, fluid) => ({
    outputs: outputSpecs(OUTPUT, {
      heat: { label: 'heat output', quantity: 'power' },
    }),
    eventFunctions: eventSpecs(EVENT, {
      thermostat: { label: 'thermostat switches on', report: -1 },
    }),
    modes: [0],
    evaluate(l) {
      // on the colder side of its points
      l.g[EVENT.thermostat] = fluid.temperature - (l.mode[0] ? v.offAbove : v.onBelow)
    },
    switch(l, _index, direction) {
      l.mode[0] = direction > 0 ? 0 : 1
    },
    observe(l) {
      l.o[OUTPUT.heat] = l.mode[0] && l.u[INPUT.enabled] > 0.5 ? v.power : 0
      l.power[Power.input] = l.o[OUTPUT.heat]
      l.power[Power.heat] = l.o[OUTPUT.heat]
    },
  }),
  describeState: (l, v, show) =>
    l.o[OUTPUT.heat] > 0
      ? `On, giving ${show(v.power, 'power')}.`
      : `Off; it goes on below ${show(v.onBelow, 'temperature')}.`,
})
