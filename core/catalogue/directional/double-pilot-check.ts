import { type Balance, pressureBalance } from '../answers'
import { leak, stuck } from '../faults'
import { defineKind, Power, quantity, indices, stateSpecs, outputSpecs, conditionSpecs } from '../kind'
import { pathCoefficient, smoothRamp, smoothSquareRoot } from '../flow-laws'
import { dashed, line, rectangle, type Shape } from '../symbol'
import { checkInLine, dot, enclosureLine } from '../symbol-elements'
import { checkNominal, checkParameters } from './check'

const STATE = indices('openingA', 'openingB')
const OUTPUT = indices('flowA', 'flowB', 'held')
const CONDITION = indices('overPressure')

const [A, B, A1, B1] = [0, 1, 2, 3]

/** The check of one side with its pilot piston, whose rod lifts the ball off its seat. */
const half = (x: number, spring: boolean, detailed: boolean): Shape[] => {
  const out = Math.sign(x)
  return [
    ...checkInLine([x, 4], [x, -4], { spring }),
    // the pilot line of the other side ends at the seat, or at its piston
    ...(detailed
      ? [
          rectangle(Math.min(x - out * 2.3, x - out * 1.3), 0.65, 1, 0.9),
          line([x - out * 1.8, 0.65], [x - out * 1.8, 1.55]),
          line([x - out * 1.3, 1.1], [x, 1.1], [x, 0.75]),
        ]
      : []),
  ]
}

/**
 * Two piloted checks in one body, each opened by the line of the other: for side A
 * d = (p_A − p_A1) + R·max(0, p_B − p_A) − p_crack, drained to its own valve side; for B the like.
 * τ·dφ/dt = ramp(d/p_open) − φ; Q = φ·path, both ways.
 */
export const doublePilotCheck = defineKind({
  name: 'double-pilot-check',
  label: 'Check valve, double, pilot to open',
  family: 'directional',
  searchTerms: ['double pilot check', 'hydraulic lock', 'twin check', 'lock valve', 'dpoc'],
  designationLetter: 'V',
  description: 'Locks both lines of an actuator; pressure in either line opens the other.',
  guide: {
    acts: 'Each line holds until the other one is under pressure, whose pilot piston opens it.',
    fails: 'A pressure left in either line keeps the other open: the load creeps.',
    mistakes:
      'A centre that blocks A and B; throttles between it and the cylinder, whose back pressure works against its pilots.',
  },
  ports: [
    { name: 'A', domain: 'oil', role: 'line A of the directional valve' },
    { name: 'B', domain: 'oil', role: 'line B of the directional valve' },
    { name: 'A1', domain: 'oil', role: 'held line A' },
    { name: 'B1', domain: 'oil', role: 'held line B' },
  ],
  parameters: {
    ...checkParameters(),
    pilotRatio: quantity('Pilot ratio', 'ratio', '4', 1, 100, { note: 'pilot area to seat area' }),
    maxPressure: quantity('Maximum pressure', 'pressure', '350 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at A1 or B1',
    }),
  },
  faults: [
    leak(A1, A, 'side A leaks shut'),
    stuck(STATE.openingA, 'side A stuck'),
    stuck(STATE.openingB, 'side B stuck'),
  ],
  traits: {
    sizingTargets: { checkRatio: 'pilotRatio' },
    ratedPressure: 'maxPressure',
    loadHolding: [
      { port: 'A1', outletPort: 'A', pilot: 'B', ratio: 'pilotRatio' },
      { port: 'B1', outletPort: 'B', pilot: 'A', ratio: 'pilotRatio' },
    ],
    nominalPoint: checkNominal,
    paths: [
      { from: 'A', to: 'A1', type: 'oneWay' },
      { from: 'A1', to: 'A', type: 'switched' },
      { from: 'B', to: 'B1', type: 'oneWay' },
      { from: 'B1', to: 'B', type: 'switched' },
    ],
  },
  safetyNote:
    'The valve before it must relieve both lines in its centre, or the checks do not shut. No single valve may be relied on under a raised load.',
  forms: true,
  symbol(values, form) {
    const detailed = form === 'detailed'
    const spring = values.crackingPressure > 0
    /** How far from its check a pilot line ends: at the seat, or at the piston. */
    const reach = detailed ? 2.3 : 0.5
    return {
      shapes: [
        enclosureLine(-5, -3.4, 10, 6.8),
        ...half(-3, spring, detailed),
        ...half(3, spring, detailed),
        dot(-3, 2.9),
        dot(3, 2.2),
        dashed([-3, 2.9], [0.8, 2.9], [0.8, 1.1], [3 - reach, 1.1]),
        dashed([3, 2.2], [-0.8, 2.2], [-0.8, 1.1], [reach - 3, 1.1]),
      ],
      ports: {
        A: { x: -3, y: 4, side: 'down' },
        B: { x: 3, y: 4, side: 'down' },
        A1: { x: -3, y: -4, side: 'up' },
        B1: { x: 3, y: -4, side: 'up' },
      },
      box: { x: -5, y: -3.4, w: 10, h: 6.8 },
    }
  },
  caption: (v) => [`${v.pilotRatio} : 1`],
  model(v) {
    const coefficient = pathCoefficient(v.checkFlow, v.checkDrop)
    const rate = (own: number, held: number, other: number, opening: number) => {
      const push = other - own
      const driving = own - held + (push > 0 ? v.pilotRatio * push : 0) - v.crackingPressure
      return (smoothRamp(driving / v.openingRange) - opening) / v.checkResponse
    }
    return {
      states: stateSpecs(STATE, {
        openingA: { label: 'opening, side A', quantity: 'share', initial: 0, scale: 1 },
        openingB: { label: 'opening, side B', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        flowA: { label: 'flow A to A1', quantity: 'flow' },
        flowB: { label: 'flow B to B1', quantity: 'flow' },
        held: { label: 'higher pressure held', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'held' },
      }),
      evaluate(l) {
        l.dx[STATE.openingA] = rate(l.p[A], l.p[A1], l.p[B], l.x[STATE.openingA])
        l.dx[STATE.openingB] = rate(l.p[B], l.p[B1], l.p[A], l.x[STATE.openingB])
        const a = l.x[STATE.openingA] * coefficient * smoothSquareRoot(l.p[A] - l.p[A1])
        const b = l.x[STATE.openingB] * coefficient * smoothSquareRoot(l.p[B] - l.p[B1])
        l.q[A] = a
        l.q[A1] = -a
        l.q[B] = b
        l.q[B1] = -b
      },
      observe(l) {
        l.o[OUTPUT.flowA] = l.q[A]
        l.o[OUTPUT.flowB] = l.q[B]
        l.o[OUTPUT.held] = Math.max(l.p[A1], l.p[B1])
        l.c[CONDITION.overPressure] = l.o[OUTPUT.held] - v.maxPressure
        l.power[Power.heat] = l.q[A] * (l.p[A] - l.p[A1]) + l.q[B] * (l.p[B] - l.p[B1])
      },
      balances(l) {
        const side = (own: number, held: number, other: number, name: string): Balance =>
          pressureBalance(
            `opens ${name}`,
            {
              [`pressure at ${name}`]: l.p[own],
              [`pilot from the other side, ${v.pilotRatio} times`]:
                v.pilotRatio * Math.max(0, l.p[other] - l.p[own]),
            },
            { [`pressure held at ${name}1`]: l.p[held], spring: v.crackingPressure },
          )
        return [side(A, A1, B, 'A'), side(B, B1, A, 'B')]
      },
    }
  },
  describeState(l, _v, show) {
    if (l.x[STATE.openingA] < 0.01 && l.x[STATE.openingB] < 0.01)
      return `Locked: ${show(l.p[A1], 'pressure')} held at A1 and ${show(l.p[B1], 'pressure')} at B1.`
    const [into, out] = l.q[A] >= 0 ? ['A', 'B'] : ['B', 'A']
    return `Open: ${show(Math.abs(l.q[into === 'A' ? A : B]), 'flow')} go in at ${into}, whose pressure holds ${out} open.`
  },
})
