import { leak, leakOut, stuck, wrongRotation } from '../faults'
import { defineKind, quantity, indices, inputSpecs } from '../kind'
import { circle, line } from '../symbol'
import { adjustable, flowTriangle, shaftStub } from '../symbol-elements'
import {
  caseDrainLead,
  caseDrainPlace,
  caseDrainPort,
  clamp01,
  variablePumpModel,
  variablePumpParameters,
  STATE,
  OUTPUT,
} from './variable-pump'

const INPUT = indices('stroke')

const [S, P, W, L] = [0, 1, 2, 3]

/** u* is its command. The rest as every variable pump (variable-pump.ts). */
export const variablePumpManual = defineKind({
  name: 'variable-pump-manual',
  label: 'Pump, variable, set by hand',
  family: 'supply',
  searchTerms: ['variable pump', 'manual displacement', 'handwheel pump'],
  designationLetter: 'P',
  description: 'Its stroke is set by hand or by a schedule, from nothing to full.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
    caseDrainPort,
  ],
  parameters: {
    displacement: quantity('Displacement, full stroke', 'displacement', '45 cm³/rev', 1e-8, 5e-3),
    stroke: quantity('Stroke', 'share', '100 %', 0, 1, { note: 'without a schedule' }),
    ...variablePumpParameters(),
  },
  inputs: inputSpecs(INPUT, {
    stroke: { label: 'stroke', quantity: 'share', rest: 'stroke', min: 0, max: 1 },
  }),
  faults: [
    leak(P, S, 'worn: leaks more', 'worn'),
    stuck(STATE.position, 'stroke sticks'),
    leakOut(L, 'shaft seal leaks outwards'),
    wrongRotation(W),
  ],
  traits: {
    ratedPressure: 'maxPressure',
    deliveryPorts: ['P'],
    greatestFlow: (v, speed) => (v.displacement / (2 * Math.PI)) * Math.max(v.ratedSpeed, speed),
    suctionPorts: ['S'],
    drainPorts: ['L'],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: { displacement: 'displacement' },
  },
  symbol: (values) => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      ...shaftStub(-4, -3),
      ...caseDrainLead(values),
      ...adjustable(0, 0, 2.8),
    ],
    ports: {
      S: { x: 0, y: 4, side: 'down' },
      P: { x: 0, y: -4, side: 'up' },
      W: { x: -4, y: 0, side: 'left' },
      ...caseDrainPlace(values),
    },
    box: { x: -3, y: -3, w: 6, h: 6 },
    captionAt: { x: 3.4, y: 2.6, anchor: 'start' },
  }),
  caption: (values, show) => [show(values.displacement, 'displacement')],
  model: (values, fluid) =>
    variablePumpModel(values, fluid, { S, P, W, L }, values.stroke, (l) => clamp01(l.u[INPUT.stroke])),
  describeState: (l, _values, show) =>
    `At ${Math.round(l.x[STATE.position] * 100)} % stroke, delivering ${show(l.o[OUTPUT.delivery], 'flow')} at ${show(l.p[P], 'pressure')}.`,
})
