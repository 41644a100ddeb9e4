import { stuck } from '../faults'
import { defineKind, quantity, indices, stateSpecs, conditionSpecs, inputSpecs } from '../kind'
import { arrowHead, circle, line, polygon } from '../symbol'

const STATE = indices('needle')
const CONDITION = indices('overRange')
const INPUT = indices('open')

/** Lag of the needle while the cock is open, s. */
const NEEDLE = 0.02

/** Open, the needle follows the line: τ·dy/dt = p − y; shut, it stays at what it last read, whatever the line does. Takes no oil. */
export const gaugeWithShutOff = defineKind({
  name: 'gauge-with-shut-off',
  label: 'Pressure gauge with shut-off',
  family: 'instruments',
  searchTerms: ['gauge cock', 'gauge isolator', 'pressure gauge', 'manometer'],
  designationLetter: 'S',
  description: 'A gauge behind a cock: shut, it is spared the peaks and shows what it last read.',
  ports: [{ name: 'P', domain: 'oil', role: 'line to be measured' }],
  parameters: {
    range: quantity('Range', 'pressure', '250 bar', 1e5, 2000e5, {
      note: 'reported when the line goes beyond it',
    }),
  },
  inputs: inputSpecs(INPUT, {
    open: {
      label: 'cock',
      quantity: 'ratio',
      rest: 1,
      min: 0,
      max: 1,
      positions: [
        { value: 1, label: 'open' },
        { value: 0, label: 'shut' },
      ],
    },
  }),
  faults: [stuck(STATE.needle, 'needle sticks')],
  safetyNote:
    'Shut, it can show pressure where there is none, and none where there is: open it before you trust it.',
  traits: { measuringPort: 'P', measuringRange: 'range' },
  symbol: () => ({
    shapes: [
      circle(0, -2, 2),
      line([-1, -1], [0.7, -2.9]),
      arrowHead(0.9, -3.1, 1, -1, 0.7),
      line([0, 0], [0, 0.6]),
      polygon('paper', [-0.6, 0.6], [0.6, 0.6], [-0.6, 2], [0.6, 2]),
      line([0, 2], [0, 3]),
    ],
    ports: { P: { x: 0, y: 3, side: 'down' } },
    box: { x: -2, y: -4, w: 4, h: 6 },
    reading: 'needle',
  }),
  caption: (v, show) => [show(v.range, 'pressure')],
  model: (v) => ({
    states: stateSpecs(STATE, {
      needle: { label: 'reading', quantity: 'pressure', initial: 0, scale: 1e5 },
    }),
    conditions: conditionSpecs(CONDITION, {
      overRange: { label: 'out of range', severity: 'warning' },
    }),
    evaluate(l) {
      l.q[0] = 0
      l.dx[STATE.needle] = l.u[INPUT.open] > 0.5 ? (l.p[0] - l.x[STATE.needle]) / NEEDLE : 0
    },
    observe(l) {
      l.c[CONDITION.overRange] = l.u[INPUT.open] > 0.5 ? l.p[0] - v.range : -1
    },
  }),
  describeState: (l, _v, show) =>
    l.u[INPUT.open] > 0.5
      ? `Reads ${show(l.x[STATE.needle], 'pressure')}.`
      : `Shut: still shows ${show(l.x[STATE.needle], 'pressure')}.`,
})
