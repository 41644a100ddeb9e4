import { leak, leakOut, lost, stuck } from '../faults'
import {
  defineKind,
  Power,
  quantity,
  conditionSpecs,
  eventSpecs,
  indices,
  inputSpecs,
  outputSpecs,
  stateSpecs,
  type ChoiceParameter,
} from '../kind'
import { addPathFlows, pathCoefficient, spoolRate } from '../flow-laws'
import { line, partOf, shifted } from '../symbol'
import { spring } from '../symbol-elements'
import { lever } from './actuation'
import { BOX, drawBoxes, pathOpening, spoolPaths, type Box } from './spool'

const STATE = indices('spool')
const OUTPUT = indices('highest')
const CONDITION = indices('overPressure')
const EVENT = indices('latch', 'release')
const INPUT = indices('command')

const names = ['P', 'T', 'A'] as const
const [P, T, A] = [0, 1, 2]
/** Boxes in the order of the spool position, from float to raise. */
const boxesOf = (neutral: 'open' | 'closed'): readonly Box[] => [
  ['P-A-T'],
  neutral === 'open' ? ['P-T', 'A~T'] : ['A~T'],
  neutral === 'open' ? ['P-T'] : [],
  ['P>A'],
]
/** Spool position of the first box. */
const FLOAT = -2
/** How near to the float position the latch takes hold. */
const LATCH = 0.1
/** Command from which a hand pulls the lever out of the latch. */
const PULL = 0.25

const places = { A: [0, -2], P: [-1, 2], T: [1, 2] } as const

/**
 * The valve of a single-acting lift, worked by a lever: raise, hold, lower through a throttle (snub), and float, in which a latch holds
 * the lever until it is pulled out. Each path passes φ·path(Δp; q_r, Δp_r), the throttled way a fixed share of it.
 */
export const liftValve = defineKind({
  name: 'lift-valve',
  label: 'Lever valve for a lift',
  family: 'directional',
  searchTerms: ['lift valve', 'lever valve', 'float', 'snub', 'raise', 'single acting', '3/4'],
  designationLetter: 'V',
  description:
    'Raise, hold, lower slowly through a throttle (snub), and float with a latch. It springs back to hold from all but float.',
  guide: {
    acts: 'The lever raises, lowers through a throttle, or latches in float; released, it holds.',
    fails: 'A latch that does not fall out leaves the load floating.',
    mistakes: 'Float used with somebody under the load; no mechanical lock where people work beneath.',
  },
  ports: [
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
    { name: 'A', domain: 'oil', role: 'working line of the lift' },
  ],
  parameters: {
    neutral: {
      type: 'choice',
      label: 'P while it holds',
      default: 'open',
      choices: { open: 'open: P to T', closed: 'closed: P blocked' },
    } satisfies ChoiceParameter,
    ratedFlow: quantity('Rated flow, each path', 'flow', '40 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '8 bar', 1e4, 100e5),
    shiftTime: quantity('Shift time, one position', 'time', '80 ms', 1e-3, 5, { note: 'of the hand' }),
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0 L/min', 0, 1e-3, { note: 'from A to T' }),
    maxPressure: quantity('Maximum pressure', 'pressure', '250 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at P or A',
    }),
  },
  inputs: inputSpecs(INPUT, {
    command: {
      momentary: true,
      label: 'lever',
      quantity: 'ratio',
      rest: 0,
      min: FLOAT,
      max: 1,
      positions: [
        { value: 1, label: 'raise', action: 'is put to raise' },
        { value: 0, label: 'released', action: 'is released' },
        { value: -1, label: 'lower through the throttle', action: 'is put to lower through its throttle' },
        { value: FLOAT, label: 'float', action: 'is put to float' },
      ],
    },
  }),
  faults: [
    stuck(STATE.spool, 'spool sticks'),
    lost(INPUT.command, 'lever disconnected'),
    leak(A, T, 'leaks from A to T'),
    leakOut(T, 'spool end leaks outwards'),
  ],
  traits: {
    spoolLeakage: 'leakage',
    ratedPressure: 'maxPressure',
    paths: [
      { from: 'P', to: 'A', type: 'switched' },
      { from: 'P', to: 'T', type: 'switched' },
      { from: 'A', to: 'T', type: 'switched' },
    ],
    restrictions: [{ from: 'A', to: 'T', element: 'spool' }],
    connectedAtRest: (v) => (v.neutral === 'open' ? [['P', 'T']] : []),
  },
  safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  symbol(values) {
    const row = [...boxesOf(values.neutral)].reverse()
    const half = (BOX * row.length) / 2
    // the box of hold is drawn at the lines: the second from the left
    const rest = half - 1.5 * BOX
    const notch = half + 2.2
    return {
      shapes: shifted(
        partOf('spool', [
          ...drawBoxes(row, places),
          ...lever(-half, 1),
          spring(half, 1, 2.2, 1.1),
          spring(-half - 2.2, 1, 2.2, 1.1),
          // the latch of float alone
          line([half, -1], [notch - 1.2, -1], [notch - 0.9, -0.5], [notch - 0.6, -1], [notch, -1]),
          line([notch - 0.9, -1.9], [notch - 0.9, -0.6]),
        ]),
        rest,
        0,
      ),
      ports: {
        P: { x: -1, y: 2, side: 'down' },
        T: { x: 1, y: 2, side: 'down' },
        A: { x: 0, y: -2, side: 'up' },
      },
      box: { x: Math.round(-half + rest - 3), y: -2, w: 2 * half + 6, h: 4 },
      captionAt: { x: Math.round(-half + rest - 3), y: -3, anchor: 'start' },
      parts: { spool: { signal: 'spool', zero: 0, travel: BOX, full: 1 } },
    }
  },
  caption: (v, show) => [show(v.ratedFlow, 'flow')],
  model(v, fluid) {
    const paths = spoolPaths(boxesOf(v.neutral), names)
    const from = Int32Array.from(paths, (path) => path.from)
    const to = Int32Array.from(paths, (path) => path.to)
    const openings = new Float64Array(paths.length)
    const coefficient = pathCoefficient(v.ratedFlow, v.ratedDrop)
    const leakage = v.leakage / 100e5
    return {
      modes: [0],
      states: stateSpecs(STATE, {
        spool: { label: 'spool position', quantity: 'ratio', initial: 0, scale: 1 },
      }),
      outputs: outputSpecs(OUTPUT, {
        highest: { label: 'highest port pressure', quantity: 'pressure' },
      }),
      conditions: conditionSpecs(CONDITION, {
        overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
      }),
      eventFunctions: eventSpecs(EVENT, {
        latch: { label: 'latched in float', report: 1 },
        release: { label: 'pulled out of float', report: 0 },
      }),
      evaluate(l) {
        const y = l.x[STATE.spool]
        const u = l.u[INPUT.command]
        const pulled = Math.max(u, Math.min(-u, u - FLOAT - 0.5)) - PULL
        l.g[EVENT.latch] = FLOAT + LATCH - y
        l.g[EVENT.release] = pulled
        const held = l.mode[0] && pulled <= 0
        l.dx[STATE.spool] = spoolRate(y, held ? FLOAT : u, v.shiftTime)
        const leaked = leakage * fluid.leakageFactor * (l.p[A] - l.p[T])
        l.q[P] = 0
        l.q[T] = -leaked
        l.q[A] = leaked
        for (let i = 0; i < paths.length; i++)
          openings[i] = coefficient * pathOpening(paths[i], y - FLOAT, true)
        addPathFlows(openings, from, to, l.p, l.q)
      },
      switch(l, index, direction) {
        if (index === EVENT.latch && direction > 0) l.mode[0] = 1
        if (index === EVENT.release && direction > 0) l.mode[0] = 0
      },
      observe(l) {
        l.o[OUTPUT.highest] = Math.max(l.p[P], l.p[A])
        l.c[CONDITION.overPressure] = l.o[OUTPUT.highest] - v.maxPressure
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[T] * l.q[T] + l.p[A] * l.q[A]
      },
    }
  },
  describeState(l, _v, show) {
    const y = Math.round(l.x[STATE.spool])
    const where =
      y > 0 ? 'Raising' : y === 0 ? 'Holding' : y === -1 ? 'Lowering through the throttle' : 'Floating'
    return `${where}: ${show(Math.abs(l.q[A]), 'flow')} ${l.q[A] < 0 ? 'to' : 'from'} the lift${l.mode[0] ? ', latched' : ''}.`
  },
})
