import { blocked } from '../faults'
import { defineKind, Power, quantity, indices, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { circle, line, rectangle, drained } from '../symbol'

const OUTPUT = indices('flow')

const [N, T, C] = [0, 1, 2]

/**
 * What the end of the neutral gallery N leads to: with an open centre to T, with a closed centre nowhere (plug), with carry-over
 * to C for a second bank (sleeve). Q = path(p_N − p_out).
 */
export const bankOutlet = defineKind({
  name: 'bank-outlet',
  label: 'Outlet cover of a valve bank',
  family: 'directional',
  searchTerms: [
    'outlet',
    'carry-over',
    'power beyond',
    'end cover',
    'open centre',
    'closed centre',
    'plug',
    'sleeve',
  ],
  designationLetter: 'V',
  description:
    'Set up with the open-centre plug removed, the closed-centre plug, or the carry-over sleeve, it makes one bank three systems.',
  guide: {
    acts: 'A plug or a sleeve makes the end of the neutral gallery open, closed, or carried over to the next bank.',
    fails: 'A wrong or missing plug looks like a pump without pressure, or one that never unloads.',
    mistakes:
      'The carry-over not led back to tank by the next bank; the relief of the first bank left out for the second.',
  },
  ports: [
    { name: 'N', domain: 'oil', role: 'end of the neutral gallery' },
    { name: 'T', domain: 'oil', role: 'tank gallery' },
    { name: 'C', domain: 'oil', role: 'carry-over', mayStayOpen: true },
  ],
  parameters: {
    setup: {
      type: 'choice',
      label: 'Function',
      default: 'openCentre',
      choices: {
        openCentre: 'open centre: N to T, no plug',
        closedCentre: 'closed centre: N plugged',
        carryOver: 'carry-over: sleeve fitted, N to C',
      },
      note: 'a fixed pump before a closed centre runs over its relief all the time',
    },
    ratedFlow: quantity('Rated flow', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '1 bar', 1e4, 50e5),
  },
  faults: [blocked('wrong plug: the gallery is shut')],
  traits: {
    connectedAtRest: (v) =>
      v.setup === 'openCentre' ? [['N', 'T']] : v.setup === 'carryOver' ? [['N', 'C']] : [],
    paths: [
      { from: 'N', to: 'T', type: 'switched' },
      { from: 'N', to: 'C', type: 'switched' },
    ],
  },
  symbol: (v) => ({
    shapes: [
      rectangle(-3, -2, 6, 4),
      line([0, 3], [0, 1]),
      line([2, 3], [2, 1]),
      ...(v.setup === 'openCentre'
        ? [line([0, 1], [0, 0], [2, 0], [2, 1])]
        : v.setup === 'closedCentre'
          ? [line([-0.6, 1], [0.6, 1])]
          : [line([0, 1], [0, -1], [4, -1]), circle(0, -1, 0.35)]),
      ...(v.setup === 'openCentre' ? [] : [line([1.4, 1], [2.6, 1])]),
      ...(v.setup === 'carryOver' ? [] : [drained([3, -1], [4, -1])]),
    ],
    ports: {
      N: { x: 0, y: 3, side: 'down' },
      T: { x: 2, y: 3, side: 'down' },
      C: { x: 4, y: -1, side: 'right' },
    },
    box: { x: -3, y: -2, w: 6, h: 4 },
  }),
  caption: (v) => [
    v.setup === 'openCentre' ? 'open centre' : v.setup === 'closedCentre' ? 'closed centre' : 'carry-over',
  ],
  model(v) {
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const out = v.setup === 'openCentre' ? T : v.setup === 'carryOver' ? C : -1
    return {
      idlePorts: out === C ? [] : [C],
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow out of the neutral passage', quantity: 'flow' },
      }),
      evaluate(l) {
        l.q.fill(0)
        if (out < 0) return
        l.q[N] = coefficient * smoothSquareRoot(l.p[N] - l.p[out])
        l.q[out] = -l.q[N]
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[N]
        l.power[Power.heat] = out < 0 ? 0 : l.q[N] * (l.p[N] - l.p[out])
      },
    }
  },
  describeState: (l, v, show) =>
    v.setup === 'closedCentre'
      ? `Plugged: the gallery stands at ${show(l.p[N], 'pressure')}.`
      : `Sends ${show(l.q[N], 'flow')} ${v.setup === 'openCentre' ? 'to tank' : 'on to the next bank'} at ${show(l.p[N], 'pressure')}.`,
})
