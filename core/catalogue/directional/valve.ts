/**
 * What all directional valves share: a row of boxes, a spool that moves through it, an actuation
 * and springs that return it. A kind adds its ports and the functions it can have.
 */
import {
  Power,
  quantity,
  type ChoiceParameter,
  type Local,
  type Model,
  type PortSpec,
  type Show,
  type SymbolForm,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  inputSpecs,
} from '../kind'
import { leak, lost, stuck } from '../faults'
import { addPathFlows, pathCoefficient, spoolRate } from '../flow-laws'
import {
  arrow,
  circle,
  dashed,
  line,
  partOf,
  polygon,
  rectangle,
  spring,
  type Point,
  type Shape,
  type SymbolDrawing,
} from '../symbol'
import type { Fluid } from '../../fluid/fluid'
import { BOX, drawBoxes, pathOpening, pairsOf, pilotTriangle, solenoid, spoolPaths, type Box } from './spool'

const INPUT = indices('command')
const STATE = indices('spool')
const OUTPUT = indices('highest')
const CONDITION = indices('overPressure')

const roles: Record<string, string> = {
  P: 'pressure line',
  T: 'tank line',
  A: 'working line A',
  B: 'working line B',
  R: 'return of A',
  S: 'return of B',
}

/** What a valve can do: its boxes in the order of the spool position, the rest position in the middle or first. */
export interface SpoolFunction {
  readonly label: string
  readonly boxes: readonly Box[]
}
export interface DirectionalDesign<F extends string> {
  readonly ports: readonly string[]
  /** Where each port meets a box. */
  readonly places: Readonly<Record<string, Point>>
  readonly functions: Readonly<Record<F, SpoolFunction>>
  readonly functionLabel: string
  readonly standard: F
  /** Three positions (−1, 0, 1) or two (0, 1). */
  readonly positions: 2 | 3
}

/** Ports that are not under working pressure. */
const RETURNS = new Set(['T', 'R', 'S'])

const actuations = {
  solenoid: 'solenoid',
  solenoidPilot: 'solenoid, piloted',
  pilot: 'hydraulic pilot',
  lever: 'lever',
  button: 'push button',
  pedal: 'pedal',
  roller: 'roller',
} as const
type Actuation = keyof typeof actuations

const choice = <C extends string>(
  label: string,
  standard: NoInfer<C>,
  choices: Record<C, string>,
  note?: string,
) => ({ type: 'choice', label, default: standard, choices, note }) as const satisfies ChoiceParameter

const directionalPorts = (design: DirectionalDesign<string>): PortSpec[] => [
  ...design.ports.map((name): PortSpec => ({ name, domain: 'oil', role: roles[name] })),
  { name: 'X', domain: 'oil', role: 'pilot a', mayStayOpen: true },
  ...(design.positions === 3
    ? [{ name: 'Y', domain: 'oil', role: 'pilot b', mayStayOpen: true } satisfies PortSpec]
    : []),
]

const detent = choice(
  'Goes back',
  'spring',
  { spring: 'by its spring', detent: 'only when pushed: detent' },
  'with a detent a command pushes it, and let go (0) it stays in the box it is in',
)

function directionalParameters<F extends string>(design: DirectionalDesign<F>) {
  const functions = Object.fromEntries(
    Object.entries<SpoolFunction>(design.functions).map(([name, f]) => [name, f.label]),
  ) as Record<F, string>
  return {
    centre: choice(design.functionLabel, design.standard, functions),
    actuation: choice('Actuation', 'solenoid', actuations),
    ratedFlow: quantity('Rated flow, each path', 'flow', '20 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '10 bar', 1e4, 100e5),
    shiftTime: quantity('Shift time, one position', 'time', '30 ms', 1e-3, 5, {
      note: '30 ms for a solenoid, 100 ms piloted',
    }),
    shiftPressure: quantity('Pilot pressure for full shift', 'pressure', '5 bar', 1e4, 100e5, {
      note: 'where it is piloted: the spool goes as far as the pilot pressure reaches this',
    }),
    detent,
    crossover: choice('Crossover', 'closed', {
      closed: 'closed while shifting',
      open: 'open while shifting',
    }),
    leakage: quantity('Spool leakage at 100 bar', 'flow', '0 L/min', 0, 1e-3, {
      note: 'between neighbouring lands; 0.02 to 0.1 L/min is usual for this size',
    }),
    maxPressure: quantity('Maximum pressure', 'pressure', '315 bar', 1e5, 1000e5, {
      group: 'Rating',
      note: 'reported when exceeded at P, A or B',
    }),
  } as const
}

export interface DirectionalValues {
  readonly centre: string
  readonly actuation: Actuation
  readonly ratedFlow: number
  readonly ratedDrop: number
  readonly shiftTime: number
  readonly shiftPressure: number
  readonly crossover: 'closed' | 'open'
  readonly leakage: number
  readonly maxPressure: number
  readonly detent: 'spring' | 'detent'
}

/** Names of the ends that a schedule commands. */
const directionalInputs = (design: DirectionalDesign<string>) =>
  inputSpecs(INPUT, {
    command: {
      label: 'command',
      quantity: 'ratio',
      rest: 0,
      min: -1,
      max: 1,
      positions: [
        { value: 1, label: design.positions === 3 ? 'position a' : 'actuated' },
        { value: 0, label: design.positions === 3 ? 'centre' : 'let go' },
        { value: -1, label: design.positions === 3 ? 'position b' : 'pushed back' },
      ],
    },
  })

function directionalTraits(design: DirectionalDesign<string>) {
  const pairs = new Map<string, { from: string; to: string; type: 'switched' }>()
  for (const f of Object.values<SpoolFunction>(design.functions))
    for (const box of f.boxes)
      for (const [from, to] of pairsOf(box))
        pairs.set([from, to].sort().join(), { from, to, type: 'switched' })
  return {
    paths: [...pairs.values()],
    pilotPorts: ['X', 'Y'],
    ratedPressure: 'maxPressure',
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    connectedAtRest: (values: Readonly<Record<string, unknown>>) =>
      pairsOf(design.functions[values.centre as string].boxes[design.positions === 3 ? 1 : 0]),
  }
}

/** What pushes at one end of the row; x is the end, it lies away from the boxes. */
function actuator(actuation: Actuation, x: number, toward: 1 | -1, form?: SymbolForm): Shape[] {
  const far = x - toward * 2
  const mid = x - toward
  switch (actuation) {
    case 'solenoid':
      return solenoid(x, toward)
    case 'solenoidPilot':
      return form === 'detailed'
        ? pilotValve(x, toward)
        : [...solenoid(x, toward), pilotMark(mid - toward * 0.45, -0.9, toward)]
    case 'pilot':
      return [dashed([far, -1], [x, -1]), pilotMark(x - toward * 0.9, -1, toward)]
    case 'lever':
      return [
        line([x, -0.9], [far, -0.9]),
        line([far, -0.9], [far - toward * 0.5, -2.6]),
        circle(far, -0.9, 0.2, 'ink'),
      ]
    case 'button':
      return [line([x, -0.9], [far, -0.9]), line([far, -1.6], [far, -0.2])]
    case 'pedal':
      return [line([x, -0.9], [far, -0.9], [far, -0.2], [far - toward * 0.9, -0.2])]
    case 'roller':
      return [line([x, -0.9], [mid, -0.9]), circle(mid - toward * 0.55, -0.9, 0.55)]
  }
}
/** Notches that hold the spool where it was put. */
const detentMark = (x: number) =>
  line([x, 0.6], [x + 0.5, 0.6], [x + 0.9, 1.2], [x + 1.3, 0.6], [x + 1.7, 1.2], [x + 2.1, 0.6])

/** How far a pilot valve drawn in full reaches beyond the row. */
const PILOT_VALVE = 6
/** The pilot stage in full: the chamber at the end of the spool, a small 3/2 valve that fills or drains it, its solenoid. */
function pilotValve(x: number, toward: 1 | -1): Shape[] {
  const at = (away: number) => x - toward * away
  const left = (a: number, b: number) => Math.min(at(a), at(b))
  const coil = left(4.1, 6)
  return [
    rectangle(left(0, 1), -1.8, 1, 1.8),
    pilotMark(at(0.95), -0.9, toward),
    line([at(1), -0.9], [at(1.5), -0.9]),
    rectangle(left(1.5, 2.8), -1.8, 1.3, 1.8),
    rectangle(left(2.8, 4.1), -1.8, 1.3, 1.8),
    ...arrow([at(1.9), -0.3], [at(1.9), -1.5]),
    line([at(2.4), -0.2], [at(2.4), -0.6]),
    ...arrow([at(3.2), -1.5], [at(3.7), -0.3]),
    line([at(3.3), -0.2], [at(3.3), -0.5]),
    rectangle(coil, -1.7, 1.9, 1.6),
    toward > 0 ? line([coil + 0.4, -0.1], [coil + 1.5, -1.7]) : line([coil + 1.5, -0.1], [coil + 0.4, -1.7]),
  ]
}
const pilotMark = (x: number, y: number, toward: 1 | -1): Shape =>
  toward > 0 ? pilotTriangle(x, y) : polygon('ink', [x, y - 0.5], [x, y + 0.5], [x - 0.9, y])

function directionalSymbol(
  design: DirectionalDesign<string>,
  values: DirectionalValues,
  form?: SymbolForm,
): SymbolDrawing {
  const { boxes } = design.functions[values.centre]
  // drawn left to right: the box that the actuation at the left pushes into place, then the rest
  const row = [...boxes].reverse()
  const half = (BOX * row.length) / 2
  const three = design.positions === 3
  // the box at rest is drawn at the lines
  const rest = three ? 0 : BOX / 2
  const places = Object.fromEntries(design.ports.map((p) => [p, design.places[p]]))
  const shapes = partOf('spool', [
    ...drawBoxes(row, places),
    ...actuator(values.actuation, -half, 1, form),
    ...(three ? actuator(values.actuation, half, -1, form) : []),
    ...(values.detent === 'detent' ? [detentMark(half)] : [spring(half, 1, 2.2, 1.1)]),
    ...(three && values.detent === 'spring' ? [spring(-half - 2.2, 1, 2.2, 1.1)] : []),
  ])
  const shifted = shapes.map((s) => moveX(s, -rest))
  const piloted = values.actuation === 'pilot'
  const reach = form === 'detailed' && values.actuation === 'solenoidPilot' ? PILOT_VALVE : 2
  const left = Math.round(-half - rest - reach)
  const right = Math.round(half - rest + (three ? reach : 2))
  return {
    shapes: shifted,
    ports: {
      ...Object.fromEntries(
        design.ports.map((p) => {
          const [x, y] = design.places[p]
          return [p, { x, y, side: y < 0 ? 'up' : 'down' } as const]
        }),
      ),
      ...(piloted ? { X: { x: left, y: -1, side: 'left' } as const } : {}),
      ...(piloted && three ? { Y: { x: right, y: -1, side: 'right' } as const } : {}),
    },
    box: { x: left, y: -2, w: right - left, h: 4 },
    captionAt: { x: left, y: -3, anchor: 'start' },
    parts: { spool: { signal: 'spool', zero: 0, travel: BOX, full: 1 } },
  }
}
function moveX(s: Shape, dx: number): Shape {
  if (s.shape === 'line' || s.shape === 'polygon')
    return { ...s, points: s.points.map((p): Point => [p[0] + dx, p[1]]) }
  return { ...s, at: [s.at[0] + dx, s.at[1]] }
}

/**
 * Each path passes φ·path(Δp; q_r, Δp_r), φ from the spool position; the spool moves at constant speed, one
 * box in the shift time, towards its command, or where piloted towards clamp((p_X − p_Y)/p_shift).
 * Leakage G·Δp between neighbouring lands, from a catalogue flow at 100 bar, scaled with ν_ref/ν.
 */
function directionalModel(design: DirectionalDesign<string>, values: DirectionalValues, fluid: Fluid): Model {
  const { boxes } = design.functions[values.centre]
  const { shiftPressure, shiftTime, maxPressure } = values
  const names = design.ports
  const paths = spoolPaths(boxes, names)
  const pathFrom = Int32Array.from(paths, (path) => path.from)
  const pathTo = Int32Array.from(paths, (path) => path.to)
  /** Coefficient of each path as it was last opened: a spool stands still most of the time. */
  const openings = new Float64Array(paths.length)
  const openedAt = Float64Array.of(Number.NaN)
  const lands = directionalTraits(design).paths
  const landFrom = Int32Array.from(lands, (land) => names.indexOf(land.from))
  const landTo = Int32Array.from(lands, (land) => names.indexOf(land.to))
  const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
  const leakReference = values.leakage / 100e5
  const open = values.crossover === 'open'
  const three = design.positions === 3
  const offset = three ? 1 : 0
  const least = three ? -1 : 0
  const count = names.length
  const piloted = values.actuation === 'pilot'
  const stays = values.detent === 'detent'
  const [X, Y] = [count, count + 1]
  const rated = names.map((name) => !RETURNS.has(name))
  return {
    idlePorts: piloted ? [] : [X, Y],
    states: stateSpecs(STATE, {
      spool: { label: 'spool position', quantity: 'ratio', initial: 0, scale: 1 },
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
      let target = l.u[INPUT.command]
      if (piloted) {
        const push = (p[X] - (three ? p[Y] : 0)) / shiftPressure
        target = push < least ? least : push > 1 ? 1 : push
      }
      if (target < least) target = least
      // with a detent nothing moves it but a push; let go it rests in the nearest box
      if (stays && Math.abs(l.u[INPUT.command]) < 0.5 && !piloted) target = Math.round(y)
      l.dx[STATE.spool] = spoolRate(y, target, shiftTime)
      for (let i = 0; i < q.length; i++) q[i] = 0
      if (leakReference > 0) {
        const leak = leakReference * fluid.leakageFactor
        for (let i = 0; i < landFrom.length; i++) {
          const flow = leak * (p[landFrom[i]] - p[landTo[i]])
          q[landFrom[i]] += flow
          q[landTo[i]] -= flow
        }
      }
      if (y !== openedAt[0]) {
        for (let i = 0; i < paths.length; i++)
          openings[i] = coefficient * pathOpening(paths[i], y + offset, open)
        openedAt[0] = y
      }
      addPathFlows(openings, pathFrom, pathTo, p, q)
    },
    observe(l) {
      let highest = -Infinity
      let heat = 0
      for (let i = 0; i < count; i++) {
        if (rated[i] && l.p[i] > highest) highest = l.p[i]
        heat += l.p[i] * l.q[i]
      }
      l.o[OUTPUT.highest] = highest
      l.c[CONDITION.overPressure] = highest - maxPressure
      l.power[Power.heat] = heat
    },
  }
}

function describeDirectionalValve(
  design: DirectionalDesign<string>,
  l: Local,
  values: DirectionalValues,
  show: Show,
): string {
  const { boxes, label } = design.functions[values.centre]
  const three = design.positions === 3
  const y = l.x[STATE.spool]
  const at = Math.round(y) + (three ? 1 : 0)
  const box = boxes[Math.min(Math.max(at, 0), boxes.length - 1)]
  const where = three
    ? y > 0.5
      ? 'In position a'
      : y < -0.5
        ? 'In position b'
        : `In the centre (${label})`
    : y > 0.5
      ? 'Actuated'
      : 'At rest'
  const flows = pairsOf(box).flatMap(([a, b]) => {
    const flow = Math.min(Math.abs(l.q[design.ports.indexOf(a)]), Math.abs(l.q[design.ports.indexOf(b)]))
    return flow > 1e-7 ? [`${a} and ${b} pass ${show(flow, 'flow')}`] : []
  })
  return `${where}: ${flows.length ? flows.join(', ') : box.length ? 'nothing flows' : 'all ports blocked'}.`
}

/** All that a directional kind of this design needs but its name and its words. */
export function directional<F extends string>(design: DirectionalDesign<F>) {
  return {
    family: 'directional',
    designationLetter: 'V',
    ports: directionalPorts(design),
    parameters: directionalParameters(design),
    inputs: directionalInputs(design),
    faults: [
      stuck(STATE.spool, 'spool sticks'),
      lost(INPUT.command),
      leak(design.ports.indexOf('P'), design.ports.indexOf('A'), 'leaks from P to A'),
    ],
    traits: directionalTraits(design),
    safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
    forms: true,
    symbol: (values: DirectionalValues, form?: SymbolForm) => directionalSymbol(design, values, form),
    model: (values: DirectionalValues, fluid: Fluid) => directionalModel(design, values, fluid),
    describeState: (l: Local, values: DirectionalValues, show: Show) =>
      describeDirectionalValve(design, l, values, show),
  } as const
}
