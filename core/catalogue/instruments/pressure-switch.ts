import { defineKind, quantity } from '../kind'
import { line, rectangle, text } from '../symbol'

/** On when the pressure reaches its set point, off when it falls to its reset point. Takes no oil. */
export const pressureSwitch = defineKind({
  name: 'pressure-switch',
  label: 'Pressure switch',
  family: 'instruments',
  words: ['pressure switch', 'pressostat', 'hysteresis'],
  letter: 'S',
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
  symbol: () => ({
    shapes: [
      rectangle(-1.5, -1.5, 3, 3),
      text(0, -0.5, 'p', 1.4),
      line([-1, 0.9], [-0.4, 0.9], [0.5, 0.3]),
      line([0.5, 0.9], [1, 0.9]),
      line([0, 1.5], [0, 3]),
    ],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -1.5, y: -1.5, w: 3, h: 3 },
  }),
  caption: (values, show) => [`on ${show(values.set, 'pressure')}`, `off ${show(values.reset, 'pressure')}`],
  model: (values) => ({
    outputs: [{ name: 'on', label: 'on', quantity: 'ratio' }],
    conditions: [{ name: 'tripped', label: 'on', severity: 'info' }],
    guards: [{ name: 'trip', label: 'switches on', report: 1 }],
    modes: [0],
    evaluate(l) {
      l.q[0] = 0
      l.g[0] = l.p[0] - (l.mode[0] ? values.reset : values.set)
    },
    switch(l, _index, direction) {
      l.mode[0] = direction > 0 ? 1 : 0
    },
    observe(l) {
      l.o[0] = l.mode[0]
      l.c[0] = l.mode[0] - 0.5
    },
  }),
  say: (l, values, show) =>
    l.mode[0]
      ? `On; it goes off at ${show(values.reset, 'pressure')}, now ${show(l.p[0], 'pressure')}.`
      : `Off; it goes on at ${show(values.set, 'pressure')}, now ${show(l.p[0], 'pressure')}.`,
})
