import { heldAtSetting } from '../answers'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs } from '../kind'
import { dashed } from '../symbol'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveMotion } from '../directional/check'
import { checkBeside, pressureBody, settingFaults, settingInput, INPUT } from './body'
import { portRelief, portReliefParameters } from './port-relief'
import { heldSetting } from './relief-law'

const STATE = indices('opening', 'checkOpening')
const OUTPUT = indices('flow')

const [A, B, X] = [0, 1, 2]

/** Keeps A above B by its setting while oil flows, as a relief in the return line: the law of port-relief.ts; a check B→A beside it. */
export const backPressureValve = defineKind({
  name: 'back-pressure-valve',
  label: 'Back-pressure valve',
  family: 'pressure',
  searchTerms: ['back pressure', 'preload valve', 'return preload', 'regeneration'],
  designationLetter: 'V',
  description: 'Keeps a pressure in the return line, so that lines that draw from it stay filled.',
  guide: {
    acts: 'The return must push it open, so that a pressure stays in the return line before it.',
    fails:
      'A broken spring lets the lines that draw from the return run empty: cavitation where loads drive the actuator.',
    mistakes: 'Case drains and spring chambers led in before it: their pressure rises by its setting.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'line that is kept under pressure' },
    { name: 'B', domain: 'oil', role: 'towards the tank' },
    { name: 'X', domain: 'oil', role: 'pilot that switches it off', mayStayOpen: true },
  ],
  parameters: {
    ...portReliefParameters('6 bar'),
    switched: { type: 'switch', label: 'Switched off by a pilot', default: false },
    switchPressure: quantity('Wholly open from a pilot of', 'pressure', '20 bar', 1e4, 350e5, {
      note: 'it keeps its full setting up to half of it',
    }),
    ...checkParameters('Check'),
  },
  idleParameters: (v) => (v.switched ? [] : ['switchPressure']),
  inputs: settingInput,
  faults: settingFaults,
  traits: {
    pilotPorts: ['X'],
    restrictions: [{ from: 'A', to: 'B', element: 'spring' }],
    paths: [
      { from: 'A', to: 'B', type: 'open' },
      { from: 'B', to: 'A', type: 'oneWay' },
    ],
  },
  symbol: (values) => ({
    shapes: [
      ...pressureBody({ flow: 'down', pilot: 'top', drain: 'bottom' }),
      ...checkBeside(7, 0, 'up', values.crackingPressure > 0),
      ...(values.switched ? [dashed([-4, 1], [-2, 1])] : []),
    ],
    ports: {
      A: { x: 0, y: -4, side: 'up' },
      B: { x: 0, y: 4, side: 'down' },
      ...(values.switched ? { X: { x: -4, y: 1, side: 'left' } as const } : {}),
    },
    box: { x: -3, y: -3.5, w: 11.2, h: 7 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure')],
  model(v) {
    const moveCheck = checkValveMotion(v)
    const relief = portRelief(v)
    const back = pathCoefficient(v.checkFlow, v.checkDrop)
    /** Share of the setting that is left under a pilot pressure: falls from half the switching pressure on. */
    const kept = (pilot: number) => (v.switched ? 1 - smoothRamp((2 * pilot) / v.switchPressure - 1) : 1)
    const held = new Float64Array(1)
    return {
      idlePorts: v.switched ? [] : [X],
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        held[0] = l.u[INPUT.setting] * kept(l.p[X])
        moveCheck(l, STATE.checkOpening, B, A)
        l.q[A] = l.x[STATE.checkOpening] * back * smoothSquareRoot(drop)
        l.q[B] = -l.q[A]
        l.q[X] = 0
        relief.add(l, STATE.opening, A, B, held, 0)
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
      holds: (l) => [
        heldAtSetting(
          l.p,
          A,
          heldSetting(l.u[INPUT.setting] * kept(l.p[X])),
          [{ port: B, factor: 1, label: 'behind it' }],
          l.q[A] > 1e-3 * v.ratedFlow,
        ),
      ],
      balances: (l) => [
        relief.balance(
          'opens',
          { port: 'A', pressure: l.p[A] },
          { port: 'B', pressure: l.p[B] },
          l.u[INPUT.setting] * kept(l.p[X]),
        ),
      ],
    }
  },
  describeState: (l, _v, show) =>
    l.q[A] > 1e-7
      ? `Passes ${show(l.q[A], 'flow')} and keeps ${show(l.p[A], 'pressure')} before it.`
      : l.q[A] < -1e-7
        ? `Its check is open: ${show(-l.q[A], 'flow')} are drawn back.`
        : `Shut, with ${show(l.p[A] - l.p[B], 'pressure')} across it.`,
})
