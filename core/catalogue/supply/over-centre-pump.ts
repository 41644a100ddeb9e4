import { pistonSection } from '../section-elements'
import { SPECIFIC_HEAT } from '../../fluid/fluid'
import { leak } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  indices,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
  stateSpecs,
} from '../kind'
import { inletFilling, pathCoefficient, smoothSquareRoot, starvation } from '../flow-laws'
import { leakageSlope, holdShaft, shaftTorque } from '../displacement-machine'
import { circle, dashed, line, drained } from '../symbol'
import { adjustable, flowTriangle, shaftStub } from '../symbol-elements'

const STATE = indices('position')
const OUTPUT = indices('delivery', 'shaftPower', 'highest', 'casePressure', 'caseHeat', 'caseTemperature')
const CONDITION = indices('starved', 'overPressure', 'caseOver')
const INPUT = indices('stroke')

const [A, B, L, W, F] = [0, 1, 2, 3, 4]
/** Flow out of the case below which no higher temperature is reported, m³/s; the highest rise that is reported, K. */
const LEAST_CASE_FLOW = 1e-7
const MOST_RISE = 200

/**
 * Stroke u from −1 to 1; A is the outlet for u > 0. Q_out = D·n·u·f(P_in) − C_L·(p_A − p_B), f from the
 * port that the sign of u makes the inlet; C_L = (1 − η_v)·D·n_r/p_r; each port leaks G·p to the case.
 * T = D·u·(p_A − p_B)/(2π·η_hm) + T_d·sgn ω, η_hm multiplying where the oil drives it. Stroke follows its command with a lag.
 * The case takes the mechanical losses and what leaks into it; all oil that leaves it, flushing oil included, carries that heat off:
 * T_case = T + P_case/(ρ·c·Q_L), as it is once it has settled.
 */
export const overCentrePump = defineKind({
  name: 'over-centre-pump',
  label: 'Pump, variable, over-centre',
  family: 'supply',
  searchTerms: [
    'variable pump',
    'closed circuit pump',
    'hydrostatic',
    'over centre',
    'overcentre',
    'over-centre',
    'swash',
  ],
  designationLetter: 'P',
  description: 'Delivers at A or at B as its stroke is set to one side or the other. For closed circuits.',
  ports: [
    { name: 'A', domain: 'oil', role: 'working line A' },
    { name: 'B', domain: 'oil', role: 'working line B' },
    { name: 'L', domain: 'oil', role: 'case drain' },
    { name: 'W', domain: 'shaft', role: 'shaft' },
    { name: 'F', domain: 'oil', role: 'flushing oil into the case', mayStayOpen: true },
  ],
  parameters: {
    displacement: quantity('Displacement, full stroke', 'displacement', '45 cm³/rev', 1e-8, 5e-3),
    stroke: quantity('Stroke', 'share', '0 %', -1, 1, { note: 'without a schedule' }),
    strokeTime: quantity('Swivel time constant', 'time', '40 ms', 0, 5, { note: '0 follows at once' }),
    volumetricEfficiency: quantity('Volumetric efficiency', 'share', '95 %', 0.3, 1, {
      group: 'Losses',
      note: 'at the rated speed and pressure; leakage from port to port',
    }),
    ratedSpeed: quantity('at speed', 'rotationalSpeed', '1800 rpm', 1, 1000, { group: 'Losses' }),
    ratedPressure: quantity('at pressure', 'pressure', '250 bar', 1e5, 700e5, { group: 'Losses' }),
    caseLeakage: quantity('Leakage to the case, each port, at 250 bar', 'flow', '1 L/min', 0, 1e-2, {
      group: 'Losses',
    }),
    hydromechanicalEfficiency: quantity('Hydro-mechanical efficiency', 'share', '92 %', 0.3, 1, {
      group: 'Losses',
    }),
    drag: quantity('Friction torque without pressure', 'torque', '0 N·m', 0, 1e4, {
      group: 'Losses',
      note: 'of seals and bearings, beside what the efficiency counts; it stops a set that is switched off',
    }),
    flushed: {
      type: 'switch',
      label: 'Case flushing through port F',
      default: false,
    },
    casePassage: quantity('Case passage, flow at 1 bar', 'flow', '40 L/min', 1e-5, 0.2, {
      note: 'from F to L, where the case is flushed',
    }),
    maxCasePressure: quantity('Maximum case pressure', 'pressure', '3 bar', 1e4, 50e5, {
      group: 'Rating',
      note: 'reported when exceeded: the shaft seal fails',
    }),
    maxPressure: quantity('Maximum pressure', 'pressure', '350 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at A or B',
    }),
  },
  inputs: inputSpecs(INPUT, {
    stroke: { label: 'stroke', quantity: 'share', rest: 'stroke', min: -1, max: 1, electric: 'signal' },
  }),
  faults: [leak(A, B, 'worn: leaks more', 'worn')],
  traits: {
    drainPorts: ['L'],
    ratedPressure: 'maxPressure',
    closedCircuitPorts: ['A', 'B'],
    greatestFlow: (v, speed) => (v.displacement / (2 * Math.PI)) * Math.max(v.ratedSpeed, speed),
    paths: [
      { from: 'A', to: 'B', type: 'switched' },
      { from: 'A', to: 'L', type: 'switched' },
      { from: 'B', to: 'L', type: 'switched' },
      { from: 'F', to: 'L', type: 'open', enabledBy: 'flushed' },
    ],
    measures: { delivery: 'delivery', shaftPower: 'shaftPower' },
    sizingTargets: { displacement: 'displacement' },
  },
  symbol: (values) => ({
    shapes: [
      circle(0, 0, 3),
      flowTriangle(0, -3, 0, -1),
      flowTriangle(0, 3, 0, 1),
      line([0, -3], [0, -4]),
      line([0, 3], [0, 4]),
      ...shaftStub(-4, -3),
      ...adjustable(0, 0, 2.8),
      drained([3, 0], [4, 0], [4, 4]),
      ...(values.flushed ? [dashed([-4, 4], [-4, 1.5], [-2.6, 1.5])] : []),
    ],
    ports: {
      A: { x: 0, y: -4, side: 'up' },
      B: { x: 0, y: 4, side: 'down' },
      L: { x: 4, y: 4, side: 'down' },
      W: { x: -4, y: 0, side: 'left' },
      ...(values.flushed ? { F: { x: -4, y: 4, side: 'down' } as const } : {}),
    },
    box: { x: -3, y: -3, w: 6, h: 6 },
  }),
  caption: (values, show) => [show(values.displacement, 'displacement')],
  section: () =>
    pistonSection({
      suction: { name: 'B', pressure: (l) => l.p[B] },
      pressure: { name: 'A', pressure: (l) => l.p[A] },
      drain: { name: 'case', pressure: (l) => l.p[L] },
      leaks: (l) => -l.q[L],
      stroke: (l) => l.x[STATE.position],
    }),
  model(values, fluid) {
    const perRadian = values.displacement / (2 * Math.PI)
    const { volumetricEfficiency, ratedSpeed, ratedPressure } = values
    const crossReference = leakageSlope(volumetricEfficiency, perRadian, ratedSpeed, ratedPressure)
    const caseReference = values.caseLeakage / 250e5
    const eta = values.hydromechanicalEfficiency
    const lagging = values.strokeTime > 0
    const passage = values.flushed ? pathCoefficient(values.casePassage, 1e5) : 0
    return {
      idlePorts: values.flushed ? [] : [F],
      states: stateSpecs(STATE, {
        position: { label: 'stroke position', quantity: 'share', initial: values.stroke, scale: 1 },
      }).slice(0, lagging ? 1 : 0),
      dryFriction: [{ port: W }],
      outputs: outputSpecs(OUTPUT, {
        delivery: { label: 'delivery at A', quantity: 'flow' },
        shaftPower: { label: 'shaft power', quantity: 'power' },
        highest: { label: 'higher port pressure', quantity: 'pressure' },
        casePressure: { label: 'case pressure', quantity: 'pressure' },
        caseHeat: { label: 'heat removed by the case oil', quantity: 'power' },
        caseTemperature: { label: 'steady-state case oil temperature', quantity: 'temperature' },
      }),
      conditions: conditionSpecs(CONDITION, {
        starved: { label: 'starved at its inlet', severity: 'warning' },
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
        caseOver: { label: 'case above its maximum pressure', severity: 'danger', worst: 'casePressure' },
      }),
      ways(l) {
        const toCase = caseReference * fluid.leakageFactor
        const drainA = toCase * (l.p[A] - l.p[L])
        return [
          { from: B, to: A, flow: drainA - l.q[A], element: 'pump' },
          { from: A, to: L, flow: drainA, element: 'leak' },
          { from: B, to: L, flow: toCase * (l.p[B] - l.p[L]), element: 'leak' },
          ...(passage > 0 ? [{ from: F, to: L, flow: l.q[F], element: 'restriction' } as const] : []),
        ]
      },
      evaluate(l) {
        const u = lagging ? l.x[STATE.position] : l.u[INPUT.stroke]
        if (lagging) l.dx[STATE.position] = (l.u[INPUT.stroke] - l.x[STATE.position]) / values.strokeTime
        const speed = l.p[W]
        const drop = l.p[A] - l.p[B]
        const pumped = perRadian * speed * u * inletFilling(u * speed >= 0 ? l.p[B] : l.p[A])
        const cross = crossReference * fluid.leakageFactor
        const toCase = caseReference * fluid.leakageFactor
        const drainA = toCase * (l.p[A] - l.p[L])
        const drainB = toCase * (l.p[B] - l.p[L])
        l.q[A] = -pumped + cross * drop + drainA
        l.q[B] = pumped - cross * drop + drainB
        const flushing = passage > 0 ? passage * smoothSquareRoot(l.p[F] - l.p[L]) : 0
        l.q[L] = -drainA - drainB - flushing
        l.q[F] = flushing
        const ideal = perRadian * u * drop
        l.q[W] = shaftTorque(ideal, l.slide[0], eta, values.drag)
        if (l.slide[0] === 0) holdShaft(l, 0, ideal, eta, values.drag)
      },
      observe(l) {
        const u = lagging ? l.x[STATE.position] : l.u[INPUT.stroke]
        l.o[OUTPUT.delivery] = -l.q[A]
        l.o[OUTPUT.shaftPower] = l.q[W] * l.p[W]
        l.o[OUTPUT.highest] = Math.max(l.p[A], l.p[B])
        const inlet = u >= 0 ? l.p[B] : l.p[A]
        l.c[CONDITION.starved] = Math.abs(u * l.p[W]) > 1 ? starvation(inlet) : -1
        l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - values.maxPressure
        l.o[OUTPUT.casePressure] = l.p[L]
        l.c[CONDITION.caseOver] = l.p[L] - values.maxCasePressure
        const toCase = caseReference * fluid.leakageFactor
        const [dropA, dropB] = [l.p[A] - l.p[L], l.p[B] - l.p[L]]
        const lost = l.o[OUTPUT.shaftPower] - perRadian * u * (l.p[A] - l.p[B]) * l.p[W]
        const heat = lost + toCase * (dropA * dropA + dropB * dropB) + l.q[F] * (l.p[F] - l.p[L])
        l.o[OUTPUT.caseHeat] = heat
        const carried = fluid.density * SPECIFIC_HEAT * Math.max(-l.q[L], LEAST_CASE_FLOW)
        l.o[OUTPUT.caseTemperature] = fluid.temperature + Math.min(heat / carried, MOST_RISE)
        l.power[Power.heat] =
          l.o[OUTPUT.shaftPower] + l.p[A] * l.q[A] + l.p[B] * l.q[B] + l.p[L] * l.q[L] + l.p[F] * l.q[F]
      },
    }
  },
  describeState(l, _values, show) {
    const flow = l.o[OUTPUT.delivery]
    if (Math.abs(flow) < 1e-6) return 'In neutral: delivers nothing.'
    return `Delivers ${show(Math.abs(flow), 'flow')} at ${flow > 0 ? 'A' : 'B'} against ${show(Math.abs(l.p[A] - l.p[B]), 'pressure')}, taking ${show(l.o[OUTPUT.shaftPower], 'power')} at the shaft.`
  },
})
