import { defineKind, Power, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveFlow } from '../directional/check'
import { arrow, circle, dashed, line, rectangle, spring } from '../symbol'
import { settingFaults, settingInput, INPUT } from './body'
import { portRelief, portReliefParameters } from './port-relief'

const STATE = indices('opening', 'suction')
const OUTPUT = indices('relieved', 'drawn')
const CONDITION = indices('cracked', 'drawing')

const [P, T] = [0, 1]

/** A quick relief P→T and a suction check T→P in one body: what a load drives into the line is let go, what it draws is made up. */
export const shockValve = defineKind({
  name: 'shock-valve',
  label: 'Shock and suction valve',
  family: 'pressure',
  searchTerms: ['shock valve', 'port relief', 'anti-cavitation', 'suction valve', 'service line relief'],
  designationLetter: 'V',
  description: 'Cuts pressure peaks of a line at P and lets oil in from T when the line would run empty.',
  ports: [
    { name: 'P', domain: 'oil', role: 'guarded line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
  ],
  parameters: { ...portReliefParameters('220 bar'), ...checkParameters('Suction check') },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    pressureSettings: [{ does: 'limits', parameter: 'setting', port: 'P' }],
    paths: [
      { from: 'P', to: 'T', type: 'relief' },
      { from: 'T', to: 'P', type: 'oneWay' },
    ],
  },
  safetyNote: 'It guards against shocks; it does not replace the main relief valve.',
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
    const checkRate = checkValveFlow(v)
    const relief = portRelief(v)
    const suction = pathCoefficient(v.checkFlow, v.checkDrop)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        suction: { label: 'suction opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        relieved: { label: 'relieved flow', quantity: 'flow' },
        drawn: { label: 'suction flow', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        cracked: { label: 'open', severity: 'info', worst: 'relieved' },
        drawing: { label: 'makes up oil', severity: 'info', worst: 'drawn' },
      }),
      evaluate(l) {
        const drop = l.p[P] - l.p[T]
        l.dx[STATE.opening] = relief.rate(l.x[STATE.opening], drop, l.u[INPUT.setting])
        l.dx[STATE.suction] = checkRate(-drop, l.x[STATE.suction])
        l.q[P] = relief.flow(l.x[STATE.opening], drop) + l.x[STATE.suction] * suction * smoothSquareRoot(drop)
        l.q[T] = -l.q[P]
      },
      observe(l) {
        const drop = l.p[P] - l.p[T]
        l.o[OUTPUT.relieved] = relief.flow(l.x[STATE.opening], drop)
        l.o[OUTPUT.drawn] = l.o[OUTPUT.relieved] - l.q[P]
        l.c[CONDITION.cracked] = l.o[OUTPUT.relieved] - 1e-3 * v.ratedFlow
        l.c[CONDITION.drawing] = l.o[OUTPUT.drawn] - 1e-3 * v.checkFlow
        l.power[Power.heat] = l.q[P] * drop
      },
    }
  },
  describeState: (l, v, show) =>
    l.o[OUTPUT.relieved] > 1e-3 * v.ratedFlow
      ? `Lets ${show(l.o[OUTPUT.relieved], 'flow')} go at ${show(l.p[P], 'pressure')}.`
      : l.o[OUTPUT.drawn] > 1e-3 * v.checkFlow
        ? `Draws ${show(l.o[OUTPUT.drawn], 'flow')} into the line.`
        : `Shut: ${show(l.p[P] - l.p[T], 'pressure')} of ${show(l.u[INPUT.setting], 'pressure')}.`,
})
