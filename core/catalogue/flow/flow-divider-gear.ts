import type { Hold } from '../answers'
import { leak } from '../faults'
import {
  defineKind,
  type Local,
  Power,
  quantity,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
} from '../kind'
import { inletFilling, SHAFT_REVERSAL } from '../flow-laws'
import { circle, line } from '../symbol'
import { dot, inwardTriangle, shaftStub } from '../symbol-elements'

const STATE = indices('speed')
const OUTPUT = indices('toA', 'toB', 'highest')
const CONDITION = indices('intensified', 'overPressure')

const [P, A, B] = [0, 1, 2]

/**
 * Two gear motors on one shaft: Q_i = D_i·ω/(2π)·f + G_i·(p_P − p_i); J·dω/dt = Σ D_i·(p_P − p_i)/(2π) − T_c·sgn ω − b·ω. The section with
 * the lower load drives the other, whose pressure may rise above that of the inlet.
 */
export const flowDividerGear = defineKind({
  name: 'flow-divider-gear',
  label: 'Flow divider, gear',
  family: 'flow',
  searchTerms: ['gear flow divider', 'rotary divider', 'motor divider', 'synchronise', 'intensifier'],
  designationLetter: 'V',
  description:
    'Two gear sections on one shaft divide the flow by their displacements; one can drive the other.',
  guide: {
    acts: 'Two gear sections on one shaft turn alike, and each passes its displacement.',
    fails:
      'Leakage makes them part by a few per cent; where one outlet has no load, it drives the other above the inlet pressure.',
    mistakes: 'No relief on each outlet; no way for stragglers to reach their stop before the next stroke.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'common line' },
    { name: 'A', domain: 'oil', role: 'first section' },
    { name: 'B', domain: 'oil', role: 'second section' },
  ],
  parameters: {
    displacementA: quantity('Displacement, section A', 'displacement', '12 cm³/rev', 1e-8, 5e-3),
    displacementB: quantity('Displacement, section B', 'displacement', '12 cm³/rev', 1e-8, 5e-3),
    leakage: quantity('Leakage of each section at 200 bar', 'flow', '0.6 L/min', 0, 1e-2),
    frictionTorque: quantity('Friction torque', 'torque', '1.5 N·m', 0, 1e4),
    viscousTorque: quantity('Friction torque per 1000 r/min', 'torque', '1 N·m', 0, 1e4),
    inertia: quantity('Moment of inertia', 'inertia', '0.002 kg·m²', 1e-6, 10),
    maxPressure: quantity('Maximum pressure', 'pressure', '250 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at A or B',
    }),
  },
  faults: [leak(P, A, 'worn: leaks more', 'worn')],
  traits: {
    paths: [
      { from: 'P', to: 'A', type: 'open' },
      { from: 'P', to: 'B', type: 'open' },
    ],
  },
  safetyNote:
    'With one side free and the other blocked it multiplies pressure: each outlet needs its own relief valve.',
  symbol: () => ({
    shapes: [
      circle(-4, 0, 3),
      circle(4, 0, 3),
      // each machine is driven by what comes in and passes it on
      inwardTriangle(-4, 0, 3, 0, -1),
      inwardTriangle(4, 0, 3, 0, -1),
      ...shaftStub(-1, 1),
      line([0, 5], [0, 4], [-4, 4], [-4, 3]),
      line([0, 4], [4, 4], [4, 3]),
      dot(0, 4),
      line([-4, -3], [-4, -4]),
      line([4, -3], [4, -4]),
    ],
    ports: {
      P: { x: 0, y: 5, side: 'down' },
      A: { x: -4, y: -4, side: 'up' },
      B: { x: 4, y: -4, side: 'up' },
    },
    box: { x: -7, y: -3, w: 14, h: 7.2 },
    reading: 'speed',
  }),
  caption: (v, show) => [
    `${show(v.displacementA, 'displacement')} / ${show(v.displacementB, 'displacement')}`,
  ],
  model(v, fluid) {
    const [a, b] = [v.displacementA / (2 * Math.PI), v.displacementB / (2 * Math.PI)]
    const leakage = v.leakage / 200e5
    const viscous = v.viscousTorque / ((1000 * 2 * Math.PI) / 60)
    const friction = (l: Local) =>
      l.slide[0] === 0 ? l.held[0] : v.frictionTorque * l.slide[0] + viscous * l.x[STATE.speed]
    return {
      dryFriction: [{ velocity: STATE.speed }],
      states: stateSpecs(STATE, {
        speed: { label: 'speed', quantity: 'rotationalSpeed', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        toA: { label: 'flow to A', quantity: 'flow' },
        toB: { label: 'flow to B', quantity: 'flow' },
        highest: { label: 'higher outlet pressure', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        intensified: { label: 'outlet pressure above the inlet', severity: 'info', worst: 'highest' },
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
      }),
      evaluate(l) {
        const speed = l.x[STATE.speed]
        const [dropA, dropB] = [l.p[P] - l.p[A], l.p[P] - l.p[B]]
        const g = leakage * fluid.leakageFactor
        const qa = a * speed * inletFilling(speed >= 0 ? l.p[P] : l.p[A]) + g * dropA
        const qb = b * speed * inletFilling(speed >= 0 ? l.p[P] : l.p[B]) + g * dropB
        l.q[P] = qa + qb
        l.q[A] = -qa
        l.q[B] = -qb
        const torque = a * dropA + b * dropB - viscous * speed
        const direction = l.slide[0]
        l.dx[STATE.speed] = direction === 0 ? 0 : (torque - v.frictionTorque * direction) / v.inertia
        l.held[0] = torque
        l.holdForward[0] = l.holdBack[0] = v.frictionTorque
      },
      observe(l) {
        l.o[OUTPUT.toA] = -l.q[A]
        l.o[OUTPUT.toB] = -l.q[B]
        l.o[OUTPUT.highest] = Math.max(l.p[A], l.p[B])
        l.c[CONDITION.intensified] = l.x[STATE.speed] > SHAFT_REVERSAL ? l.o[OUTPUT.highest] - l.p[P] : -1
        l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - v.maxPressure
        l.power[Power.stored] = v.inertia * l.dx[STATE.speed] * l.x[STATE.speed]
        l.energy[0] = 0.5 * v.inertia * l.x[STATE.speed] ** 2
        const [dropA, dropB] = [l.p[P] - l.p[A], l.p[P] - l.p[B]]
        // all that flows but does not turn it, and its friction
        const past = dropA * (-l.q[A] - a * l.x[STATE.speed]) + dropB * (-l.q[B] - b * l.x[STATE.speed])
        l.power[Power.heat] = past + friction(l) * l.x[STATE.speed]
      },
      // balance of torques: the inlet stands at the mean of the outlets, by their displacements
      holds(l): Hold[] {
        const outlets = [
          { port: A, factor: a / (a + b), label: 'at A, by its displacement', ratio: 'share of A' },
          { port: B, factor: b / (a + b), label: 'at B, by its displacement', ratio: 'share of B' },
        ].sort((one, other) => other.factor * l.p[other.port] - one.factor * l.p[one.port])
        return [
          {
            port: P,
            by: 'load',
            leads: l.x[STATE.speed] > SHAFT_REVERSAL,
            passesOn: true,
            terms: [
              { label: 'friction', value: friction(l) / (a + b) },
              {
                label: 'acceleration',
                value: (v.inertia * l.dx[STATE.speed]) / (a + b),
                role: 'acceleration',
              },
            ],
            behind: outlets,
          },
        ]
      },
    }
  },
  describeState: (l, _v, show) =>
    `Turns at ${show(Math.abs(l.x[STATE.speed]), 'rotationalSpeed')}: ${show(l.o[OUTPUT.toA], 'flow')} to A, ${show(l.o[OUTPUT.toB], 'flow')} to B.`,
})
