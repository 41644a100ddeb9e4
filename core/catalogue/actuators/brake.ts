import { pressureBalance } from '../answers'
import { springBroken, stuckPiston } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { circleArea, smoothRamp } from '../flow-laws'
import { dashed, line, rectangle } from '../symbol'
import { shaftStub, spring } from '../symbol-elements'

const STATE = indices('lift')
const OUTPUT = indices('holding')
const CONDITION = indices('slips')
const INPUT = indices('torque')

const [X, W] = [0, 1]
/** Speed at which an applied brake is said to slip, rad/s. */
const SLIPS = 0.1

/**
 * Springs press it on, pressure at X lifts it: T = (1 − φ)·T_b against the way in which the shaft turns, or up to that as it stands, τ·dφ/dt = ramp((p_X − p_begin)/(p_lifted − p_begin)) − φ. Its piston
 * takes the oil A·s·dφ/dt.
 */
export const brake = defineKind({
  name: 'brake',
  label: 'Brake, spring-applied',
  family: 'actuators',
  searchTerms: ['brake', 'parking brake', 'holding brake', 'multi-disc', 'spring applied'],
  designationLetter: 'A',
  description: 'Holds its shaft by springs; pressure at X lifts it. Without oil it is on.',
  ports: [
    { name: 'X', domain: 'oil', role: 'pressure to lift it' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
  ],
  parameters: {
    torque: quantity('Braking torque', 'torque', '600 N·m', 0.1, 1e7, { note: 'without pressure' }),
    begins: quantity('Start of lifting', 'pressure', '12 bar', 1e4, 300e5),
    lifted: quantity('Fully lifted at', 'pressure', '20 bar', 1e4, 350e5),
    piston: quantity('Piston', 'length', '80 mm', 1e-3, 1, { note: 'its diameter' }),
    way: quantity('Piston stroke', 'length', '2 mm', 1e-5, 0.05),
    response: quantity('Response', 'time', '50 ms', 1e-3, 2),
  },
  inputs: inputSpecs(INPUT, {
    torque: { label: 'braking torque', quantity: 'torque', rest: 'torque', min: 0, max: 1e7 },
  }),
  faults: [stuckPiston(STATE.lift, X, 'brake sticks'), springBroken(INPUT.torque)],
  traits: { sizingTargets: { brakeTorque: 'torque' } },
  safetyNote: 'A brake holds; it is not sized to stop a running load again and again.',
  validate: (v) =>
    v.lifted <= v.begins
      ? [{ parameter: 'lifted', message: 'It must be lifted above the pressure at which it begins to lift.' }]
      : [],
  symbol: () => ({
    shapes: [
      rectangle(-2, -1.4, 4, 2.8),
      line([-0.5, -1.4], [-0.5, 1.4]),
      spring(-2, -0.7, 1.5, 0.7),
      spring(-2, 0.7, 1.5, 0.7),
      rectangle(2, -0.25, 1, 0.5),
      rectangle(3, -2, 0.5, 4, 'ink'),
      rectangle(4, -2, 0.5, 4, 'ink'),
      ...shaftStub(4.5, 6),
      dashed([0, 3], [0, 1.4]),
    ],
    ports: { X: { x: 0, y: 3, side: 'down' }, W: { x: 6, y: 0, side: 'right' } },
    box: { x: -2, y: -2, w: 6.8, h: 4 },
  }),
  caption: (v, show) => [show(v.torque, 'torque'), `lifted ${show(v.lifted, 'pressure')}`],
  model(v) {
    const volume = circleArea(v.piston) * v.way
    return {
      dryFriction: [{ port: W }],
      hasVariableVolume: true,
      states: stateSpecs(STATE, {
        lift: { label: 'lift', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        holding: { label: 'holding torque', quantity: 'torque' },
      }),
      conditions: conditionSpecs(CONDITION, {
        slips: { label: 'slips while applied', severity: 'warning' },
      }),
      evaluate(l) {
        const wanted = smoothRamp((l.p[X] - v.begins) / (v.lifted - v.begins))
        l.dx[STATE.lift] = (wanted - l.x[STATE.lift]) / v.response
        l.q[X] = volume * l.dx[STATE.lift]
        l.v[X] = volume * l.x[STATE.lift]
        const torque = (1 - l.x[STATE.lift]) * l.u[INPUT.torque]
        l.q[W] = torque * l.slide[0]
        l.holdForward[0] = l.holdBack[0] = torque > 0 ? torque : 0
      },
      observe(l) {
        l.o[OUTPUT.holding] = (1 - l.x[STATE.lift]) * l.u[INPUT.torque]
        l.c[CONDITION.slips] = l.x[STATE.lift] < 0.5 ? Math.abs(l.p[W]) - SLIPS : -1
        l.power[Power.heat] = l.q[W] * l.p[W] + l.p[X] * l.q[X]
      },
      balances: (l) => [pressureBalance('lifts', { 'pressure at X': l.p[X] }, { springs: v.begins })],
    }
  },
  describeState: (l, _v, show) =>
    l.x[STATE.lift] > 0.98
      ? `Lifted by ${show(l.p[X], 'pressure')}.`
      : l.x[STATE.lift] > 0.02
        ? `Lifted ${Math.round(l.x[STATE.lift] * 100)} %; it still drags with up to ${show(l.o[OUTPUT.holding], 'torque')}.`
        : `On: it can hold ${show(l.o[OUTPUT.holding], 'torque')}.`,
})
