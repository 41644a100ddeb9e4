import { defineKind, Power, quantity } from '../kind'
import { pathCoefficient, rootDrop, spoolRate } from '../laws'
import { partOf, spring } from '../symbol'
import { BOX, drawBoxes, pathOpening, solenoid, spoolPaths, type Box } from './spool'

const PORTS = ['P', 'T', 'A', 'B'] as const
const [P, T, A, B] = [0, 1, 2, 3]

/** The usual centres, by what they join. */
const centres = {
  closed: { label: 'closed: all ports blocked', box: [] },
  open: { label: 'open: all ports joined', box: ['P-A-B-T'] },
  tandem: { label: 'tandem: P to T, A and B blocked', box: ['P-T'] },
  float: { label: 'float: A and B to T, P blocked', box: ['A-B-T'] },
  regenerative: { label: 'regenerative: P, A and B joined', box: ['P-A-B'] },
} as const satisfies Record<string, { label: string; box: Box }>
type Centre = keyof typeof centres

/** Boxes in the order of the spool position: −1 (solenoid b), 0, +1 (solenoid a). */
const rowFor = (centre: Centre): Box[] => [['P>B', 'A>T'], centres[centre].box, ['P>A', 'B>T']]

/**
 * Each path passes φ·path(Δp; q_r, Δp_r), φ from the spool position; the spool moves at
 * constant speed, one box in the shift time. Leakage G·Δp between neighbouring lands
 * (P–A, P–B, A–T, B–T), from a catalogue flow at 100 bar, scaled with ν_ref/ν.
 */
export const directionalValve43 = defineKind({
  name: 'directional-valve-4-3',
  label: 'Directional valve 4/3, solenoid, spring-centred',
  family: 'directional',
  words: ['4/3', 'directional', 'four way', 'three position', 'dcv', 'solenoid valve'],
  letter: 'V',
  description:
    'Four ports, three positions. Solenoid a joins P to A and B to T, solenoid b P to B and A to T; springs return it to the centre.',
  ports: [
    { name: 'P', domain: 'oil', role: 'pressure line' },
    { name: 'T', domain: 'oil', role: 'tank line' },
    { name: 'A', domain: 'oil', role: 'working line A' },
    { name: 'B', domain: 'oil', role: 'working line B' },
  ],
  parameters: {
    centre: {
      type: 'choice',
      label: 'Centre position',
      default: 'closed',
      choices: Object.fromEntries(Object.entries(centres).map(([name, c]) => [name, c.label])) as Record<
        Centre,
        string
      >,
    },
    ratedFlow: quantity('Rated flow, each path', 'flow', '20 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '10 bar', 1e4, 100e5),
    shiftTime: quantity('Shift time, one box', 'time', '30 ms', 1e-3, 5, {
      note: '30 ms for a solenoid',
    }),
    crossover: {
      type: 'choice',
      label: 'Crossover',
      default: 'closed',
      choices: { closed: 'closed while shifting', open: 'open while shifting' },
    },
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0 L/min', 0, 1e-3, {
      note: 'between neighbouring lands; 0.02 to 0.1 L/min is usual for this size',
    }),
    maxPressure: quantity('Highest pressure allowed', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at P, A or B',
    }),
  },
  inputs: [
    {
      name: 'command',
      label: 'command',
      quantity: 'ratio',
      rest: 0,
      min: -1,
      max: 1,
      positions: [
        { value: 1, label: 'solenoid a' },
        { value: 0, label: 'centre' },
        { value: -1, label: 'solenoid b' },
      ],
    },
  ],
  traits: {
    paths: [
      { from: 'P', to: 'A', how: 'switched' },
      { from: 'P', to: 'B', how: 'switched' },
      { from: 'A', to: 'T', how: 'switched' },
      { from: 'B', to: 'T', how: 'switched' },
    ],
  },
  care: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
  symbol(values) {
    // drawn left to right: solenoid a's box, centre, solenoid b's box
    const row = [...rowFor(values.centre)].reverse()
    const half = (BOX * 3) / 2
    return {
      shapes: partOf('spool', [
        ...drawBoxes(row, { A: [-1, -2], B: [1, -2], P: [-1, 2], T: [1, 2] }),
        ...solenoid(-half, 1),
        ...solenoid(half, -1),
        spring(-half - 2.2, 1, 2.2, 1.1),
        spring(half, 1, 2.2, 1.1),
      ]),
      ports: {
        A: { x: -1, y: -2, side: 'up' },
        B: { x: 1, y: -2, side: 'up' },
        P: { x: -1, y: 2, side: 'down' },
        T: { x: 1, y: 2, side: 'down' },
      },
      box: { x: -half - 2, y: -2, w: half * 2 + 4, h: 4 },
      captionAt: { x: -half - 2, y: -2.5, anchor: 'start' },
      parts: { spool: { signal: 'spool', zero: 0, travel: BOX, full: 1 } },
    }
  },
  model(values, fluid) {
    const paths = spoolPaths(rowFor(values.centre), PORTS)
    const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
    const leak = (values.leakage / 100e5) * fluid.leakageFactor
    const openCrossover = values.crossover === 'open'
    return {
      states: [{ name: 'spool', label: 'spool position', quantity: 'ratio', initial: 0, scale: 1 }],
      conditions: [{ name: 'overPressure', label: 'above its highest pressure', severity: 'danger' }],
      evaluate(l) {
        const y = l.x[0]
        const { p, q } = l
        l.dx[0] = spoolRate(y, l.u[0], values.shiftTime)
        q[P] = leak * (2 * p[P] - p[A] - p[B])
        q[T] = leak * (2 * p[T] - p[A] - p[B])
        q[A] = leak * (2 * p[A] - p[P] - p[T])
        q[B] = leak * (2 * p[B] - p[P] - p[T])
        for (let i = 0; i < paths.length; i++) {
          const path = paths[i]
          const opening = pathOpening(path, y + 1, openCrossover)
          if (opening === 0) continue
          const flow = opening * coefficient * rootDrop(p[path.from] - p[path.to])
          q[path.from] += flow
          q[path.to] -= flow
        }
      },
      observe(l) {
        l.c[0] = Math.max(l.p[P], l.p[A], l.p[B]) - values.maxPressure
        l.power[Power.heat] = l.p[P] * l.q[P] + l.p[T] * l.q[T] + l.p[A] * l.q[A] + l.p[B] * l.q[B]
      },
    }
  },
  say(l, values, show) {
    const y = l.x[0]
    const flow = show(Math.abs(l.q[P]), 'flow')
    if (y > 0.5)
      return `In the box of solenoid a: P to A passes ${flow}, B returns ${show(Math.abs(l.q[T]), 'flow')}.`
    if (y < -0.5)
      return `In the box of solenoid b: P to B passes ${flow}, A returns ${show(Math.abs(l.q[T]), 'flow')}.`
    return `In the centre (${centres[values.centre].label}).`
  },
})
