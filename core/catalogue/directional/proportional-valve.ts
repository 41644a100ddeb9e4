import { fourPorts, SHUT_IN_MIDDLE, spoolSection } from '../section-elements'
import type { Way } from '../answers'
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
import { hysteresis, idleMetering, meteringEdges, meteringParameters } from './metering'
import { leak, leakOut, lost, stuck } from '../faults'
import { heldByFriction, pathCoefficient, smoothSquareRoot, spoolRate } from '../flow-laws'
import { line, partOf } from '../symbol'
import { adjustable, solenoid, spring } from '../symbol-elements'
import { BOX, drawBoxes, spoolEdges, type Box } from './spool'

const STATE = indices('spool')
const OUTPUT = indices('highest')
const CONDITION = indices('overPressure')
const INPUT = indices('command')

const [P, T, A, B] = [0, 1, 2, 3]
const boxes: readonly Box[] = [['P>A', 'B>T'], [], ['P>B', 'A>T']]

/**
 * The spool follows its command at constant speed. Beyond the dead band each edge opens as the metering notch does:
 * (metering.ts); y > 0 joins P to A and B to T, y < 0 P to B and A to T. Q = φ·path(Δp; q_r, Δp_r).
 */
export const proportionalValve = defineKind({
  name: 'proportional-valve',
  label: 'Directional valve 4/3, proportional',
  family: 'directional',
  searchTerms: ['proportional', 'servo', 'metering valve', 'continuous valve', 'prop'],
  designationLetter: 'V',
  description: 'Opens as far as it is commanded, either way. Closed in its centre.',
  guide: {
    acts: 'The spool goes as far as it is commanded; notches open little by little.',
    fails:
      'Dead band, hysteresis and dirt; with a changing load the speed changes too, unless it has a compensator.',
    mistakes:
      'Fast ramps with heavy masses; filters coarser than it needs; an equal spool on a cylinder with unequal areas, which cavitates when pulled.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
    { name: 'A', domain: 'oil', role: 'working line A' },
    { name: 'B', domain: 'oil', role: 'working line B' },
  ],
  parameters: {
    ratedFlow: quantity('Rated flow, each edge', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '5 bar', 1e4, 100e5),
    ...meteringParameters('5 %', 'overlap of the spool'),
    shiftTime: quantity('Time for full stroke', 'time', '60 ms', 1e-3, 5),
    hysteresis: hysteresis(),
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0 L/min', 0, 1e-3, {
      note: 'between neighbouring lands',
    }),
    maxPressure: quantity('Maximum pressure', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at P, A or B',
    }),
  },
  idleParameters: idleMetering,
  inputs: inputSpecs(INPUT, {
    command: {
      label: 'command',
      quantity: 'share',
      rest: 0,
      min: -1,
      max: 1,
      momentary: true,
      electric: 'signal',
    },
  }),
  faults: [
    stuck(STATE.spool, 'spool sticks'),
    lost(INPUT.command),
    leak(A, T, 'leaks from A to T'),
    leakOut(T, 'spool end leaks outwards'),
  ],
  traits: {
    electricFaults: () => ['lost'],
    sizingTargets: { valveFlow: 'ratedFlow' },
    spoolLeakage: 'leakage',
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    restrictions: spoolEdges,
    ratedPressure: 'maxPressure',
    paths: [
      { from: 'P', to: 'A', type: 'switched' },
      { from: 'P', to: 'B', type: 'switched' },
      { from: 'A', to: 'T', type: 'switched' },
      { from: 'B', to: 'T', type: 'switched' },
    ],
  },
  safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  symbol() {
    const half = (BOX * 3) / 2
    return {
      shapes: [
        ...partOf('spool', [
          ...drawBoxes(boxes, { A: [-1, -2], B: [1, -2], P: [-1, 2], T: [1, 2] }),
          ...solenoid(-half, 1),
          ...adjustable(-half - 1.5, -1, 1.4),
          ...solenoid(half, -1),
          ...adjustable(half + 1.5, -1, 1.4),
          spring(-half - 2.2, 1, 2.2, 1.1),
          spring(half, 1, 2.2, 1.1),
          // the two lines that mark any position between
          line([-half, -2.4], [half, -2.4]),
          line([-half, 2.4], [half, 2.4]),
          line([-1, -2], [-1, -3]),
          line([1, -2], [1, -3]),
          line([-1, 2], [-1, 3]),
          line([1, 2], [1, 3]),
        ]),
      ],
      ports: {
        A: { x: -1, y: -3, side: 'up' },
        B: { x: 1, y: -3, side: 'up' },
        P: { x: -1, y: 3, side: 'down' },
        T: { x: 1, y: 3, side: 'down' },
      },
      box: { x: -half - 3, y: -2.5, w: half * 2 + 6, h: 5 },
      captionAt: { x: -half - 2, y: -3.2, anchor: 'start' },
      coils: { a: { x: -half - 1.5, y: -3.2 }, b: { x: half + 1.5, y: -3.2 } },
      parts: { spool: { signal: 'spool', zero: 0, travel: BOX, full: 1 } },
    }
  },
  caption: (values, show) => [show(values.ratedFlow, 'flow')],
  section: () =>
    spoolSection({
      pressure: fourPorts(P, T, A, B),
      position: (l) => l.x[STATE.spool],
      open: SHUT_IN_MIDDLE,
      notches: true,
    }),
  model(values, fluid) {
    const { inlet, outlet } = meteringEdges(values)
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const leakReference = values.leakage / 100e5
    return {
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        highest: { label: 'highest port pressure', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
      }),
      evaluate(l) {
        const y = l.x[STATE.spool]
        const { p, q } = l
        const leak = leakReference * fluid.leakageFactor
        l.dx[STATE.spool] = spoolRate(
          y,
          heldByFriction(y, l.u[INPUT.command], 0.5 * values.hysteresis),
          values.shiftTime,
        )
        const one = y > 0 ? A : B
        const other = y > 0 ? B : A
        const into = coefficient * inlet(y) * smoothSquareRoot(p[P] - p[one])
        const out = coefficient * outlet(y) * smoothSquareRoot(p[other] - p[T])
        q[P] = into + leak * (2 * p[P] - p[A] - p[B])
        q[T] = -out + leak * (2 * p[T] - p[A] - p[B])
        q[one] = -into + leak * (2 * p[one] - p[P] - p[T])
        q[other] = out + leak * (2 * p[other] - p[P] - p[T])
      },
      observe(l) {
        l.o[OUTPUT.highest] = Math.max(l.p[P], l.p[A], l.p[B])
        l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - values.maxPressure
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[T] * l.q[T] + l.p[A] * l.q[A] + l.p[B] * l.q[B]
      },
      ways(l) {
        const y = l.x[STATE.spool]
        const [one, other] = y > 0 ? [A, B] : [B, A]
        const edge = (from: number, to: number, opening: number): Way[] =>
          opening > 0
            ? [
                {
                  from,
                  to,
                  flow: coefficient * opening * smoothSquareRoot(l.p[from] - l.p[to]),
                  element: 'edge',
                },
              ]
            : []
        const land = (from: number, to: number): Way => ({
          from,
          to,
          flow: leakReference * fluid.leakageFactor * (l.p[from] - l.p[to]),
          element: 'leak',
        })
        return [
          ...edge(P, one, inlet(y)),
          ...edge(other, T, outlet(y)),
          ...(leakReference > 0 ? [land(P, A), land(P, B), land(A, T), land(B, T)] : []),
        ]
      },
    }
  },
  describeState(l, values, show) {
    const y = l.x[STATE.spool]
    if (Math.abs(y) <= values.deadBand) return 'In its dead band: shut.'
    const [way, back] = y > 0 ? ['P to A', 'B'] : ['P to B', 'A']
    return `At ${Math.round(Math.abs(y) * 100)} %: ${way} passes ${show(Math.abs(l.q[P]), 'flow')}, ${back} returns ${show(Math.abs(l.q[T]), 'flow')}.`
  },
})
