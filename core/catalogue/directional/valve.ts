/**
 * What all directional valves share: a row of boxes, a spool that moves through it, an actuation
 * and springs that return it. A kind adds its ports and the functions it can have.
 */
import type { SectionDrawing } from '../section'
import { fourPorts, spoolSection } from '../section-elements'
import { pressureBalance, type Balance, type Way } from '../answers'
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
  eventSpecs,
  inputSpecs,
  type FaultSpec,
} from '../kind'
import { leak, leakOut, lost, stuck } from '../faults'
import { addPathFlows, heldByFriction, pathCoefficient, smoothSquareRoot, spoolRate } from '../flow-laws'
import { dashed, partOf, shifted, type Point, type SymbolDrawing } from '../symbol'
import type { Fluid } from '../../fluid/fluid'
import { BOX, drawBoxes, pathOpening, pairsOf, spoolPaths, type Box } from './spool'
import {
  actuationParameters,
  COIL_MODES,
  coilMeasure,
  coilsOn,
  DROP_OUT,
  coilPlaces,
  endShapes,
  endsOf,
  engagedCoil,
  isSolenoid,
  isWorkedByOil,
  COIL,
  switchCoil,
  type ActuationValues,
} from './actuation'

const INPUT = indices('command', 'hand', 'coilA', 'coilB')
const STATE = indices('spool')
const OUTPUT = indices('highest')
const CONDITION = indices('overPressure', 'bothCoils', 'lowVoltage', 'lowPilot')
const EVENT = indices('coilA', 'coilB')

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

const choice = <C extends string>(
  label: string,
  standard: NoInfer<C>,
  choices: Record<C, string>,
  note?: string,
) => ({ type: 'choice', label, default: standard, choices, note }) as const satisfies ChoiceParameter

const directionalPorts = (design: DirectionalDesign<string>): PortSpec[] => [
  ...design.ports.map((name): PortSpec => ({ name, domain: 'oil', role: roles[name] })),
  { name: 'X', domain: 'oil', role: 'pilot a, or pilot supply', mayStayOpen: true },
  { name: 'Y', domain: 'oil', role: 'pilot b, or pilot drain', mayStayOpen: true },
]

function directionalParameters<F extends string>(design: DirectionalDesign<F>) {
  const functions = Object.fromEntries(
    Object.entries<SpoolFunction>(design.functions).map(([name, f]) => [name, f.label]),
  ) as Record<F, string>
  return {
    centre: choice(design.functionLabel, design.standard, functions),
    ...actuationParameters,
    ratedFlow: quantity('Rated flow, each path', 'flow', '20 L/min', 1e-6, 0.2),
    ratedDrop: quantity('at pressure drop', 'pressure', '10 bar', 1e4, 100e5),
    shiftTime: quantity('Shift time, one position', 'time', '30 ms', 1e-3, 5, {
      note: '30 ms for a solenoid, 100 ms piloted',
    }),
    shiftPressure: quantity('Pilot pressure for full shift', 'pressure', '5 bar', 1e4, 100e5, {
      note: 'where it is piloted: the spool goes as far as the pilot pressure reaches this',
    }),
    spoolFriction: quantity('Dry friction of the spool', 'pressure', '0 bar', 0, 20e5, {
      note: 'as a pressure at its end, where oil works it: 0.2 to 0.5 bar is usual; the spool stays where it is until more drives it',
    }),
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

export interface DirectionalValues extends ActuationValues {
  readonly centre: string
  readonly ratedFlow: number
  readonly ratedDrop: number
  readonly shiftTime: number
  readonly shiftPressure: number
  readonly spoolFriction: number
  readonly crossover: 'closed' | 'open'
  readonly leakage: number
  readonly maxPressure: number
}

const coilInput = (coil: string) => ({
  label: `${coil}, share of its rated voltage`,
  quantity: 'ratio' as const,
  rest: 0,
  min: 0,
  max: 1.5,
  electric: 'coil' as const,
  momentary: true as const,
  positions: [
    { value: 1, label: 'on', action: `is switched on at ${coil}` },
    { value: 0, label: 'off', action: `is switched off at ${coil}` },
  ],
})
/** Values of an input that puts the valve into its positions. @param by what works it, after the verb @param rest where nothing does */
const positionsOf = (
  { positions }: DirectionalDesign<string>,
  goes: string,
  by: string,
  rest: { readonly label: string; readonly action: string },
) => {
  const [a, b] =
    positions === 3
      ? ['a', 'b'].map((name) => ({ label: `position ${name}`, action: `${goes} position ${name}${by}` }))
      : ['actuated', 'pushed back'].map((label) => ({ label, action: `is ${label}${by}` }))
  return [
    { value: 1, ...a },
    { value: 0, ...rest },
    { value: -1, ...b },
  ]
}
/** What a schedule, the control or a hand works. */
const directionalInputs = (design: DirectionalDesign<string>) =>
  inputSpecs(INPUT, {
    command: {
      label: 'command',
      quantity: 'ratio',
      rest: 0,
      min: -1,
      max: 1,
      momentary: true,
      positions: positionsOf(
        design,
        'goes to',
        '',
        design.positions === 3
          ? { label: 'centre', action: 'goes to its centre' }
          : { label: 'released', action: 'is released' },
      ),
    },
    hand: {
      label: 'hand override',
      quantity: 'ratio',
      rest: 0,
      min: -1,
      max: 1,
      momentary: true,
      positions: positionsOf(design, 'is pushed to', ' by hand', {
        label: 'released',
        action: 'is released by the hand',
      }),
    },
    coilA: coilInput('coil a'),
    coilB: coilInput('coil b'),
  })
/** Inputs that nothing reads with these values. */
function idleInputs(design: DirectionalDesign<string>, values: DirectionalValues): string[] {
  const { a, b, coils } = endsOf(values, design.positions)
  return [
    ...(isWorkedByOil(a, b) ? ['command'] : []),
    ...(coils && values.override !== 'none' ? [] : ['hand']),
    ...(isSolenoid(a) ? [] : ['coilA']),
    ...(isSolenoid(b) ? [] : ['coilB']),
  ]
}

/** Parameters that nothing reads with these values: what oil does at the ends of the spool. */
const idleDirectional = (
  design: DirectionalDesign<string>,
  values: DirectionalValues,
): ('shiftPressure' | 'spoolFriction')[] => {
  const { a, b, pilotStage } = endsOf(values, design.positions)
  return pilotStage || a === 'pilot' || b === 'pilot' ? [] : ['shiftPressure', 'spoolFriction']
}

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
    spoolLeakage: 'leakage',
    electricFaults: (values: DirectionalValues) => (endsOf(values, design.positions).coils ? ['lost'] : []),
    nominalPoint: { flow: 'ratedFlow', drop: 'ratedDrop' },
    sizingTargets: { valveFlow: 'ratedFlow' },
    connectedAtRest: (values: Readonly<Record<string, unknown>>) =>
      pairsOf(design.functions[values.centre as string].boxes[design.positions === 3 ? 1 : 0]),
  }
}

function directionalSymbol(
  design: DirectionalDesign<string>,
  values: DirectionalValues,
  form?: SymbolForm,
): SymbolDrawing {
  const { positions } = design
  const { boxes } = design.functions[values.centre]
  // drawn left to right: the box that the actuation at the left pushes into place, then the rest
  const row = [...boxes].reverse()
  const half = (BOX * row.length) / 2
  // the box at rest is drawn at the lines
  const rest = positions === 3 ? 0 : BOX / 2
  const places = Object.fromEntries(design.ports.map((p) => [p, design.places[p]]))
  const ends = endShapes(half, positions, values, form)
  const [left, right] = [Math.round(-half - rest - ends.left), Math.round(half - rest + ends.right)]
  const pilots = pilotPlaces(positions, values, half, rest)
  return {
    shapes: [
      // the leads of external pilot supply and drain up to the pilot stage
      ...Object.values(pilots).flatMap(({ x, y, side }) => (side === 'down' ? [dashed([x, y], [x, 0])] : [])),
      ...shifted(partOf('spool', [...drawBoxes(row, places), ...ends.shapes]), -rest, 0),
    ],
    ports: {
      ...Object.fromEntries(
        design.ports.map((p) => {
          const [x, y] = design.places[p]
          return [p, { x, y, side: y < 0 ? 'up' : 'down' } as const]
        }),
      ),
      ...pilots,
    },
    box: { x: left, y: -2, w: right - left, h: 4 },
    captionAt: { x: left, y: -3, anchor: 'start' },
    coils: Object.fromEntries(
      Object.entries(coilPlaces(half, positions, values, form)).map(([coil, { x, y }]) => [
        coil,
        { x: x - rest, y },
      ]),
    ),
    parts: { spool: { signal: 'spool', zero: 0, travel: BOX, full: 1 } },
  }
}

/** Where pilot lines meet the symbol: at the ends for oil pilots, below the pilot stage for its external supply and drain. */
function pilotPlaces(
  positions: 2 | 3,
  values: DirectionalValues,
  half: number,
  rest: number,
): SymbolDrawing['ports'] {
  const { a, b, pilotStage } = endsOf(values, positions)
  const [left, right] = [-half - rest, half - rest]
  const below = (x: number) => ({ x, y: 3, side: 'down' }) as const
  return {
    ...(a === 'pilot' ? { X: { x: left - 2, y: -1, side: 'left' } as const } : {}),
    ...(b === 'pilot' ? { Y: { x: right + 2, y: -1, side: 'right' } as const } : {}),
    ...(pilotStage && a !== 'pilot' && values.pilotSupply === 'external'
      ? { X: below(a === 'solenoidPilot' ? left - 1 : right + 1) }
      : {}),
    ...(pilotStage && b !== 'pilot' && values.pilotDrain === 'external' ? { Y: below(right + 1) } : {}),
  }
}

/**
 * Each path passes φ·path(Δp; q_r, Δp_r), φ from the spool position; the spool moves at constant speed, one
 * box in the shift time, towards its command, or where piloted towards clamp((p_X − p_Y)/p_shift). Where oil works it, dry friction holds
 * it until that is off by more than p_friction/p_shift.
 * Leakage G·Δp between neighbouring lands, from a catalogue flow at 100 bar, scaled with ν_ref/ν.
 */
function directionalModel(
  design: DirectionalDesign<string>,
  lands: readonly { readonly from: string; readonly to: string }[],
  values: DirectionalValues,
  fluid: Fluid,
): Model {
  const { boxes } = design.functions[values.centre]
  const { shiftPressure, shiftTime, maxPressure } = values
  const friction = values.spoolFriction / shiftPressure
  const names = design.ports
  const paths = spoolPaths(boxes, names)
  const pathFrom = Int32Array.from(paths, (path) => path.from)
  const pathTo = Int32Array.from(paths, (path) => path.to)
  /** Coefficient of each path as it was last opened: a spool stands still most of the time. */
  const openings = new Float64Array(paths.length)
  const openedAt = Float64Array.of(Number.NaN)
  const landFrom = Int32Array.from(lands, (land) => names.indexOf(land.from))
  const landTo = Int32Array.from(lands, (land) => names.indexOf(land.to))
  const coefficient = pathCoefficient(values.ratedFlow, values.ratedDrop)
  const leakReference = values.leakage / 100e5
  const open = values.crossover === 'open'
  const three = design.positions === 3
  const offset = three ? 1 : 0
  const least = three ? -1 : 0
  const count = names.length
  const { a, b, coils, pilotStage } = endsOf(values, design.positions)
  const [pilotA, pilotB] = [a === 'pilot' ? 1 : 0, b === 'pilot' ? 1 : 0]
  const piloted = pilotA + pilotB > 0
  const byOil = piloted || pilotStage
  const byOilAlone = isWorkedByOil(a, b)
  const override = coils && values.override !== 'none'
  const stays = values.detent === 'detent'
  const [X, Y] = [count, count + 1]
  // the pilot stage takes its oil from X or P, and lets it off to Y or the tank line
  const supply = values.pilotSupply === 'external' ? X : names.indexOf('P')
  const tank = names.findIndex((name) => RETURNS.has(name))
  const drain = values.pilotDrain === 'external' ? Y : tank
  const usesX = pilotA > 0 || (pilotStage && values.pilotSupply === 'external')
  const usesY = pilotB > 0 || (pilotStage && values.pilotDrain === 'external')
  /** What the pilot stage has to push the spool with, in shares of the shift pressure. */
  const pilotShare = (p: Float64Array) => (p[supply] - (drain < 0 ? 0 : p[drain])) / shiftPressure
  /** How far it can push: the whole way from the shift pressure on. */
  const pilotReach = (p: Float64Array, less = 0) => {
    const share = pilotShare(p) - less
    return share < 0 ? 0 : share > 1 ? 1 : share
  }
  /** Friction that is left to hold the spool, in shares of the shift pressure: what pushes beyond full travel helps to overcome it. */
  const holding = (order: number, p: Float64Array) => {
    if (order === 0) return friction
    // what a coil or a hand pushes is more than friction holds
    if (!pilotStage) return 0
    const surplus = Math.max(0, pilotShare(p) - 1)
    return Math.max(0, friction - surplus)
  }
  /** What is ordered by hand, by a command or by the coils. */
  const ordered = (l: Local) => {
    if (byOilAlone) return 0
    if (override && l.u[INPUT.hand] !== 0) return l.u[INPUT.hand]
    return l.u[INPUT.command] !== 0 || !coils ? l.u[INPUT.command] : engagedCoil(l)
  }
  const rated = names.map((name) => !RETURNS.has(name))
  /** Oil at an end of the spool, or from the pilot stage, against the spring at full travel; nothing where a coil or a hand pushes too. */
  const pilotBalances = (l: Local): readonly Balance[] => {
    const spring: Record<string, number> = {
      'spring at full travel': shiftPressure,
      ...(friction > 0 ? { 'dry friction': values.spoolFriction } : {}),
    }
    if (pilotStage && !piloted) {
      const drained: Record<string, number> = drain < 0 ? {} : { 'pilot drain': l.p[drain] }
      const name = ordered(l) === 0 ? 'can be shifted fully' : 'is shifted fully'
      return [pressureBalance(name, { 'pilot supply': l.p[supply] }, { ...spring, ...drained })]
    }
    if (!piloted || ordered(l) !== 0 || (!three && !pilotA)) return []
    const atA: Record<string, number> = pilotA ? { 'pressure at X': l.p[X] } : {}
    const atB: Record<string, number> = pilotB ? { 'pressure at Y': l.p[Y] } : {}
    const towardsA = !three || !pilotB || (pilotA > 0 && l.p[X] >= l.p[Y])
    return [
      pressureBalance(
        three ? `is shifted fully to position ${towardsA ? 'a' : 'b'}` : 'is shifted fully',
        towardsA ? atA : atB,
        { ...spring, ...(towardsA ? atB : atA) },
      ),
    ]
  }
  return {
    idlePorts: [...(usesX ? [] : [X]), ...(usesY ? [] : [Y])],
    ...(coils
      ? {
          modes: COIL_MODES,
          eventFunctions: eventSpecs(EVENT, {
            coilA: { label: 'coil a pulls in', report: 0 },
            coilB: { label: 'coil b pulls in', report: 0 },
          }),
          switch(l: Local, index: number, direction: number) {
            switchCoil(l, index === EVENT.coilA ? 'coilA' : 'coilB', direction > 0)
          },
        }
      : {}),
    states: stateSpecs(STATE, {
      spool: { label: 'spool position', quantity: 'ratio', initial: 0, scale: 1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      highest: { label: 'highest port pressure', quantity: 'pressure' },
    }),
    conditions: conditionSpecs(CONDITION, {
      overPressure: { label: 'above its maximum pressure', severity: 'danger', worst: 'highest' },
      bothCoils: { label: 'both coils on: the second overheats', severity: 'danger' },
      lowVoltage: { label: 'voltage too low for a coil to pull in', severity: 'warning' },
      lowPilot: { label: 'pilot pressure too low to shift it', severity: 'warning' },
    }),
    evaluate(l) {
      const y = l.x[STATE.spool]
      const { p, q } = l
      if (coils) {
        l.g[EVENT.coilA] = coilMeasure(l.mode[COIL.coilA], l.u[INPUT.coilA])
        l.g[EVENT.coilB] = coilMeasure(l.mode[COIL.coilB], l.u[INPUT.coilB])
      }
      const order = ordered(l)
      let target = pilotStage ? order * pilotReach(p) : order
      if (piloted) target += (pilotA * p[X] - pilotB * p[Y]) / shiftPressure
      if (friction > 0 && byOil) target = heldByFriction(y, target, holding(order, p))
      target = target < least ? least : target > 1 ? 1 : target
      // with a detent nothing moves it but a push; released it rests in the nearest box
      if (stays && Math.abs(order) < 0.5 && !piloted) target = Math.round(y)
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
      l.c[CONDITION.bothCoils] = coils ? coilsOn(l) - 1.5 : -1
      l.c[CONDITION.lowVoltage] = coils ? lowVoltage(l) : -1
      l.c[CONDITION.lowPilot] = pilotStage ? Math.abs(ordered(l)) - pilotReach(l.p, friction) - 1e-3 : -1
      l.power[Power.heat] = heat
    },
    ...(byOil ? { balances: pilotBalances } : {}),
    ways: (l) => [
      ...paths.flatMap((path): Way[] => {
        const { from, to } = path
        const passing = coefficient * pathOpening(path, l.x[STATE.spool] + offset, open)
        return passing > 0
          ? [{ from, to, flow: passing * smoothSquareRoot(l.p[from] - l.p[to]), element: 'edge' }]
          : []
      }),
      ...(leakReference > 0
        ? lands.map((_, i): Way => {
            const [from, to] = [landFrom[i], landTo[i]]
            return {
              from,
              to,
              flow: leakReference * fluid.leakageFactor * (l.p[from] - l.p[to]),
              element: 'leak',
            }
          })
        : []),
    ],
  }
}

/** Above zero where a coil has current but not enough to pull in. */
const lowVoltage = (l: Local) =>
  coilsOn(l) === 0 && Math.max(l.u[INPUT.coilA], l.u[INPUT.coilB]) > DROP_OUT ? 1 : -1

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

/** Neither a command nor a coil arrives any longer; a hand still works it. */
const controlVoltageLost: FaultSpec = {
  ...lost(INPUT.command),
  beforeEvaluate(l, amount) {
    if (amount > 0.5) l.u[INPUT.command] = l.u[INPUT.coilA] = l.u[INPUT.coilB] = 0
  },
}

/** All that a directional kind of this design needs but its name and its words. */
/** Whether it has the spool with two lands that a section shows: three positions, four ports. */
const hasFourWaySection = ({ positions, ports }: DirectionalDesign<string>) =>
  positions === 3 && ['P', 'T', 'A', 'B'].every((port) => ports.includes(port)) && ports.length === 4

function fourWaySection(design: DirectionalDesign<string>, { centre }: DirectionalValues): SectionDrawing {
  const at = (port: string) => design.ports.indexOf(port)
  const [, middle] = design.functions[centre].boxes
  const joined = (a: string, b: string) => middle.some((way) => way.includes(a) && way.includes(b))
  return spoolSection({
    pressure: fourPorts(at('P'), at('T'), at('A'), at('B')),
    position: (l) => l.x[STATE.spool],
    open: {
      PA: joined('P', 'A'),
      PB: joined('P', 'B'),
      AT: joined('A', 'T'),
      BT: joined('B', 'T'),
      PT: joined('P', 'T') && !joined('P', 'A'),
    },
  })
}

export function directional<F extends string>(design: DirectionalDesign<F>) {
  const traits = directionalTraits(design)
  return {
    family: 'directional',
    designationLetter: 'V',
    ports: directionalPorts(design),
    parameters: directionalParameters(design),
    inputs: directionalInputs(design),
    idleInputs: (values: DirectionalValues) => idleInputs(design, values),
    idleParameters: (values: DirectionalValues) => idleDirectional(design, values),
    faults: [
      stuck(STATE.spool, 'spool sticks'),
      controlVoltageLost,
      leak(design.ports.indexOf('P'), design.ports.indexOf('A'), 'leaks from P to A'),
      // the ends of the spool lie at the pressure of its return
      ...design.ports
        .filter((port) => RETURNS.has(port))
        .slice(0, 1)
        .map((port) => leakOut(design.ports.indexOf(port), 'spool end leaks outwards')),
    ],
    traits,
    safetyNote: 'A spool leaks: never rely on it to hold a load that someone may stand under.',
    forms: true,
    symbol: (values: DirectionalValues, form?: SymbolForm) => directionalSymbol(design, values, form),
    ...(hasFourWaySection(design)
      ? { section: (values: DirectionalValues) => fourWaySection(design, values) }
      : {}),
    model: (values: DirectionalValues, fluid: Fluid) => directionalModel(design, traits.paths, values, fluid),
    describeState: (l: Local, values: DirectionalValues, show: Show) =>
      describeDirectionalValve(design, l, values, show),
  } as const
}
