import { poppetSection } from '../section-elements'
import { heldAtSetting, pressureBalance } from '../answers'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  type Local,
} from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { drained } from '../symbol'
import { checkBeside, pressureBody, settingFaults, settingInput, INPUT } from './body'

const STATE = indices('opening', 'checkOpening')
const OUTPUT = indices('flow')
const CONDITION = indices('open')

const [A, B, X, Y] = [0, 1, 2, 3]

/**
 * d = p_pilot − p_drain − p_set; τ·dφ/dt = ramp(d/r) − φ; Q = φ·path(p_A − p_B), and a check B→A beside it.
 * The pilot is A, or X where external; the drain is Y where external, else B.
 */
export const sequenceValve = defineKind({
  name: 'sequence-valve',
  label: 'Sequence valve',
  family: 'pressure',
  searchTerms: ['sequence', 'priority by pressure', 'sqv', 'seq'],
  designationLetter: 'V',
  description:
    'Opens A to B when the pressure at its pilot reaches its setting: the second motion begins when the first is done.',
  guide: {
    acts: 'It stays shut until the pressure at its pilot reaches the setting, then lets oil through to the second motion.',
    fails:
      'A drain under pressure raises the setting by as much. When the first cylinder jams half way, pressure rises all the same and the second one goes.',
    mistakes:
      'Set too near the pressure that the first motion needs; no check for the way back; relied on as proof that the first motion is done: only a switch at the stop proves that.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'inlet' },
    { name: 'B', domain: 'oil', role: 'outlet' },
    { name: 'X', domain: 'oil', role: 'external pilot', mayStayOpen: true },
    { name: 'Y', domain: 'oil', role: 'drain of the spring chamber', mayStayOpen: true },
  ],
  parameters: {
    setting: quantity('Setting', 'pressure', '80 bar', 0, 700e5, { note: 'where it begins to open' }),
    range: quantity('Pressure rise to full opening', 'pressure', '5 bar', 1e4, 100e5),
    pilot: {
      type: 'choice',
      label: 'Pilot',
      default: 'internal',
      choices: { internal: 'internal, from A', external: 'external, at X' },
    },
    drain: {
      type: 'choice',
      label: 'Drain',
      default: 'external',
      choices: { external: 'external, at Y', internal: 'internal, to B' },
      note: 'pressure at the drain adds to the setting',
    },
    ratedFlow: quantity('Rated flow', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '5 bar', 1e4, 100e5),
    timeConstant: quantity('Response', 'time', '10 ms', 1e-4, 1, { note: 'time constant of its opening' }),
    bypass: { type: 'switch', label: 'Check valve for the way back', default: true },
    ...checkParameters('Check'),
  },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    sizingTargets: { sequenceSetting: 'setting' },
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    pilotPorts: ['X'],
    drainPorts: ['Y'],
    pressureSettings: [{ does: 'opens', parameter: 'setting', port: 'A' }],
    paths: [
      { from: 'A', to: 'B', type: 'switched' },
      { from: 'B', to: 'A', type: 'oneWay' },
    ],
  },
  symbol(values) {
    const shapes = [
      ...(values.drain === 'external' && values.bypass ? [drained([5, 0], [9, 0])] : []),
      ...pressureBody({
        flow: 'up',
        pilot: values.pilot === 'internal' ? 'bottom' : 'left',
        drain: values.drain === 'internal' ? 'top' : 'right',
      }),
      ...(values.bypass ? checkBeside(7, -1.9, 'down', values.crackingPressure > 0, 0.7) : []),
    ]
    return {
      shapes,
      ports: {
        A: { x: 0, y: 4, side: 'down' },
        B: { x: 0, y: -4, side: 'up' },
        ...(values.pilot === 'external' ? { X: { x: -4, y: 0, side: 'left' } as const } : {}),
        ...(values.drain === 'external'
          ? { Y: { x: values.bypass ? 9 : 5, y: 0, side: 'right' } as const }
          : {}),
      },
      box: { x: -3, y: -3.5, w: values.bypass ? 11.2 : 7.4, h: 7 },
    }
  },
  caption: (values, show) => [show(values.setting, 'pressure')],
  section: (values) =>
    poppetSection({
      inlet: { name: 'A', pressure: (l) => l.p[A] },
      outlet: { name: 'B', pressure: (l) => l.p[B] },
      opening: (l) => l.x[STATE.opening],
      above: {
        name: values.drain === 'external' ? 'Y' : 'B, spring side',
        pressure: (l) => l.p[values.drain === 'external' ? Y : B],
      },
      ...(values.pilot === 'external'
        ? {
            piston: {
              name: 'X',
              pressure: (l: Local) => l.p[X],
              pushes: (l: Local) => l.x[STATE.opening] > 0.01,
            },
          }
        : {}),
    }),
  model(values) {
    const moveCheck = checkValveMotion(values)
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const back = values.bypass ? pathCoefficient(values.checkFlow, values.checkDrop) : 0
    const pilot = values.pilot === 'external' ? X : A
    const drain = values.drain === 'external' ? Y : B
    return {
      idlePorts: [X, Y].filter((port) => port !== pilot && port !== drain),
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        open: { label: 'open', severity: 'info', begins: 'opens', ends: 'shuts', worst: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        const driving = l.p[pilot] - l.p[drain] - l.u[INPUT.setting]
        l.dx[STATE.opening] = (smoothRamp(driving / values.range) - l.x[STATE.opening]) / values.timeConstant
        moveCheck(l, STATE.checkOpening, B, A)
        const flow =
          (l.x[STATE.opening] * coefficient + l.x[STATE.checkOpening] * back) * smoothSquareRoot(drop)
        l.q[A] = flow
        l.q[B] = -flow
        l.q[X] = 0
        l.q[Y] = 0
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.c[CONDITION.open] = l.x[STATE.opening] - 0.01
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      // it holds its inlet up only where that is its pilot, and while it throttles
      holds: (l) =>
        pilot === A
          ? [
              heldAtSetting(
                l.p,
                A,
                l.u[INPUT.setting],
                [{ port: drain, factor: 1, label: 'at its drain' }],
                l.x[STATE.opening] > 0.01 && l.x[STATE.opening] < 0.98 && l.q[A] > 0,
              ),
            ]
          : [],
      balances: (l) => [
        pressureBalance(
          'opens',
          { [pilot === A ? 'pressure at A' : 'pressure at X']: l.p[pilot] },
          { spring: l.u[INPUT.setting], [drain === Y ? 'pressure at Y' : 'pressure at B']: l.p[drain] },
        ),
      ],
    }
  },
  describeState(l, values, show) {
    const pilot = l.p[values.pilot === 'external' ? X : A] - l.p[values.drain === 'external' ? Y : B]
    if (l.x[STATE.opening] > 0.01)
      return `Open ${Math.round(l.x[STATE.opening] * 100)} %, passing ${show(l.q[A], 'flow')}; it shuts below ${show(l.u[INPUT.setting], 'pressure')}.`
    if (l.x[STATE.checkOpening] > 0.01) return `Its check is open: ${show(-l.q[A], 'flow')} go back to A.`
    return `Shut: ${show(Math.max(0, l.u[INPUT.setting] - pilot), 'pressure')} below its setting.`
  },
})
