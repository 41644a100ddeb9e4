import { defineKind, Power, indices, stateSpecs, outputSpecs } from '../kind'
import { pathCoefficient, smoothSquareRoot } from '../flow-laws'
import { checkParameters, checkValveFlow } from '../directional/check'
import { checkBeside, pressureBody, settingFaults, settingInput, INPUT } from './body'
import { portRelief, portReliefParameters } from './port-relief'

const STATE = indices('opening', 'checkOpening')
const OUTPUT = indices('flow')

const [A, B] = [0, 1]

/** Keeps A above B by its setting while oil flows, as a relief in the return line: the law of port-relief.ts; a check B→A beside it. */
export const backPressureValve = defineKind({
  name: 'back-pressure-valve',
  label: 'Back-pressure valve',
  family: 'pressure',
  searchTerms: ['back pressure', 'preload valve', 'return preload', 'regeneration'],
  designationLetter: 'V',
  description: 'Keeps a pressure in the return line, so that lines that draw from it stay filled.',
  ports: [
    { name: 'A', domain: 'oil', role: 'line that is kept under pressure' },
    { name: 'B', domain: 'oil', role: 'towards the tank' },
  ],
  parameters: { ...portReliefParameters('6 bar'), ...checkParameters('Check') },
  inputs: settingInput,
  faults: settingFaults,
  traits: {
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
    ],
    ports: { A: { x: 0, y: -4, side: 'up' }, B: { x: 0, y: 4, side: 'down' } },
    box: { x: -3, y: -3.5, w: 11.2, h: 7 },
  }),
  caption: (v, show) => [show(v.setting, 'pressure')],
  model(v) {
    const checkRate = checkValveFlow(v)
    const relief = portRelief(v)
    const back = pathCoefficient(v.checkFlow, v.checkDrop)
    return {
      states: stateSpecs(STATE, {
        opening: { label: 'opening', quantity: 'share', initial: 0, scale: 1 },
        checkOpening: { label: 'check opening', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flow: { label: 'flow A to B', quantity: 'flow' },
      }),
      evaluate(l) {
        const drop = l.p[A] - l.p[B]
        l.dx[STATE.opening] = relief.rate(l.x[STATE.opening], drop, l.u[INPUT.setting])
        l.dx[STATE.checkOpening] = checkRate(-drop, l.x[STATE.checkOpening])
        l.q[A] =
          relief.flow(l.x[STATE.opening], drop) + l.x[STATE.checkOpening] * back * smoothSquareRoot(drop)
        l.q[B] = -l.q[A]
      },
      observe(l) {
        l.o[OUTPUT.flow] = l.q[A]
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[B])
      },
    }
  },
  describeState: (l, _v, show) =>
    l.q[A] > 1e-7
      ? `Passes ${show(l.q[A], 'flow')} and keeps ${show(l.p[A], 'pressure')} before it.`
      : l.q[A] < -1e-7
        ? `Its check is open: ${show(-l.q[A], 'flow')} are drawn back.`
        : `Shut, with ${show(l.p[A] - l.p[B], 'pressure')} across it.`,
})
