import { defineKind, Power, quantity, indices, outputSpecs, conditionSpecs, inputSpecs } from '../kind'
import { blocked } from '../faults'
import { arrow, circle, line } from '../symbol'
import { flowTriangle } from '../symbol-elements'

const OUTPUT = indices('delivery', 'most')
const CONDITION = indices('tooHeavy')
const INPUT = indices('strokes')

const [S, P] = [0, 1]
/** The hand gives up over this share of the pressure it can hold. */
const TIRING = 0.1
/** Friction of piston and lever. */
const EFFICIENCY = 0.9

/**
 * Q = V·f·clamp((p_max − Δp)/(0.1·p_max)), the mean of its strokes; p_max = F·η/A with the piston area A and what the hand pushes with by its
 * lever. Its checks let no oil back.
 */
export const handPump = defineKind({
  name: 'hand-pump',
  label: 'Hand pump',
  family: 'supply',
  searchTerms: ['hand pump', 'emergency pump', 'lever pump', 'dead engine'],
  designationLetter: 'P',
  description: 'Moves oil by hand as long as the arm can push against the pressure.',
  ports: [
    { name: 'S', domain: 'oil', role: 'suction line' },
    { name: 'P', domain: 'oil', role: 'pressure line' },
  ],
  parameters: {
    displacement: quantity('Displacement per double stroke', 'volume', '25 cm³', 1e-7, 1e-3),
    force: quantity('Hand force', 'force', '0.25 kN', 10, 1000, { note: 'what a person can keep up' }),
    lever: quantity('Lever', 'ratio', '12', 1, 100, { note: 'hand way to piston way' }),
    piston: quantity('Piston', 'length', '20 mm', 1e-3, 0.2, { note: 'its diameter' }),
  },
  inputs: inputSpecs(INPUT, {
    strokes: {
      label: 'stroke rate',
      quantity: 'rotationalSpeed',
      rest: 0,
      min: 0,
      max: 20,
      momentary: true,
    },
  }),
  faults: [blocked('suction check shut')],
  // a stroke a second
  traits: { suctionPorts: ['S'], deliveryPorts: ['P'], greatestFlow: (v) => v.displacement },
  symbol: () => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      line([-3, 0], [-5, 0]),
      line([-5, 0], [-6, -2.4]),
      ...arrow([-6.6, -0.4], [-5.6, 1.4]),
    ],
    ports: { S: { x: 0, y: 4, side: 'down' }, P: { x: 0, y: -4, side: 'up' } },
    box: { x: -6.6, y: -3, w: 9.6, h: 6 },
    captionAt: { x: 3.4, y: 1.6, anchor: 'start' },
  }),
  caption: (v, show) => [`${show(v.displacement, 'volume')} a stroke`],
  model(v) {
    const area = (Math.PI * v.piston * v.piston) / 4
    const most = (v.force * v.lever * EFFICIENCY) / area
    return {
      outputs: outputSpecs(OUTPUT, {
        delivery: { label: 'delivery', quantity: 'flow' },
        most: { label: 'pressure limit of the hand force', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        tooHeavy: { label: 'above the hand force', severity: 'info' },
      }),
      evaluate(l) {
        const left = (most - (l.p[P] - l.p[S])) / (TIRING * most)
        // strokes a minute as turns a minute: rad/s over 2π are strokes a second
        const flow =
          ((v.displacement * l.u[INPUT.strokes]) / (2 * Math.PI)) * (left < 0 ? 0 : left > 1 ? 1 : left)
        l.q[S] = flow
        l.q[P] = -flow
      },
      observe(l) {
        const drop = l.p[P] - l.p[S]
        l.o[OUTPUT.delivery] = l.q[S]
        l.o[OUTPUT.most] = most
        l.c[CONDITION.tooHeavy] = l.u[INPUT.strokes] > 0 ? drop - (1 - TIRING) * most : -1
        const hydraulic = l.q[S] * drop
        l.power[Power.input] = hydraulic >= 0 ? hydraulic / EFFICIENCY : hydraulic
        l.power[Power.heat] = l.power[Power.input] - hydraulic
      },
    }
  },
  describeState: (l, _v, show) =>
    l.u[INPUT.strokes] > 0
      ? `Pumped by hand: ${show(l.o[OUTPUT.delivery], 'flow')} at ${show(l.p[P], 'pressure')}; the hand can hold ${show(l.o[OUTPUT.most], 'pressure')}.`
      : 'Nobody pumps.',
})
