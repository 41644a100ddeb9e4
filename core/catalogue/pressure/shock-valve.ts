import { defineKind, Power } from '../kind'
import { pathCoefficient, rootDrop } from '../laws'
import { checkParameters, checkLaw } from '../directional/check'
import { arrow, circle, dashed, line, rectangle, spring } from '../symbol'
import { settingFaults, settingInput } from './body'
import { portRelief, portReliefParameters } from './port-relief'

const [P, T] = [0, 1]
const [RELIEF, SUCTION] = [0, 1]

/** A quick relief P→T and a suction check T→P in one body: what a load drives into the line is let go, what it draws is made up. */
export const shockValve = defineKind({
  name: 'shock-valve',
  label: 'Shock and suction valve',
  family: 'pressure',
  words: ['shock valve', 'port relief', 'anti-cavitation', 'suction valve', 'service line relief'],
  letter: 'V',
  description: 'Cuts pressure peaks of a line at P and lets oil in from T when the line would run empty.',
  ports: [
    { name: 'P', domain: 'oil', role: 'guarded line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
  ],
  parameters: { ...portReliefParameters('220 bar'), ...checkParameters('Suction check') },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    settings: [{ does: 'limits', parameter: 'setting', port: 'P' }],
    paths: [
      { from: 'P', to: 'T', how: 'relief' },
      { from: 'T', to: 'P', how: 'oneWay' },
    ],
  },
  care: 'It guards against shocks; it does not replace the main relief valve.',
  symbol: () => ({
    shapes: [
      line([0, -4], [0, 4]),
      circle(0, -3, 0.25, 'ink'),
      circle(0, 3, 0.25, 'ink'),
      line([0, -3], [-3, -3], [-3, -1.5]),
      rectangle(-4.5, -1.5, 3, 3),
      ...arrow([-3.6, -1.5], [-3.6, 1.5]),
      line([-3, 1.5], [-3, 3], [0, 3]),
      dashed([-3, -2.2], [-5, -2.2], [-5, 0], [-4.5, 0]),
      spring(-1.5, 0, 1.2, 1),
      rectangle(-0.2, -1, 0.4, 2, 'paper'),
      line([0, 4], [0, 1.1]),
      line([-1.05, -0.05], [0, 1.1], [1.05, -0.05]),
      circle(0, 0, 0.75),
    ],
    ports: { P: { x: 0, y: -4, side: 'up' }, T: { x: 0, y: 4, side: 'down' } },
    box: { x: -5, y: -3, w: 6, h: 6 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure')],
  model(v) {
    const checkRate = checkLaw(v)
    const relief = portRelief(v)
    const suction = pathCoefficient(v.checkFlow, v.checkDrop)
    return {
      states: [
        { name: 'opening', label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        { name: 'suction', label: 'suction opening', quantity: 'share', initial: 0, scale: 1 },
      ],
      outputs: [
        { name: 'relieved', label: 'flow let go', quantity: 'flow' },
        { name: 'drawn', label: 'flow drawn in', quantity: 'flow' },
      ],
      conditions: [
        { name: 'cracked', label: 'open', severity: 'info', worst: 'relieved' },
        { name: 'drawing', label: 'draws oil in', severity: 'info', worst: 'drawn' },
      ],
      evaluate(l) {
        const drop = l.p[P] - l.p[T]
        l.dx[RELIEF] = relief.rate(l.x[RELIEF], drop, l.u[0])
        l.dx[SUCTION] = checkRate(-drop, l.x[SUCTION])
        l.q[P] = relief.flow(l.x[RELIEF], drop) + l.x[SUCTION] * suction * rootDrop(drop)
        l.q[T] = -l.q[P]
      },
      observe(l) {
        const drop = l.p[P] - l.p[T]
        l.o[0] = relief.flow(l.x[RELIEF], drop)
        l.o[1] = l.o[0] - l.q[P]
        l.c[0] = l.o[0] - 1e-3 * v.ratedFlow
        l.c[1] = l.o[1] - 1e-3 * v.checkFlow
        l.power[Power.heat] = l.q[P] * drop
      },
    }
  },
  say: (l, v, show) =>
    l.o[0] > 1e-3 * v.ratedFlow
      ? `Lets ${show(l.o[0], 'flow')} go at ${show(l.p[P], 'pressure')}.`
      : l.o[1] > 1e-3 * v.checkFlow
        ? `Draws ${show(l.o[1], 'flow')} into the line.`
        : `Shut: ${show(l.p[P] - l.p[T], 'pressure')} of ${show(l.u[0], 'pressure')}.`,
})
