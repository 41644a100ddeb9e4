import { heldAtSetting, type Way } from '../answers'
import { idleMetering, meteringEdges, meteringParameters } from './metering'
import { leak, leakOut, lost, stuck } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  type Local,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { addPathFlows, pathCoefficient, smoothSquareRoot, spoolRate } from '../flow-laws'
import { checkParameters, checkValveMotion } from './check'
import { portRelief } from '../pressure/port-relief'
import { line, partOf, type Shape } from '../symbol'
import { checkInLine, dot, enclosureLine, reliefInLine, spring } from '../symbol-elements'
import { SECTION_BOX, drawBoxes, spoolEdges, type Box } from './spool'
import { lever } from './actuation'

const STATE = indices('spool', 'check', 'reliefA', 'reliefB', 'suctionA', 'suctionB')
const OUTPUT = indices('working', 'neutralFlow', 'relieved')
const CONDITION = indices('relieving')
const INPUT = indices('command')

const [P, N, M, T, A, B] = [0, 1, 2, 3, 4, 5]
/** Response of the port reliefs, s. */
const RELIEF_RESPONSE = 2e-3
/** The ways through it, by the ports at their ends; beside an outlet edge lies the suction check of its port. */
const WAY = { inletA: 0, inletB: 1, outletA: 2, outletB: 3, neutral: 4 } as const
const [WAY_FROM, WAY_TO] = [Int32Array.of(P, P, A, B, N), Int32Array.of(A, B, T, T, M)]
const boxes: readonly Box[] = [['P>A', 'B>T'], ['N>M'], ['P>B', 'A>T']]

/**
 * One section of a lever bank. Its spool metres P→A and B→T, or P→B and A→T, by φ(y) (metering.ts) beyond its
 * dead band; the neutral gallery N→M, open in neutral, closes with φ_N = (1 − |y|/y_N) as the spool leaves it, so that with an open
 * centre the pump pressure rises. Ahead of P a load check; at A and B port reliefs to T and suction checks from T. Between the lands
 * leakage G·Δp scaled with ν_ref/ν.
 */
export const valveSection = defineKind({
  name: 'valve-section',
  label: 'Valve section, six ports',
  family: 'directional',
  searchTerms: ['section', 'sectional', 'bank', 'mobile valve', 'lever valve', '6/3', 'spool section'],
  designationLetter: 'V',
  description:
    'A lever section of a bank: meters to A or B, with a neutral gallery from N to M, a load check, port reliefs and suction checks.',
  guide: {
    acts: 'Its lever closes the neutral gallery while it opens P to A or B; the load check keeps a load from falling back as it opens.',
    fails: 'A worn spool lets loads sink; a port relief that leaks robs one section only.',
    mistakes:
      'The plug of the outlet not as the pump needs: open centre with a closed-centre plug overheats, the other way nothing builds up.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'parallel gallery' },
    { name: 'N', domain: 'oil', role: 'neutral gallery, in' },
    { name: 'M', domain: 'oil', role: 'neutral gallery, on to the next section' },
    { name: 'T', domain: 'oil', role: 'tank gallery' },
    { name: 'A', domain: 'oil', role: 'working line A' },
    { name: 'B', domain: 'oil', role: 'working line B' },
  ],
  parameters: {
    ratedFlow: quantity('Rated flow, each edge', 'flow', '60 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '7 bar', 1e4, 100e5),
    neutralDrop: quantity('Pressure drop of the neutral passage', 'pressure', '2 bar', 1e4, 50e5, {
      note: 'at the rated flow, spool in neutral',
    }),
    neutralClosed: quantity('Neutral passage closed at', 'share', '70 %', 0.1, 1, { note: 'of the lever' }),
    ...meteringParameters('15 %', 'of the lever'),
    shiftTime: quantity('Time for full stroke', 'time', '100 ms', 1e-3, 5),
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0.03 L/min', 0, 1e-3, {
      note: 'from A and from B to the tank gallery',
    }),
    reliefA: quantity('Port relief at A', 'pressure', '200 bar', 2e5, 700e5, {
      group: 'Ports',
      note: 'at its rated flow',
    }),
    reliefB: quantity('Port relief at B', 'pressure', '200 bar', 2e5, 700e5, { group: 'Ports' }),
    portReliefs: { type: 'switch', label: 'Port relief valves', default: true, group: 'Ports' },
    suction: { type: 'switch', label: 'Suction check valves', default: true, group: 'Ports' },
    ...checkParameters('Checks'),
  },
  idleParameters: idleMetering,
  inputs: inputSpecs(INPUT, {
    command: { label: 'lever', quantity: 'share', rest: 0, min: -1, max: 1, momentary: true },
  }),
  faults: [
    stuck(STATE.spool, 'spool sticks'),
    lost(INPUT.command, 'lever disconnected'),
    leak(A, T, 'leaks from A to T'),
    leakOut(T, 'spool end leaks outwards'),
  ],
  traits: {
    sizingTargets: { valveFlow: 'ratedFlow' },
    spoolLeakage: 'leakage',
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    restrictions: spoolEdges,
    connectedAtRest: () => [['N', 'M']],
    paths: [
      { from: 'N', to: 'M', type: 'switched' },
      { from: 'P', to: 'A', type: 'switched', oneWayWhenOpen: true },
      { from: 'P', to: 'B', type: 'switched', oneWayWhenOpen: true },
      { from: 'A', to: 'T', type: 'switched' },
      { from: 'B', to: 'T', type: 'switched' },
      { from: 'A', to: 'T', type: 'relief', enabledBy: 'portReliefs' },
      { from: 'B', to: 'T', type: 'relief', enabledBy: 'portReliefs' },
      { from: 'T', to: 'A', type: 'oneWay', enabledBy: 'suction' },
      { from: 'T', to: 'B', type: 'oneWay', enabledBy: 'suction' },
    ],
  },
  safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  forms: true,
  symbol(v, form) {
    const half = (SECTION_BOX * 3) / 2
    const detailed = form === 'detailed'
    const places = { P: [-2, 2], N: [0, 2], T: [2, 2], A: [-2, -2], M: [0, -2], B: [2, -2] } as const
    /** How far the lines go: in full there is room for what guards the working lines. */
    const end = detailed ? 6 : 4
    /** What guards one working line, beside the row: its port relief and its suction check, to the tank gallery below. */
    const guard = (side: -1 | 1): Shape[] => {
      const [relief, check] = [side * 15, side * 19.5]
      if (!v.portReliefs && !v.suction) return []
      return [
        dot(side * 2, -4.8),
        line([side * 2, -4.8], [v.suction ? check : relief, -4.8]),
        line([2, 4.8], [v.suction ? check : relief, 4.8]),
        dot(2, 4.8),
        ...(v.portReliefs
          ? [
              ...reliefInLine(relief, -4.8, 4.8, side),
              ...(v.suction ? [dot(relief, -4.8), dot(relief, 4.8)] : []),
            ]
          : []),
        ...(v.suction ? checkInLine([check, 4.8], [check, -4.8], { spring: v.crackingPressure > 0 }) : []),
      ]
    }
    return {
      shapes: [
        ...(detailed ? [enclosureLine(-21, -5.5, 42, 11), ...guard(-1), ...guard(1)] : []),
        ...partOf('spool', [
          ...drawBoxes(boxes, places, SECTION_BOX),
          ...lever(-half, 1),
          spring(-half - 2.2, 1, 2.2, 1.1),
          spring(half, 1, 2.2, 1.1),
          // any position between
          line([-half, -2.4], [half, -2.4]),
          line([-half, 2.4], [half, 2.4]),
        ]),
        ...[-2, 0, 2].map((x) => line([x, -2], [x, -end])),
        ...[0, 2].map((x) => line([x, 2], [x, end])),
        // the load check in the parallel gallery
        line([-2, 2], [-2, 2.5]),
        ...(detailed ? [line([-2, 4.4], [-2, end])] : []),
        ...checkInLine([-2, detailed ? 4.4 : end], [-2, 2.5], { size: detailed ? 0.8 : 0.5 }),
      ],
      ports: {
        P: { x: -2, y: end, side: 'down' },
        N: { x: 0, y: end, side: 'down' },
        T: { x: 2, y: end, side: 'down' },
        A: { x: -2, y: -end, side: 'up' },
        M: { x: 0, y: -end, side: 'up' },
        B: { x: 2, y: -end, side: 'up' },
      },
      box: detailed
        ? { x: -21, y: -5.5, w: 42, h: 11 }
        : { x: -half - 3, y: -3.2, w: half * 2 + 5.2, h: 6.4 },
      captionAt: { x: -2.6, y: -end - 2, anchor: 'end' },
      parts: { spool: { signal: 'spool', zero: 0, travel: SECTION_BOX, full: 1 } },
    }
  },
  caption: (v, show) => [show(v.ratedFlow, 'flow')],
  model(v, fluid) {
    const moveCheck = checkValveMotion(v)
    const { inlet: notch, outlet } = meteringEdges(v)
    const edge = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const neutral = pathCoefficient(v.ratedFlow, v.neutralDrop)
    const free = pathCoefficient(v.checkFlow, v.checkDrop)
    /** Coefficients of the edges where the spool last stood: they are found again where it has moved. */
    const edges = new Float64Array(WAY_FROM.length)
    const edgesAt = Float64Array.of(Number.NaN)
    const coefficients = new Float64Array(WAY_FROM.length)
    const settings = Float64Array.of(v.reliefA, v.reliefB)
    const relief = portRelief({ ratedFlow: v.ratedFlow, override: 0.15, timeConstant: RELIEF_RESPONSE })
    /** Flow from a working port to T through its port relief, less what its suction check lets in. */
    const guarded = (l: Local, drop: number, reliefState: number, suctionState: number) =>
      (v.portReliefs ? relief.flow(l.x[reliefState], drop) : 0) +
      (v.suction ? l.x[suctionState] * free * smoothSquareRoot(drop) : 0)
    const openEdges = (x: Float64Array) => {
      const y = x[STATE.spool]
      const left = 1 - Math.abs(y) / v.neutralClosed
      edges[WAY.inletA] = y > 0 ? edge * notch(y) : 0
      edges[WAY.inletB] = y > 0 ? 0 : edge * notch(y)
      edges[WAY.outletA] = y > 0 ? 0 : edge * outlet(y)
      edges[WAY.outletB] = y > 0 ? edge * outlet(y) : 0
      edges[WAY.neutral] = left > 0 ? left * neutral : 0
      edgesAt[0] = y
    }
    return {
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'share', initial: 0, scale: 1 },
        check: { label: 'load check', quantity: 'share', initial: 0, scale: 1 },
        reliefA: { label: 'port relief A', quantity: 'share', initial: 0, scale: 1 },
        reliefB: { label: 'port relief B', quantity: 'share', initial: 0, scale: 1 },
        suctionA: { label: 'suction check A', quantity: 'share', initial: 0, scale: 1 },
        suctionB: { label: 'suction check B', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        working: { label: 'flow to the actuator', quantity: 'flow' },
        neutralFlow: { label: 'flow through the neutral passage', quantity: 'flow' },
        relieved: { label: 'flow of the port reliefs', quantity: 'flow' },
      }),
      conditions: conditionSpecs(CONDITION, {
        relieving: { label: 'port relief valve open', severity: 'warning', worst: 'relieved' },
      }),
      evaluate(l) {
        const { p, q, x, dx } = l
        const y = x[STATE.spool]
        dx[STATE.spool] = spoolRate(y, l.u[INPUT.command], v.shiftTime)
        if (y !== edgesAt[0]) openEdges(x)
        const inlet = y > 0 ? WAY.inletA : WAY.inletB
        // in neutral nothing is behind the check: it must not see now the one port, now the other
        moveCheck(l, STATE.check, P, edges[inlet] > 0 ? WAY_TO[inlet] : P)
        for (let i = 0; i < edges.length; i++) coefficients[i] = edges[i]
        coefficients[inlet] *= x[STATE.check]
        // what it does not have stays shut
        if (v.suction) {
          moveCheck(l, STATE.suctionA, T, A)
          moveCheck(l, STATE.suctionB, T, B)
          coefficients[WAY.outletA] += x[STATE.suctionA] * free
          coefficients[WAY.outletB] += x[STATE.suctionB] * free
        } else {
          dx[STATE.suctionA] = -x[STATE.suctionA] / v.checkResponse
          dx[STATE.suctionB] = -x[STATE.suctionB] / v.checkResponse
        }
        for (let i = 0; i < q.length; i++) q[i] = 0
        addPathFlows(coefficients, WAY_FROM, WAY_TO, p, q)
        if (v.portReliefs) {
          relief.add(l, STATE.reliefA, A, T, settings, 0)
          relief.add(l, STATE.reliefB, B, T, settings, 1)
        } else {
          dx[STATE.reliefA] = -x[STATE.reliefA] / RELIEF_RESPONSE
          dx[STATE.reliefB] = -x[STATE.reliefB] / RELIEF_RESPONSE
        }
        const leak = (v.leakage / 100e5) * fluid.leakageFactor
        const a = leak * (p[A] - p[T])
        const b = leak * (p[B] - p[T])
        q[A] += a
        q[B] += b
        q[T] -= a + b
      },
      observe(l) {
        l.o[OUTPUT.working] = l.q[P]
        l.o[OUTPUT.neutralFlow] = l.q[N]
        l.o[OUTPUT.relieved] = v.portReliefs
          ? Math.max(
              relief.flow(l.x[STATE.reliefA], l.p[A] - l.p[T]),
              relief.flow(l.x[STATE.reliefB], l.p[B] - l.p[T]),
            )
          : 0
        l.c[CONDITION.relieving] = l.o[OUTPUT.relieved] - 1e-3 * v.ratedFlow
        let heat = 0
        for (let i = 0; i < 6; i++) heat += l.p[i] * l.q[i]
        l.power[Power.heat] = heat
      },
      ways(l) {
        const y = l.x[STATE.spool]
        const [one, other] = y > 0 ? [A, B] : [B, A]
        const out = edge * outlet(y) * smoothSquareRoot(l.p[other] - l.p[T])
        const leak = (v.leakage / 100e5) * fluid.leakageFactor
        const ways: Way[] = [
          { from: P, to: one, flow: l.q[P], element: 'edge' },
          { from: other, to: T, flow: out, element: 'edge' },
          { from: N, to: M, flow: l.q[N], element: 'edge' },
        ]
        for (const [port, reliefState, suctionState] of [
          [A, STATE.reliefA, STATE.suctionA],
          [B, STATE.reliefB, STATE.suctionB],
        ]) {
          const drop = l.p[port] - l.p[T]
          const past = guarded(l, drop, reliefState, suctionState)
          ways.push({ from: port, to: T, flow: past, element: past < 0 ? 'check' : 'spring' })
          ways.push({ from: port, to: T, flow: leak * drop, element: 'leak' })
        }
        return ways.filter(({ flow }) => flow !== 0)
      },
      balances: (l) =>
        v.portReliefs
          ? (
              [
                [A, v.reliefA, 'A'],
                [B, v.reliefB, 'B'],
              ] as const
            ).map(([port, setting, name]) =>
              relief.balance(
                `opens its port relief at ${name}`,
                { port: name, pressure: l.p[port] },
                { port: 'T', pressure: l.p[T] },
                setting,
              ),
            )
          : [],
      holds: (l) =>
        v.portReliefs
          ? [
              [A, STATE.reliefA, v.reliefA],
              [B, STATE.reliefB, v.reliefB],
            ].map(([port, state, setting]) =>
              heldAtSetting(
                l.p,
                port,
                setting,
                [{ port: T, factor: 1, label: 'behind it' }],
                relief.flow(l.x[state], l.p[port] - l.p[T]) > 1e-3 * v.ratedFlow,
              ),
            )
          : [],
    }
  },
  describeState(l, v, show) {
    const y = l.x[STATE.spool]
    const neutral = `${show(Math.abs(l.o[OUTPUT.neutralFlow]), 'flow')} go on through the neutral gallery`
    if (Math.abs(y) <= v.deadBand) return `In neutral: ${neutral}.`
    return `Lever at ${Math.round(Math.abs(y) * 100)} %: ${show(l.q[P], 'flow')} to ${y > 0 ? 'A' : 'B'}, ${neutral}.`
  },
})
