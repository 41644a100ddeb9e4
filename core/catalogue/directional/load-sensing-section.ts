import { fourPorts, SHUT_IN_MIDDLE, spoolSection } from '../section-elements'
import { pressureBalance, type Balance, type Way } from '../answers'
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
import {
  circleArea,
  compensatedEdge,
  pathCoefficient,
  smoothRamp,
  smoothSquareRoot,
  SHORT_FLOW,
  spoolRate,
} from '../flow-laws'
import { arrow, circle, dashed, line, partOf, rectangle, type Shape } from '../symbol'
import {
  adjustable,
  checkInLine,
  dot,
  enclosureLine,
  restriction,
  solenoid,
  spring,
  springBetween,
} from '../symbol-elements'
import { SECTION_BOX, drawBoxes, spoolEdges, type Box } from './spool'

const STATE = indices('spool')
const OUTPUT = indices('working', 'load')
const CONDITION = indices('short')
const INPUT = indices('command')

const [P, T, X, A, B] = [0, 1, 2, 3, 4]
const boxes: readonly Box[] = [['P>A', 'B>T'], [], ['P>B', 'A>T']]
/** The higher of the two working lines, as the load signal. */
const shuttleShapes: readonly Shape[] = [
  rectangle(-0.75, -3.4, 1.5, 1),
  line([-0.75, -3.3], [-0.45, -2.9], [-0.75, -2.5]),
  line([0.75, -3.3], [0.45, -2.9], [0.75, -2.5]),
  circle(-0.15, -2.9, 0.32),
]
const ventedBoxes: readonly Box[] = [['P>A', 'B>T'], ['A-B-T'], ['P>B', 'A>T']]
/** The check into the load signal line opens over this, Pa. */
const SIGNAL_RANGE = 0.5e5
/** Share by which the drop must exceed the spring of a compensator that keeps the flow. */
const KEEPING = 0.1
/** Behind the edge oil only goes on to its own load where the pump line is above it by this much, Pa. */
const FORWARD_RANGE = 1e5

/**
 * A metering section with its pressure compensator. The spool opens its edges by φ(y) (metering.ts).
 * Pre-compensated: its own spring m stands across the edge while the pump can supply it, Q = φ·q·path(min(p_P − p_load, m))/path(m).
 * Post-compensated (flow sharing): p_P − (p_X + p_spring) stands across every edge, Q = φ·c·√(p_P − p_X − p_spring), so that all sections
 * slow in one ratio when the pump runs out. Not compensated: Q = φ·path(p_P − p_load). No oil goes back to P.
 * In neutral A and B are shut, or open to T by (1 − |y|/y_0)·path at a quarter of the flow. The load is that of the port it feeds; a check passes it to the signal line X, which bleeds to T. The compensator is taken as quick
 * against the pump.
 */
export const loadSensingSection = defineKind({
  name: 'load-sensing-section',
  label: 'Metering section, load-sensing',
  family: 'directional',
  searchTerms: [
    'load sensing',
    'metering section',
    'pre-compensated',
    'post-compensated',
    'flow sharing',
    'proportional',
  ],
  designationLetter: 'V',
  description:
    'A proportional section that keeps the speed of its lever whatever its load, and reports its load to the pump at X.',
  guide: {
    acts: 'Its lever opens an edge whose drop a compensator keeps: the lever sets a flow, not an opening. It reports its load at X.',
    fails:
      'Where all sections ask for more than the pump gives, the one with the highest load slows first, unless they share.',
    mistakes:
      'The signal line not vented in neutral; the margin of the pump too small for the lines between; a load-sensing pump on an open-centre bank.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'pump gallery' },
    { name: 'T', domain: 'oil', role: 'tank gallery' },
    { name: 'X', domain: 'oil', role: 'load signal, of all sections' },
    { name: 'A', domain: 'oil', role: 'working line A' },
    { name: 'B', domain: 'oil', role: 'working line B' },
  ],
  parameters: {
    compensation: {
      type: 'choice',
      label: 'Compensation',
      default: 'pre',
      choices: {
        pre: 'before the edge: own pressure drop',
        post: 'behind the edge: flow sharing',
        none: 'none',
      },
    },
    flow: quantity('Flow at full command', 'flow', '30 L/min', 1e-6, 0.2, { note: 'compensated' }),
    margin: quantity('Compensator spring', 'pressure', '7 bar', 1e5, 50e5, {
      note: 'before the edge: the drop it keeps; behind the edge: lost from the margin of the pump',
    }),
    pumpMargin: quantity('Pump margin', 'pressure', '20 bar', 1e5, 100e5, {
      note: 'for which the full flow holds, where it shares the flow',
    }),
    returnDrop: quantity('Pressure drop of the return edge', 'pressure', '5 bar', 1e4, 100e5, {
      note: 'at full lever and flow',
    }),
    neutral: {
      type: 'choice',
      label: 'In neutral',
      default: 'closed',
      choices: { closed: 'A and B shut', vented: 'A and B open to T' },
      note: 'a counterbalance or a piloted check beyond it shuts only where its line is vented',
    },
    ...meteringParameters('10 %'),
    shiftTime: quantity('Time for full stroke', 'time', '80 ms', 1e-3, 5),
    signalFeed: quantity('Signal, feed orifice', 'length', '1.2 mm', 1e-4, 5e-3),
    signalBleed: quantity('Signal, bleed orifice', 'length', '0.2 mm', 1e-5, 5e-3, {
      note: 'to the tank gallery',
    }),
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0.02 L/min', 0, 1e-3, {
      note: 'from A and from B to the tank gallery',
    }),
  },
  idleParameters: idleMetering,
  inputs: inputSpecs(INPUT, {
    command: { label: 'lever', quantity: 'share', rest: 0, min: -1, max: 1, momentary: true },
  }),
  faults: [
    stuck(STATE.spool, 'spool sticks'),
    lost(INPUT.command),
    leak(A, T, 'leaks from A to T'),
    leakOut(T, 'spool end leaks outwards'),
  ],
  traits: {
    spoolLeakage: 'leakage',
    connectedAtRest: (values) =>
      values.neutral === 'vented'
        ? [
            ['A', 'T'],
            ['B', 'T'],
          ]
        : [],
    restrictions: spoolEdges,
    paths: [
      { from: 'P', to: 'A', type: 'switched', oneWayWhenOpen: true },
      { from: 'P', to: 'B', type: 'switched', oneWayWhenOpen: true },
      { from: 'A', to: 'T', type: 'switched' },
      { from: 'B', to: 'T', type: 'switched' },
      { from: 'X', to: 'T', type: 'open' },
    ],
  },
  safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  forms: true,
  symbol(v, form) {
    const half = (SECTION_BOX * 3) / 2
    const detailed = form === 'detailed'
    const places = { P: [-2, 2], T: [2, 2], A: [-2, -2], B: [2, -2] } as const
    /** How far the lines go: in full there is room for the compensators and for the way of the load signal. */
    const end = detailed ? 8 : 4
    const size = detailed ? 2.5 : 1.2
    const middle = (y: number) => y * (2 + (end - 2) / 2)
    /** A compensator in the line at x, above (−1) or below (1) the row; held open by its spring, pushed shut from the other end. */
    const compensator = (x: number, at: -1 | 1, spring: -1 | 1): Shape[] => {
      const y = middle(at)
      const [from, to] = [y + size / 2, y - size / 2]
      const out = x - spring * (size / 2)
      return [
        rectangle(x - size / 2, y - size / 2, size, size),
        ...arrow([x, from], [x, to]),
        springBetween([x + spring * (size / 2), y], [x + spring * (size / 2 + size * 0.9), y], size * 0.35),
        // its pilot from between it and the edge
        dashed(
          [x, at > 0 ? to - 0.15 : from + 0.15],
          [out - spring * 0.4, at > 0 ? to - 0.15 : from + 0.15],
          [out - spring * 0.4, y],
          [out, y],
        ),
      ]
    }
    return {
      shapes: [
        ...(detailed ? [enclosureLine(-13.5, -7.2, 27, 14.4)] : []),
        ...partOf('spool', [
          ...drawBoxes(v.neutral === 'vented' ? ventedBoxes : boxes, places, SECTION_BOX),
          ...solenoid(-half, 1),
          ...adjustable(-half - 1.5, -1, 1.4),
          ...solenoid(half, -1),
          ...adjustable(half + 1.5, -1, 1.4),
          spring(-half - 2.2, 1, 2.2, 1.1),
          spring(half, 1, 2.2, 1.1),
          line([-half, -2.4], [half, -2.4]),
          line([-half, 2.4], [half, 2.4]),
        ]),
        ...[-2, 2].flatMap((x) => [line([x, -2], [x, -end]), line([x, 2], [x, end])]),
        // the load signal: a shuttle between the working lines, a check to the line of all sections, and a bleed
        ...(detailed
          ? [
              dashed([-2, -2.9], [-0.75, -2.9]),
              dashed([2, -2.9], [0.75, -2.9]),
              dot(-2, -2.9),
              dot(2, -2.9),
              ...shuttleShapes,
              dashed([0, -3.4], [0, -6.4], [12.4, -6.4], [12.4, 6.6], [7, 6.6]),
              ...checkInLine([7, 6.6], [4, 6.6], { size: 0.6 }),
              dashed([4, 6.6], [0, 6.6], [0, end]),
              dashed([0, 6.6], [0, 5], [2, 5]),
              dot(0, 6.6),
              dot(2, 5),
              ...restriction(1, 5, 'sharp', 'horizontal', 0.55),
            ]
          : [dashed([0, 2.4], [0, end])]),
        ...(v.compensation === 'pre'
          ? compensator(-2, 1, -1)
          : v.compensation === 'post'
            ? [...compensator(-2, -1, -1), ...compensator(2, -1, 1)]
            : []),
      ],
      ports: {
        P: { x: -2, y: end, side: 'down' },
        X: { x: 0, y: end, side: 'down' },
        T: { x: 2, y: end, side: 'down' },
        A: { x: -2, y: -end, side: 'up' },
        B: { x: 2, y: -end, side: 'up' },
      },
      box: detailed
        ? { x: -13.5, y: -7.2, w: 27, h: 14.4 }
        : { x: -half - 3, y: -3.6, w: half * 2 + 6, h: 7.2 },
      captionAt: { x: -2.6, y: -end - 2.4, anchor: 'end' },
      coils: { a: { x: -half - 1.5, y: -3.2 }, b: { x: half + 1.5, y: -3.2 } },
      parts: { spool: { signal: 'spool', zero: 0, travel: SECTION_BOX, full: 1 } },
    }
  },
  caption: (v, show) => [
    show(v.flow, 'flow'),
    v.compensation === 'pre'
      ? 'pre-compensated'
      : v.compensation === 'post'
        ? 'flow sharing'
        : 'not compensated',
  ],
  section(v) {
    const spool = {
      pressure: fourPorts(P, T, A, B),
      position: (l: Local) => l.x[STATE.spool],
      open: SHUT_IN_MIDDLE,
      notches: true,
    } as const
    if (v.compensation === 'none') return spoolSection(spool)
    if (v.compensation === 'post') {
      const fed = (l: Local) => (l.x[STATE.spool] > 0 ? A : B)
      const load = (l: Local) => l.p[fed(l)]
      const metering = (l: Local) => Math.abs(l.x[STATE.spool]) > v.deadBand
      const kept = (l: Local) => l.p[X] + v.margin
      // where the pump cannot reach what it holds there, no oil passes the edge
      const passes = (l: Local) => metering(l) && l.p[P] > kept(l) && l.p[P] > load(l)
      return spoolSection({
        ...spool,
        sharing: {
          afterEdge: (l) => (metering(l) ? Math.min(l.p[P], Math.max(kept(l), load(l))) : l.p[T]),
          overSpring: (l) => l.p[X],
          load: { name: (l) => (fed(l) === A ? 'A' : 'B'), pressure: load },
          opening: (l) => (passes(l) ? v.margin / Math.max(kept(l) - load(l), v.margin) : 0),
        },
        note: 'Its compensator is drawn as far open as the share of its spring in the drop that it takes.',
      })
    }
    // in neutral nothing but the tank stands over its spring
    const overSpring = (l: Local) =>
      Math.abs(l.x[STATE.spool]) > v.deadBand ? l.p[l.x[STATE.spool] > 0 ? A : B] : l.p[T]
    const beforeEdge = (l: Local) => Math.min(l.p[P], overSpring(l) + v.margin)
    return spoolSection({
      ...spool,
      pressure: { ...spool.pressure, P: beforeEdge },
      compensator: {
        inlet: (l) => l.p[P],
        overSpring,
        opening: (l) => (beforeEdge(l) < l.p[P] ? v.margin / (l.p[P] - overSpring(l)) : 1),
      },
      note: 'Its compensator is drawn as far open as the share of the drop that it leaves to the edge.',
    })
  },
  model(v, fluid) {
    const { inlet: notch, outlet } = meteringEdges(v)
    const post = v.compensation === 'post'
    const kept = post ? Math.max(v.pumpMargin - v.margin, 0.5e5) : v.margin
    const edge = pathCoefficient(v.flow, kept)
    const compensated = compensatedEdge(v.margin)
    /** Share of the flow asked for below which it falls short; the margin of a pump alone moves that of others. */
    const enough = v.compensation === 'pre' ? 1 - SHORT_FLOW : 0.9
    const back = pathCoefficient(v.flow, v.returnDrop)
    const [feed, bleed] = [circleArea(v.signalFeed), circleArea(v.signalBleed)]
    const metered = (l: Local, opening: number, load: number) => {
      const drop = l.p[P] - load
      if (drop <= 0) return 0
      if (post) {
        const across = l.p[P] - l.p[X] - v.margin
        return across > 0 ? opening * edge * smoothSquareRoot(across) * smoothRamp(drop / FORWARD_RANGE) : 0
      }
      if (v.compensation === 'none') return opening * edge * smoothSquareRoot(drop)
      return opening * v.flow * compensated(drop)
    }
    const vent = v.neutral === 'vented' ? back / 4 : 0
    return {
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'share', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        working: { label: 'flow to the actuator', quantity: 'flow' },
        load: { label: 'load pressure', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        short: {
          label: 'flow below its command',
          severity: 'info',
          begins: 'gets less flow than its lever asks for',
          ends: 'gets the flow that its lever asks for',
          worst: 'load',
        },
      }),
      evaluate(l) {
        const { p, q } = l
        const y = l.x[STATE.spool]
        l.dx[STATE.spool] = spoolRate(y, l.u[INPUT.command], v.shiftTime)
        const opening = notch(y)
        const one = y > 0 ? A : B
        const other = y > 0 ? B : A
        const into = opening > 0 ? metered(l, opening, p[one]) : 0
        const open = outlet(y)
        const out = open > 0 ? open * back * smoothSquareRoot(p[other] - p[T]) : 0
        // the load is reported while the spool is beyond its dead band
        const above = p[one] - p[X]
        const signalled =
          smoothRamp(opening / 0.02) *
          smoothRamp(above / SIGNAL_RANGE) *
          feed *
          fluid.orificeFactor *
          smoothSquareRoot(above)
        const bled = bleed * fluid.orificeFactor * smoothSquareRoot(p[X] - p[T])
        const g = (v.leakage / 100e5) * fluid.leakageFactor
        const size = y < 0 ? -y : y
        const vented = vent > 0 && size < v.deadBand ? vent * (1 - size / v.deadBand) : 0
        q[P] = into
        q[A] = g * (p[A] - p[T]) + (vented > 0 ? vented * smoothSquareRoot(p[A] - p[T]) : 0)
        q[B] = g * (p[B] - p[T]) + (vented > 0 ? vented * smoothSquareRoot(p[B] - p[T]) : 0)
        q[T] = -q[A] - q[B] - out - bled
        q[one] += signalled - into
        q[other] += out
        q[X] = bled - signalled
      },
      observe(l) {
        const y = l.x[STATE.spool]
        const opening = notch(y)
        l.o[OUTPUT.working] = l.q[P]
        l.o[OUTPUT.load] = y > 0 ? l.p[A] : l.p[B]
        l.c[CONDITION.short] = opening > 0.02 ? enough * opening * v.flow - l.q[P] : -1
        let heat = 0
        for (let i = 0; i < 5; i++) heat += l.p[i] * l.q[i]
        l.power[Power.heat] = heat
      },
      /** Its compensator, while the spool is open. */
      balances(l): Balance[] {
        const opening = notch(l.x[STATE.spool])
        if (opening === 0 || v.compensation === 'none') return []
        const pushing = { 'pressure at P': l.p[P] }
        const spring = { 'compensator spring': v.margin }
        return [
          post
            ? pressureBalance('passes oil on', pushing, { 'load signal at X': l.p[X], ...spring })
            : pressureBalance('keeps its flow', pushing, { load: l.o[OUTPUT.load], ...spring }),
        ]
      },
      ways(l): Way[] {
        const { p, q } = l
        const y = l.x[STATE.spool]
        const [one, other] = y > 0 ? [A, B] : [B, A]
        const leakage = (v.leakage / 100e5) * fluid.leakageFactor
        const bled = bleed * fluid.orificeFactor * smoothSquareRoot(p[X] - p[T])
        const signalled = bled - q[X]
        const toTank = (port: number): Way[] => [
          { from: port, to: T, flow: leakage * (p[port] - p[T]), element: 'leak' },
        ]
        const rest = (port: number, taken: number): Way => ({
          from: port,
          to: T,
          flow: q[port] - leakage * (p[port] - p[T]) - taken,
          element: 'edge',
        })
        const ways: Way[] = [
          {
            from: P,
            to: one,
            flow: q[P],
            element: 'edge',
            keepsFlow: post
              ? p[one] < p[X] - SIGNAL_RANGE
              : v.compensation === 'pre' && p[P] - p[one] > (1 + KEEPING) * v.margin,
          },
          rest(one, signalled - q[P]),
          rest(other, 0),
          { from: one, to: X, flow: signalled, element: 'check' },
          { from: X, to: T, flow: bled, element: 'restriction' },
          ...toTank(A),
          ...toTank(B),
        ]
        return ways.filter(({ flow }) => flow !== 0)
      },
    }
  },
  describeState(l, v, show) {
    const y = l.x[STATE.spool]
    if (Math.abs(y) <= v.deadBand)
      return `In neutral: ${v.neutral === 'vented' ? 'A and B open to T' : 'shut'}, and it reports no load.`
    return `Lever at ${Math.round(Math.abs(y) * 100)} %: ${show(l.q[P], 'flow')} to ${y > 0 ? 'A' : 'B'} against ${show(l.o[OUTPUT.load], 'pressure')}.`
  },
})
