import { heldAtSetting, pressureBalance } from '../answers'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, inputSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { blocked, drifted, stuck } from '../faults'
import { dashed } from '../symbol'
import { pressureBody } from './body'

const STATE = indices('opening')
const OUTPUT = indices('flow', 'marginNow')
const INPUT = indices('margin')

const [P, T, X] = [0, 1, 2]

/**
 * Three-way compensator for a fixed pump: opens P→T when the pump line is above the load signal by its spring,
 * d = p_P − p_X − m; τ·dφ/dt = ramp(d/r) − φ; Q = φ·path(p_P − p_T). Without a signal the pump idles at its spring.
 */
export const loadUnloadingValve = defineKind({
  name: 'load-unloading-valve',
  label: 'Unloading valve by load signal',
  family: 'pressure',
  searchTerms: ['load sensing unloader', 'three-way compensator', 'bypass compensator', 'unload by load'],
  designationLetter: 'V',
  description: 'Sends to tank what a fixed pump gives too much, a margin above the highest load.',
  guide: {
    acts: 'The highest load signal and a light spring push it shut; the pump line opens it a margin above, and the rest of the flow goes to tank.',
    fails: 'A signal line that is blocked or leaks leaves the pump at its margin only: nothing has force.',
    mistakes: 'Signal line not relieved in neutral; margin smaller than the drop of the edges that it feeds.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'pump line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
    { name: 'X', domain: 'oil', role: 'load signal', mayStayOpen: true },
  ],
  parameters: {
    margin: quantity('Margin above the load', 'pressure', '10 bar', 1e4, 100e5),
    range: quantity('Pressure rise to full opening', 'pressure', '3 bar', 1e4, 50e5),
    ratedFlow: quantity('Rated flow', 'flow', '80 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '4 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1),
  },
  inputs: inputSpecs(INPUT, {
    margin: { label: 'margin', quantity: 'pressure', rest: 'margin', min: 0, max: 100e5 },
  }),
  faults: [drifted(INPUT.margin), stuck(STATE.opening), blocked()],
  traits: { paths: [{ from: 'P', to: 'T', type: 'switched' }] },
  symbol: () => ({
    shapes: [...pressureBody({ flow: 'down', pilot: 'top', adjustable: false }), dashed([4, 0], [5, 0])],
    ports: {
      P: { x: 0, y: -4, side: 'up' },
      T: { x: 0, y: 4, side: 'down' },
      X: { x: 5, y: 0, side: 'right' },
    },
    box: { x: -3, y: -3, w: 7.4, h: 6 },
  }),
  caption: (v, show) => [`${show(v.margin, 'pressure')} margin`],
  model(v) {
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow to tank', quantity: 'flow' },
        marginNow: { label: 'pressure above the load signal', quantity: 'pressure' },
      }),
      evaluate(l) {
        l.dx[STATE.opening] =
          (smoothRamp((l.p[P] - l.p[X] - l.u[INPUT.margin]) / v.range) - l.x[STATE.opening]) / v.timeConstant
        const flow = l.x[STATE.opening] * coefficient * smoothSquareRoot(l.p[P] - l.p[T])
        l.q[P] = flow
        l.q[T] = -flow
        l.q[X] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[P]
        l.o[OUTPUT.marginNow] = l.p[P] - l.p[X]
        l.power[Power.heat] = l.q[P] * (l.p[P] - l.p[T])
      },
      holds: (l) => [
        heldAtSetting(
          l.p,
          P,
          l.u[INPUT.margin],
          [{ port: X, factor: 1, label: 'load signal' }],
          l.q[P] > 1e-3 * v.ratedFlow,
          'margin',
        ),
      ],
      balances: (l) => [
        pressureBalance(
          'opens',
          { 'pressure at P': l.p[P] },
          { spring: l.u[INPUT.margin], 'load signal at X': l.p[X] },
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    `Sends ${show(l.q[P], 'flow')} to tank; the pump line is ${show(l.o[OUTPUT.marginNow], 'pressure')} above the load signal.`,
})
