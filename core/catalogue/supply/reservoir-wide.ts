import { ATMOSPHERE } from '../../units/quantities'
import { yesNo } from '../faults'
import { defineKind, type Values } from '../kind'
import { lineEnd, OIL, reservoirItem, reservoirModel, reservoirParameters } from '../tank'
import { line } from '../symbol'

/** Lines that it can take. */
const MOST = 8
const each = Array.from({ length: MOST }, (_, i) => i)
const portName = (i: number) => `T${i + 1}`

const parameters = {
  lines: {
    type: 'choice',
    label: 'Lines',
    default: '3',
    choices: { 2: '2', 3: '3', 4: '4', 5: '5', 6: '6', 7: '7', 8: '8' },
  },
  spacing: {
    type: 'choice',
    label: 'Distance between lines',
    default: '4',
    choices: { 4: '4 modules', 6: '6 modules', 8: '8 modules', 12: '12 modules', 16: '16 modules' },
    group: 'Drawing',
  },
  depth: {
    type: 'choice',
    label: 'Depth',
    default: '4',
    choices: { 4: '4 modules', 8: '8 modules', 12: '12 modules' },
    note: 'room for what stands in the oil: heater, strainer, level and temperature instruments',
    group: 'Drawing',
  },
  ...reservoirParameters(),
  end1: { ...lineEnd('Line 1 ends'), group: 'Lines' },
  end2: { ...lineEnd('Line 2 ends'), group: 'Lines' },
  end3: { ...lineEnd('Line 3 ends'), group: 'Lines' },
  end4: { ...lineEnd('Line 4 ends'), group: 'Lines' },
  end5: { ...lineEnd('Line 5 ends'), group: 'Lines' },
  end6: { ...lineEnd('Line 6 ends'), group: 'Lines' },
  end7: { ...lineEnd('Line 7 ends'), group: 'Lines' },
  end8: { ...lineEnd('Line 8 ends'), group: 'Lines' },
} as const
type ReservoirValues = Values<typeof parameters>

/** Where its lines end, from left to right. */
const endsOf = (v: ReservoirValues) =>
  [v.end1, v.end2, v.end3, v.end4, v.end5, v.end6, v.end7, v.end8].slice(0, Number(v.lines))

/** A tank drawn once and wide: many lines lead to it, and what belongs to it stands in it and on it. */
export const reservoirWide = defineKind({
  name: 'reservoir-wide',
  label: 'Reservoir, several lines',
  family: 'supply',
  searchTerms: ['tank', 'wide tank', 'oil tank', 'reservoir', 'common tank'],
  designationLetter: 'Z',
  description:
    'The oil tank with the ends of several lines; breather, level and temperature instruments, heater and strainer stand on it and in it.',
  role: 'vessel',
  ports: each.map((i) => ({
    name: portName(i),
    domain: 'oil',
    role: `line ${i + 1} to the tank`,
    imposes: true,
    mayStayOpen: true,
  })),
  parameters,
  idleParameters: (v) => each.slice(Number(v.lines)).map((i) => `end${i + 1}` as keyof ReservoirValues),
  sharedItem: reservoirItem,
  traits: { tankPorts: each.map(portName) },
  faults: each.map((i) => ({
    name: `lost${i + 1}`,
    label: `line ${i + 1} torn off: air ingestion`,
    form: 'lost' as const,
    ...yesNo,
    afterImpose(l, amount) {
      if (amount > 0.5) l.p[i] = -ATMOSPHERE
    },
  })),
  idleFaults: (v) => each.slice(Number(v.lines)).map((i) => `lost${i + 1}`),
  symbol(values) {
    const ends = endsOf(values)
    const spacing = Number(values.spacing)
    const depth = Number(values.depth)
    const [left, right] = [-2, (ends.length - 1) * spacing + 2]
    return {
      shapes: [
        line([left, -1], [left, depth - 1], [right, depth - 1], [right, -1]),
        ...ends.map((end, i) =>
          line([i * spacing, -2], [i * spacing, end === 'below' ? Math.min(depth - 1.5, 3.5) : -1]),
        ),
        ...(values.pressure > 0 ? [line([left, -1], [right, -1])] : []),
      ],
      ports: Object.fromEntries(ends.map((_, i) => [portName(i), { x: i * spacing, y: -2, side: 'up' }])),
      box: { x: left, y: -1.2, w: right - left, h: depth + 0.2 },
      captionAt: { x: left, y: depth + 0.8, anchor: 'start' },
    }
  },
  model: (values, fluid) => {
    const ends = endsOf(values)
    return {
      ...reservoirModel(values, fluid, ends),
      idlePorts: each.slice(ends.length),
    }
  },
  describeState(l, values, show) {
    const flows = endsOf(values).map((_, i) => l.q[i])
    const sum = (sign: 1 | -1) => flows.reduce((s, q) => s + Math.max(0, sign * q), 0)
    return `Takes back ${show(sum(1), 'flow')} and gives ${show(sum(-1), 'flow')}; ${show(l.o[OIL], 'volume')} in the tank.`
  },
})
