import { heldAtSetting } from '../answers'
import { defineKind, Power, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { line } from '../symbol'
import { checkInLine, dot, reliefInLine } from '../symbol-elements'
import { settingFaults, settingInput, INPUT } from './body'
import { portRelief, portReliefParameters } from './port-relief'

const STATE = indices('opening', 'suction')
const OUTPUT = indices('relieved', 'drawn')
const CONDITION = indices('cracked', 'drawing')

const [P, T] = [0, 1]

/** A quick relief P→T and a suction check T→P in one body: what a load drives into the line is released, what it draws is made up. */
export const shockValve = defineKind({
  name: 'shock-valve',
  label: 'Shock and suction valve',
  family: 'pressure',
  searchTerms: ['shock valve', 'port relief', 'anti-cavitation', 'suction valve', 'service line relief'],
  designationLetter: 'V',
  description: 'Cuts pressure peaks of a line at P and lets oil in from T when the line would run empty.',
  guide: {
    acts: 'Opens P to T at its setting for peaks, and T to P as a check where the line would run empty.',
    fails: 'A setting that has crept up lets peaks pass; a seat that leaks lets the load creep.',
    mistakes:
      'Set below the working pressure of the section, so that it steals flow; its tank side without any pressure to draw from.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'guarded line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
  ],
  parameters: { ...portReliefParameters('220 bar'), ...checkParameters('Suction check') },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    sizingTargets: { crossPortSetting: 'setting' },
    pressureSettings: [{ does: 'limits', parameter: 'setting', port: 'P' }],
    paths: [
      { from: 'P', to: 'T', type: 'relief' },
      { from: 'T', to: 'P', type: 'oneWay' },
    ],
  },
  safetyNote: 'It guards against shocks; it does not replace the main relief valve.',
  symbol: (values) => ({
    shapes: [
      line([0, -4], [0, -3.3]),
      line([0, 3.3], [0, 4]),
      // the relief
      line([0, -3.3], [-3, -3.3]),
      ...reliefInLine(-3, -3.3, 3.3),
      line([-3, 3.3], [0, 3.3]),
      // the check that lets oil in
      line([0, 3.3], [3, 3.3], [3, 2.6]),
      ...checkInLine([3, 2.6], [3, -2.6], { spring: values.crackingPressure > 0 }),
      line([3, -2.6], [3, -3.3], [0, -3.3]),
      dot(0, -3.3),
      dot(0, 3.3),
    ],
    ports: { P: { x: 0, y: -4, side: 'up' }, T: { x: 0, y: 4, side: 'down' } },
    box: { x: -5.2, y: -3.5, w: 9.4, h: 7 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure')],
  model(v) {
    const moveCheck = checkValveMotion(v)
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
        cracked: { label: 'open', severity: 'info', begins: 'opens', ends: 'shuts', worst: 'relieved' },
        drawing: {
          label: 'makes up oil',
          severity: 'info',
          begins: 'makes up oil',
          ends: 'no longer makes up oil',
          worst: 'drawn',
        },
      }),
      evaluate(l) {
        const drop = l.p[P] - l.p[T]
        moveCheck(l, STATE.suction, T, P)
        l.q[P] = l.x[STATE.suction] * suction * smoothSquareRoot(drop)
        l.q[T] = -l.q[P]
        relief.add(l, STATE.opening, P, T, l.u, INPUT.setting)
      },
      observe(l) {
        const drop = l.p[P] - l.p[T]
        l.o[OUTPUT.relieved] = relief.flow(l.x[STATE.opening], drop)
        l.o[OUTPUT.drawn] = l.o[OUTPUT.relieved] - l.q[P]
        l.c[CONDITION.cracked] = l.o[OUTPUT.relieved] - 1e-3 * v.ratedFlow
        l.c[CONDITION.drawing] = l.o[OUTPUT.drawn] - 1e-3 * v.checkFlow
        l.power[Power.heat] = l.q[P] * drop
      },
      balances: (l) => [
        relief.balance(
          'opens',
          { port: 'P', pressure: l.p[P] },
          { port: 'T', pressure: l.p[T] },
          l.u[INPUT.setting],
        ),
      ],
      holds: (l) => [
        heldAtSetting(
          l.p,
          P,
          l.u[INPUT.setting],
          [{ port: T, factor: 1, label: 'behind it' }],
          l.o[OUTPUT.relieved] > 1e-3 * v.ratedFlow,
        ),
      ],
    }
  },
  describeState: (l, v, show) =>
    l.o[OUTPUT.relieved] > 1e-3 * v.ratedFlow
      ? `Lets ${show(l.o[OUTPUT.relieved], 'flow')} go at ${show(l.p[P], 'pressure')}.`
      : l.o[OUTPUT.drawn] > 1e-3 * v.checkFlow
        ? `Draws ${show(l.o[OUTPUT.drawn], 'flow')} into the line.`
        : `Shut: ${show(l.p[P] - l.p[T], 'pressure')} of ${show(l.u[INPUT.setting], 'pressure')}.`,
})
