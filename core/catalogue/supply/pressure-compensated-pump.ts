import { pistonSection } from '../section-elements'
import { heldAtSetting } from '../answers'
import { leak, leakOut, stuck, wrongRotation } from '../faults'
import { defineKind, quantity } from '../kind'
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
  OUTPUT,
} from './variable-pump'

const [S, P, W, L] = [0, 1, 2, 3]

/** u* = clamp((p_c − p_P)/b): zero stroke at p_c, full stroke at p_c − b. The rest as every variable pump (variable-pump.ts). */
export const pressureCompensatedPump = defineKind({
  name: 'pressure-compensated-pump',
  label: 'Pump, variable, pressure-compensated',
  family: 'supply',
  searchTerms: ['pressure compensated', 'variable pump', 'constant pressure pump', 'compensator', 'pc pump'],
  designationLetter: 'P',
  description: 'Gives full flow until its pressure nears the setting, then only what is taken.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
    caseDrainPort,
  ],
  parameters: {
    displacement: quantity('Displacement, full stroke', 'displacement', '45 cm³/rev', 1e-8, 5e-3),
    compensator: quantity('Compensator setting', 'pressure', '200 bar', 5e5, 700e5, { note: 'zero stroke' }),
    band: quantity('Control range', 'pressure', '5 bar', 1e4, 50e5, { note: 'full to zero stroke' }),
    powerLimit: quantity('Power limit at the shaft', 'power', '1000 kW', 10, 1e7, {
      note: 'the stroke goes back where pressure and flow would take more; far up is no limit',
    }),
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
      pump: 'compensated',
      flow: (v.displacement * v.ratedSpeed) / (2 * Math.PI),
      compensator: v.compensator,
    }),
    suctionPorts: ['S'],
    drainPorts: ['L'],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: { displacement: 'displacement', compensatorSetting: 'compensator' },
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
      ...pumpController(form, false),
    ],
    ports: {
      S: { x: 0, y: 4, side: 'down' },
      P: { x: 0, y: -4, side: 'up' },
      W: { x: -4, y: 0, side: 'left' },
      ...caseDrainPlace(values),
    },
    box: form === 'detailed' ? { x: -3, y: -3.5, w: 14.4, h: 7 } : { x: -3, y: -3.5, w: 11, h: 6.5 },
    captionAt: { x: 3.4, y: 2.6, anchor: 'start' },
  }),
  caption: (values, show) => [
    show(values.displacement, 'displacement'),
    show(values.compensator, 'pressure'),
  ],
  section: () =>
    pistonSection({
      suction: { name: 'S', pressure: (l) => l.p[S] },
      pressure: { name: 'P', pressure: (l) => l.p[P] },
      drain: { name: 'case', pressure: (l) => l.p[L] },
      leaks: (l) => -l.q[L],
      stroke: (l) => l.x[0],
    }),
  model: (values, fluid) => ({
    ...variablePumpModel(values, fluid, { S, P, W, L }, 1, (l) => {
      const limit =
        (values.powerLimit * values.hydromechanicalEfficiency * 2 * Math.PI) /
        Math.max(values.displacement * l.p[W] * (l.p[P] - l.p[S]), 1e-9)
      return Math.min(clamp01((values.compensator - l.p[P]) / values.band), limit > 1 ? 1 : limit)
    }),
    holds: (l) => [
      {
        ...heldAtSetting(
          l.p,
          P,
          values.compensator,
          [],
          l.p[P] > values.compensator - values.band,
          'compensator setting',
        ),
        by: 'pumpControl',
      },
    ],
    balances: (l) => [takesStrokeBack(l.p[P], values.compensator - values.band)],
  }),
  describeState: (l, values, show) =>
    `At ${Math.round(l.x[STATE.position] * 100)} % stroke, delivering ${show(l.o[OUTPUT.delivery], 'flow')} at ${show(l.p[P], 'pressure')}${l.p[P] > values.compensator - values.band ? ', held by its compensator' : ''}.`,
})
