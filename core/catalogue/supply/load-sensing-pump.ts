import { pistonSection } from '../section-elements'
import { heldAtSetting, pressureBalance } from '../answers'
import { leak, leakOut, stuck, wrongRotation } from '../faults'
import { defineKind, quantity, type Local, indices } from '../kind'
import { arrow, circle, line } from '../symbol'
import { adjustable, flowTriangle, shaftStub } from '../symbol-elements'
import {
  caseDrainLead,
  caseDrainPlace,
  caseDrainPort,
  clamp01,
  pumpController,
  takesStrokeBack,
  variablePumpModel,
  variablePumpParameters,
  STATE,
  pumpNames,
} from './variable-pump'

const OUTPUT = indices(...pumpNames.outputs, 'marginNow')
const CONDITION = indices(...pumpNames.conditions, 'compensating')

const [S, P, X, W, L] = [0, 1, 2, 3, 4]

/**
 * u* = min of the compensator clamp((p_c − p_P)/b) and the load sensing clamp((p_X + m − p_P)/b + ½);
 * the rest as every variable pump (variable-pump.ts).
 */
export const loadSensingPump = defineKind({
  name: 'load-sensing-pump',
  label: 'Pump, variable, load-sensing',
  family: 'supply',
  searchTerms: ['load sensing', 'ls pump', 'pressure compensated', 'variable pump'],
  designationLetter: 'P',
  description: 'Gives what keeps its pressure a margin above the highest load at X, up to its compensator.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'X', domain: 'oil', role: 'load signal', mayStayOpen: true },
    { name: 'W', domain: 'shaft', role: 'shaft' },
    caseDrainPort,
  ],
  parameters: {
    displacement: quantity('Displacement, full stroke', 'displacement', '45 cm³/rev', 1e-8, 5e-3),
    margin: quantity('Margin', 'pressure', '20 bar', 1e5, 100e5, {
      note: 'above the load signal, at half stroke; 14 to 25 bar is usual',
    }),
    compensator: quantity('Compensator setting', 'pressure', '250 bar', 5e5, 700e5, { note: 'zero stroke' }),
    band: quantity('Control range', 'pressure', '5 bar', 1e4, 50e5, { note: 'full to zero stroke' }),
    ...variablePumpParameters(),
  },
  faults: [
    leak(P, S, 'worn: leaks more', 'worn'),
    stuck(STATE.position, 'stroke sticks'),
    leakOut(L, 'shaft seal leaks outwards'),
    wrongRotation(W),
  ],
  traits: {
    supply: (v) => ({
      port: 'P',
      signal: 'X',
      pump: 'loadSensing',
      flow: (v.displacement * v.ratedSpeed) / (2 * Math.PI),
      compensator: v.compensator,
    }),
    suctionPorts: ['S'],
    drainPorts: ['L'],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: { displacement: 'displacement', pumpMargin: 'margin', compensatorSetting: 'compensator' },
  },
  forms: true,
  symbol: (values, form) => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      ...shaftStub(-4, -3),
      ...caseDrainLead(values),
      ...(form === 'detailed' ? arrow([-2.8, 2.8], [2.8, -2.8]) : adjustable(0, 0, 2.8)),
      ...pumpController(form, true),
    ],
    ports: {
      S: { x: 0, y: 4, side: 'down' },
      P: { x: 0, y: -4, side: 'up' },
      X: { x: form === 'detailed' ? 12 : 7, y: 0, side: 'right' },
      W: { x: -4, y: 0, side: 'left' },
      ...caseDrainPlace(values),
    },
    box: form === 'detailed' ? { x: -3, y: -3.5, w: 14.4, h: 11 } : { x: -3, y: -3.5, w: 9.5, h: 6.5 },
    captionAt: { x: 3.4, y: 2.6, anchor: 'start' },
  }),
  caption: (values, show) => [
    show(values.displacement, 'displacement'),
    `${show(values.compensator, 'pressure')}, margin ${show(values.margin, 'pressure')}`,
  ],
  section: () =>
    pistonSection({
      suction: { name: 'S', pressure: (l) => l.p[S] },
      pressure: { name: 'P', pressure: (l) => l.p[P] },
      drain: { name: 'case', pressure: (l) => l.p[L] },
      leaks: (l) => -l.q[L],
      stroke: (l) => l.x[0],
    }),
  model(values, fluid) {
    const wanted = (l: Local) =>
      Math.min(
        clamp01((values.compensator - l.p[P]) / values.band),
        clamp01((l.p[X] + values.margin - l.p[P]) / values.band + 0.5),
      )
    const pump = variablePumpModel(values, fluid, { S, P, W, L }, 1, wanted)
    return {
      ...pump,
      outputs: [
        ...pump.outputs!,
        { name: 'marginNow', label: 'pressure above the load signal', quantity: 'pressure' },
      ],
      conditions: [
        ...pump.conditions!,
        {
          name: 'compensating',
          label: 'at its compensator',
          severity: 'info',
          begins: 'is held back by its compensator',
          ends: 'is no longer held back by its compensator',
        },
      ],
      observe(l) {
        pump.observe!(l)
        l.o[OUTPUT.marginNow] = l.p[P] - l.p[X]
        l.c[CONDITION.compensating] = l.p[P] - (values.compensator - values.band)
      },
      holds(l) {
        const limited = l.p[P] > values.compensator - values.band
        const followed = Math.abs(l.p[P] - l.p[X] - values.margin) < values.band
        const signal = [{ port: X, factor: 1, label: 'load signal' }]
        return [
          limited
            ? {
                ...heldAtSetting(l.p, P, values.compensator, [], true, 'compensator setting'),
                by: 'pumpControl',
              }
            : {
                ...heldAtSetting(l.p, P, values.margin, signal, followed, 'margin over the load signal'),
                by: 'pumpControl',
              },
        ]
      },
      balances: (l) => [
        takesStrokeBack(l.p[P], values.compensator - values.band),
        pressureBalance(
          'takes its stroke back to the load signal',
          { 'pressure at P': l.p[P] },
          { margin: values.margin - values.band / 2, 'load signal at X': l.p[X] },
        ),
      ],
    }
  },
  describeState: (l, values, show) =>
    `At ${Math.round(l.x[STATE.position] * 100)} % stroke, delivering ${show(l.o[OUTPUT.delivery], 'flow')}, ${show(l.o[OUTPUT.marginNow], 'pressure')} above the load signal${
      l.p[P] > values.compensator - values.band ? '; its compensator holds it back' : ''
    }.`,
})
