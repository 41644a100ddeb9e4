/** The cylinder, shared by every kind of it: load, friction, end stops, cushions, chambers, and how it is drawn. */
import type { Hold } from '../answers'
import { GRAVITY } from '../../units/quantities'
import type { Fluid } from '../../fluid/fluid'
import { air, leak as leakFault, leakOut, yesNo } from '../faults'
import {
  Power,
  quantity,
  type FaultSpec,
  type Local,
  type Model,
  type Motion,
  type Movement,
  type Show,
  type Table,
  type TableParameter,
  indices,
  stateSpecs,
  outputSpecs,
  conditionSpecs,
  eventSpecs,
  inputSpecs,
} from '../kind'
import {
  circleArea,
  endStopChamber,
  DEAD_VOLUME,
  inverseSmoothSquareRoot,
  interpolate,
  pathCoefficient,
} from '../flow-laws'
import { line, partOf, rectangle, type Shape, type SymbolDrawing } from '../symbol'
import { spring } from '../symbol-elements'

/** Slower than this a rod counts as at rest, m/s. */
const AT_REST = 1e-4
const INPUT = indices('force', 'workPiece')
const STATE = indices('position', 'velocity')
const OUTPUT = indices('loadForce', 'pushForce', 'capPressure', 'rodPressure', 'travelled')
const CONDITION = indices('capOver', 'rodOver', 'intensified')
const EVENT = indices('retracted', 'extended', 'contact')

/** Rod and mounting that can buckle beside the stroke, m; a usual measure. */
const BEYOND_THE_STROKE = 0.25
/** Stiffness of an end stop, N/m. */
const STOP_STIFFNESS = 2e8
/** How far a rod may stand within its stop and still be on it, m. */
const STOP_REACH = 1e-3
/** Speed at which Stribeck friction fades, m/s. */
const STRIBECK_SPEED = 0.02
/** Speed from which a rod counts as extending, m/s. */
const EXTENDS = 0.001
/** Pressure drops of the cushions, Pa; area at A, m²; load but for its weight and spring, and force of the end stops, N. */
const ACTING = indices('dropA', 'dropB', 'area', 'outerLoad', 'stops')
const ACTING_COUNT = Object.keys(ACTING).length
/** A contact ends when the gap is this wide, m, so that resting on a stop is one contact. */
const RELEASE_GAP = 1e-9
/** What the way out passes where a cushion begins, 1/s of the chamber's area times 1 m/s at this drop, Pa. */
const CUSHION_ENTRY_DROP = 0.5e5

export const cylinderAreas = (bore: number, rod: number) => ({
  cap: circleArea(bore),
  annulus: circleArea(bore) - circleArea(rod),
})

const bore = quantity('Bore', 'length', '63 mm', 1e-3, 2)
const rod = quantity('Rod', 'length', '36 mm', 1e-3, 2)
const travel = {
  stroke: quantity('Stroke', 'length', '400 mm', 1e-3, 20),
  start: quantity('Starts at', 'length', '0 mm', 0, 20, { note: '0 is retracted' }),
} as const
const load = {
  mass: quantity('Moved mass', 'mass', '500 kg', 0.1, 1e7, { group: 'Load' }),
  loadForce: quantity('Constant force', 'force', '0 kN', -1e8, 1e8, {
    group: 'Load',
    note: 'positive opposes extension',
  }),
  angle: quantity('Angle above horizontal', 'angle', '0 °', -Math.PI / 2, Math.PI / 2, {
    group: 'Load',
    note: 'at 90° the rod points up and lifts its mass',
  }),
  springRate: quantity('Spring', 'stiffness', '0 N/mm', 0, 1e10, {
    group: 'Load',
    note: 'force grows from zero at the retracted end',
  }),
  damping: quantity('Damper', 'damping', '0 kN·s/m', 0, 1e9, { group: 'Load' }),
  loadTable: {
    type: 'table',
    label: 'Force along the stroke',
    group: 'Load',
    note: 'added to the constant force; positive opposes extension',
    x: { label: 'stroke', quantity: 'length' },
    y: { label: 'force', quantity: 'force', min: -1e8, max: 1e8 },
  } satisfies TableParameter,
  workPieceAt: quantity('Workpiece contact position', 'length', '0 mm', 0, 20, { group: 'Load' }),
  workPieceStiffness: quantity('Workpiece stiffness', 'stiffness', '0 kN/mm', 0, 1e11, {
    group: 'Load',
    note: '0 is no work-piece; it only pushes back',
  }),
} as const
const friction = {
  coulombFriction: quantity('Kinetic friction', 'force', '0.4 kN', 0, 1e7, { group: 'Friction' }),
  breakawayFriction: quantity('Breakaway friction', 'force', '0.6 kN', 0, 1e7, {
    group: 'Friction',
  }),
  viscousFriction: quantity('Viscous friction', 'damping', '1 kN·s/m', 0, 1e8, {
    group: 'Friction',
  }),
} as const
const leakage = {
  leakage: quantity('Piston leakage at 100 bar', 'flow', '0 L/min', 0, 1e-2, {
    group: 'Friction',
    note: 'past the piston, laminar',
  }),
} as const
const cushions = {
  cushionOut: quantity('Cushion before the extended stop', 'length', '0 mm', 0, 1, {
    group: 'Cushions',
    note: '0 is no cushion',
  }),
  cushionIn: quantity('Cushion before the retracted stop', 'length', '0 mm', 0, 1, { group: 'Cushions' }),
  cushionThrottle: quantity('Cushion throttle, as orifice diameter', 'length', '2 mm', 1e-4, 0.05, {
    group: 'Cushions',
  }),
} as const
const rating = {
  ratedPressure: quantity('Rated pressure', 'pressure', '250 bar', 1e5, 1000e5, {
    group: 'Rating',
    note: 'reported when exceeded on either side',
  }),
} as const

/** Parameters of a cylinder with oil at both ends. */
export const doubleActingParameters = {
  bore,
  rod,
  ...travel,
  ...load,
  ...friction,
  ...leakage,
  ...cushions,
  ...rating,
} as const
/** Parameters of one whose other side is open to air: there is nothing for oil to leak into, no second cushion. */
export const singleActingParameters = { ...travel, ...load, ...friction, ...rating } as const
export const cylinderBore = bore

export const cylinderInputs = inputSpecs(INPUT, {
  force: { label: 'load force', quantity: 'force', rest: 'loadForce', min: -1e8, max: 1e8 },
  workPiece: {
    label: 'work-piece',
    ofLoad: true,
    quantity: 'ratio',
    rest: 1,
    min: 0,
    max: 1,
    positions: [
      { value: 1, label: 'in place', action: 'has a work-piece put in' },
      { value: 0, label: 'taken out', action: 'has its work-piece taken out' },
    ],
  },
})
/** Without a stiffness there is no work-piece that could be put in. */
export const idleCylinderInputs = ({ workPieceStiffness }: Pick<CylinderValues, 'workPieceStiffness'>) =>
  workPieceStiffness > 0 ? [] : ['workPiece']

/**
 * How a cylinder moves its load: F = F_c + m·g·sin θ + k·x + F(x), least and most of it at the ends of the stroke and at the rows of the
 * table. The work-piece is not counted.
 */
export function cylinderMotions(v: CylinderValues, areas: CylinderAreas, rodDiameter: number): Motion[] {
  const weight = v.mass * GRAVITY * Math.sin(v.angle)
  const tabled = v.loadTable.x.length > 0
  const at = (x: number) =>
    v.loadForce + weight + v.springRate * x + (tabled ? interpolate(v.loadTable.x, v.loadTable.y, x) : 0)
  const along = [0, v.stroke, ...v.loadTable.x.filter((x) => x > 0 && x < v.stroke)].map(at)
  const [least, most] = [Math.min(...along), Math.max(...along)]
  const { cap, annulus } = areas
  const double = annulus > 0
  const friction = v.breakawayFriction
  const column = rodDiameter > 0 ? { diameter: rodDiameter, length: v.stroke + BEYOND_THE_STROKE } : undefined
  return [
    {
      inletPort: 'A',
      area: cap,
      outletPort: double ? 'B' : undefined,
      outletArea: annulus,
      load: at(v.start),
      minimumLoad: least,
      friction,
      mass: v.mass,
      column,
    },
    {
      inletPort: double ? 'B' : undefined,
      area: annulus,
      outletPort: 'A',
      outletArea: cap,
      load: -at(v.stroke),
      minimumLoad: -most,
      friction,
      mass: v.mass,
    },
  ]
}

/** What a cylinder takes from sizing. */
export const singleActingSized = {
  stroke: 'stroke',
  mass: 'mass',
  workPieceAt: 'workPieceAt',
  workPieceStiffness: 'workPieceStiffness',
} as const
/** What a run shows of a cylinder. */
export const cylinderMeasures = {
  speed: 'velocity',
  pressure: 'capPressure',
  returnPressure: 'rodPressure',
  load: 'loadForce',
} as const
/** How a rod moves. */
export const cylinderMovement: Movement = {
  isAtStop: (l: Local) => l.mode[0] + l.mode[1] > 0,
  speed: 'velocity',
  position: 'position',
  load: 'loadForce',
  forward: 'extends',
  back: 'retracts',
}
export const doubleActingSized = { bore: 'bore', rod: 'rod', ...singleActingSized } as const

/** Force by which a jammed rod is held, N: more than any cylinder has. */
const JAM = 1e9
/** The rod no longer moves: something holds it as dry friction does. @param rod its port */
const jammed = (rod: number): FaultSpec => ({
  name: 'jammed',
  label: 'jammed in place',
  form: 'stuck',
  ...yesNo,
  beforeEvaluate(l, amount) {
    l.h[rod] += amount * JAM
  },
})
export const singleActingFaults = [air(0, 'air in the chamber at A'), jammed(1)] as const
export const doubleActingFaults = [
  leakFault(0, 1, 'piston seal leaks'),
  leakOut(1, 'rod seal leaks outwards'),
  air(0, 'air in the chamber at A'),
  jammed(2),
] as const

export const rodPort = {
  name: 'R',
  domain: 'rod',
  role: 'position of the rod',
  mayStayOpen: true,
  drives: true,
} as const

export interface CylinderValues {
  readonly stroke: number
  readonly start: number
  readonly mass: number
  readonly loadForce: number
  readonly angle: number
  readonly springRate: number
  readonly damping: number
  readonly loadTable: Table
  readonly workPieceAt: number
  readonly workPieceStiffness: number
  readonly coulombFriction: number
  readonly breakawayFriction: number
  readonly viscousFriction: number
  readonly ratedPressure: number
  readonly leakage?: number
  readonly cushionOut?: number
  readonly cushionIn?: number
  readonly cushionThrottle?: number
}

type Problem<P extends string> = { parameter: P; message: string }
export function travelProblems(v: CylinderValues): Problem<'start' | 'breakawayFriction'>[] {
  const problems: Problem<'start' | 'breakawayFriction'>[] = []
  if (v.start > v.stroke) problems.push({ parameter: 'start', message: 'The start lies beyond the stroke.' })
  if (v.breakawayFriction < v.coulombFriction)
    problems.push({
      parameter: 'breakawayFriction',
      message: 'Breakaway friction cannot be below running friction.',
    })
  return problems
}
export function cylinderProblems(
  v: CylinderValues & { bore: number; rod: number; cushionOut: number; cushionIn: number },
) {
  const problems: Problem<'rod' | 'start' | 'breakawayFriction' | 'cushionOut'>[] = travelProblems(v)
  if (v.rod >= v.bore) problems.push({ parameter: 'rod', message: 'The rod must be thinner than the bore.' })
  if (v.cushionOut + v.cushionIn > v.stroke)
    problems.push({ parameter: 'cushionOut', message: 'The cushions are longer than the stroke.' })
  return problems
}

/** Where oil acts, m². With stages, the area at A changes along the stroke. */
export interface CylinderAreas {
  readonly cap: number
  readonly annulus: number
  /** Area at A and volume swept at A from 0, by position. */
  readonly stages?: { area(x: number): number; volume(x: number): number }
}

/**
 * V1 = V1d + A1·x, V2 = V2d + A2·(stroke − x); m·dv/dt = p1·A1 − p2·A2 − F_load − F_f(v) − F_stop.
 * F_f = (F_c + (F_s − F_c)·exp(−|v|/v_s))·sgn v + b·v as it slides; at rest it is what keeps it there, up to F_s.
 * F_stop = max(0, k·δ + c·δ̇) for δ ≥ 0, k = 2e8 N/m, c = 2√(k·m).
 * Cushion of length L_c: oil leaves its chamber by a way whose coefficient falls with the distance s to the stop as
 * C_d·A_t·√(2/ρ) + c_0·(s/L_c)²; the pressure on the piston is higher than at the port by the drop of that way
 * (sharp-edged, quasi-steady). Oil comes in unhindered.
 * @param areas at port A (extends) and at port B (retracts)
 * @param ports index of each; −1 for an end that is open to air
 */
export function cylinderModel(
  v: CylinderValues,
  fluid: Fluid,
  areas: CylinderAreas,
  ports: { readonly A: number; readonly B: number; readonly R: number },
): Model {
  // by themselves: read from the values of many kinds they would be looked up every time
  const {
    stroke,
    mass,
    damping,
    springRate,
    loadTable,
    workPieceAt,
    workPieceStiffness,
    coulombFriction,
    breakawayFriction,
    viscousFriction,
    ratedPressure,
  } = v
  const { annulus, stages, cap: fullArea } = areas
  const { A, B, R } = ports
  const weight = mass * GRAVITY * Math.sin(v.angle)
  const stopDamping = 2 * Math.sqrt(STOP_STIFFNESS * mass)
  const leakReference = A < 0 || B < 0 ? 0 : (v.leakage ?? 0) / 100e5
  const extraFriction = breakawayFriction - coulombFriction
  const [cushionOut, cushionIn] = [v.cushionOut ?? 0, v.cushionIn ?? 0]
  const throttle = circleArea(v.cushionThrottle ?? 0)
  const entry = (area: number) => pathCoefficient(area, CUSHION_ENTRY_DROP)
  const tabled = loadTable.x.length > 0
  const capStop = endStopChamber(stages ? stages.area(0) : fullArea)
  const rodStop = endStopChamber(annulus)
  /** Speed and kinetic friction of the last evaluation: the next often differs in something else. */
  const last = Float64Array.of(Number.NaN, 0)
  const cushionDrop = (length: number, left: number, area: number, outflow: number) => {
    if (outflow <= 0 || left >= length) return 0
    const s = left > 0 ? left / length : 0
    return inverseSmoothSquareRoot(outflow / (throttle * fluid.orificeFactor + entry(area) * s * s))
  }
  /** What the other equations take over from the last evaluation, which is at the same state, see `ACTING`. */
  const acting = new Float64Array(ACTING_COUNT)
  /** Pressures on the piston: those at the ports with the drops of the cushions. */
  const pressureA = (l: Local) => (A < 0 ? 0 : l.p[A] + acting[ACTING.dropA])
  const pressureB = (l: Local) => (B < 0 ? 0 : l.p[B] + acting[ACTING.dropB])
  const findKineticFriction = (speed: number) => {
    last[0] = speed
    last[1] = coulombFriction + extraFriction * Math.exp(-(speed < 0 ? -speed : speed) / STRIBECK_SPEED)
  }
  /** Friction that brakes it as it slides, or that holds it: what a lock does not take. */
  const frictionOf = (l: Local) => {
    if (l.slide[0] === 0) return Math.max(-breakawayFriction, Math.min(l.held[0], breakawayFriction))
    if (l.x[STATE.velocity] !== last[0]) findKineticFriction(l.x[STATE.velocity])
    return last[1] * l.slide[0] + viscousFriction * l.x[STATE.velocity]
  }
  const lockOf = (l: Local) =>
    l.slide[0] === 0 ? Math.max(-l.h[R], Math.min(l.held[0] - frictionOf(l), l.h[R])) : l.h[R] * l.slide[0]
  return {
    dryFriction: [{ velocity: STATE.velocity }],
    idlePorts: [R],
    hasVariableVolume: true,
    initialPotentials: [{ port: R, value: v.start }],
    states: stateSpecs(STATE, {
      position: { label: 'stroke', quantity: 'length', initial: v.start, scale: 10e-3 },
      velocity: { label: 'speed', quantity: 'speed', initial: 0, scale: 0.1 },
    }),
    outputs: outputSpecs(OUTPUT, {
      loadForce: { label: 'load force', quantity: 'force' },
      pushForce: { label: 'hydraulic force', quantity: 'force' },
      capPressure: { label: 'cap-side pressure', quantity: 'pressure' },
      rodPressure: { label: 'rod-side pressure', quantity: 'pressure' },
      travelled: { label: 'stroke share', quantity: 'share' },
    }),
    conditions: conditionSpecs(CONDITION, {
      capOver: { label: 'cap side above its rated pressure', severity: 'danger', worst: 'capPressure' },
      rodOver: { label: 'rod side above its rated pressure', severity: 'danger', worst: 'rodPressure' },
      intensified: {
        label: 'intensified: rod side above its rated pressure while extending',
        severity: 'warning',
        worst: 'rodPressure',
      },
    }),
    eventFunctions: eventSpecs(EVENT, {
      retracted: { label: 'reaches its retracted stop', report: 1, value: 'velocity' },
      extended: { label: 'reaches its extended stop', report: 1, value: 'velocity' },
      contact: {
        label: 'workpiece contact',
        begins: 'meets the work-piece',
        report: workPieceStiffness > 0 ? 1 : 0,
        value: 'velocity',
      },
    }),
    modes: [0, 0],
    evaluate(l) {
      const x = l.x[STATE.position]
      const speed = l.x[STATE.velocity]
      const area = stages ? stages.area(x) : fullArea
      const dropA = cushionIn > 0 && speed < 0 && A >= 0 ? cushionDrop(cushionIn, x, area, -area * speed) : 0
      const dropB =
        cushionOut > 0 && speed > 0 && B >= 0
          ? cushionDrop(cushionOut, stroke - x, annulus, annulus * speed)
          : 0
      const pA = A < 0 ? 0 : l.p[A] + dropA
      const pB = B < 0 ? 0 : l.p[B] + dropB
      let outerLoad = l.u[INPUT.force] + damping * speed
      if (workPieceStiffness > 0 && x > workPieceAt && l.u[INPUT.workPiece] > 0.5)
        outerLoad += workPieceStiffness * (x - workPieceAt)
      if (tabled) outerLoad += interpolate(loadTable.x, loadTable.y, x)
      let stops = 0
      if (l.mode[EVENT.extended] === 1) {
        const force = STOP_STIFFNESS * (x - stroke) + stopDamping * speed
        if (force > 0) stops = force
      }
      if (l.mode[EVENT.retracted] === 1) {
        const force = -STOP_STIFFNESS * x - stopDamping * speed
        if (force > 0) stops -= force
      }
      acting[ACTING.dropA] = dropA
      acting[ACTING.dropB] = dropB
      acting[ACTING.area] = area
      acting[ACTING.outerLoad] = outerLoad
      acting[ACTING.stops] = stops
      const leakage = leakReference * fluid.leakageFactor * (pA - pB)
      const load = outerLoad + weight + springRate * x
      l.dx[STATE.position] = speed
      const drive = pA * area - pB * annulus - load - viscousFriction * speed - stops
      const direction = l.slide[0]
      if (direction === 0) {
        l.dx[STATE.velocity] = 0
        l.held[0] = drive
        l.holdForward[0] = l.holdBack[0] = breakawayFriction + l.h[R]
      } else {
        if (speed !== last[0]) findKineticFriction(speed)
        l.dx[STATE.velocity] = (drive - (last[1] + l.h[R]) * direction) / mass
      }
      if (A >= 0) {
        l.q[A] = area * speed * (x < 0 ? capStop.share(-x) : 1) + leakage
        l.v[A] = DEAD_VOLUME + (x < 0 ? -area * capStop.gone(-x) : stages ? stages.volume(x) : area * x)
      }
      if (B >= 0) {
        const over = x - stroke
        l.q[B] = -annulus * speed * (over > 0 ? rodStop.share(over) : 1) - leakage
        l.v[B] = DEAD_VOLUME - annulus * (over > 0 ? rodStop.gone(over) : over)
      }
      l.q[R] = -speed
      l.v[R] = 1
      l.g[EVENT.retracted] = -x + (l.mode[0] ? RELEASE_GAP : 0)
      l.g[EVENT.extended] = x - stroke + (l.mode[1] ? RELEASE_GAP : 0)
      l.g[EVENT.contact] = workPieceStiffness > 0 && l.u[INPUT.workPiece] > 0.5 ? x - workPieceAt : -1
    },
    refuses: (l) =>
      l.x[STATE.position] > stroke + STOP_REACH
        ? `it stands at ${(1000 * l.x[STATE.position]).toFixed(0)} mm, beyond a stroke of ${(1000 * stroke).toFixed(0)} mm.`
        : undefined,
    switch(l, index, direction) {
      if (index < 2) l.mode[index] = direction > 0 ? 1 : 0
    },
    observe(l) {
      const pA = pressureA(l)
      const pB = pressureB(l)
      const x = l.x[STATE.position]
      const speed = l.x[STATE.velocity]
      const load = acting[ACTING.outerLoad]
      const area = acting[ACTING.area]
      const elastic = STOP_STIFFNESS * (l.mode[EVENT.extended] ? x - stroke : l.mode[EVENT.retracted] ? x : 0)
      l.o[OUTPUT.loadForce] = load + weight + springRate * x
      l.o[OUTPUT.pushForce] = pA * area - pB * annulus
      l.o[OUTPUT.capPressure] = pA
      l.o[OUTPUT.rodPressure] = pB
      l.o[OUTPUT.travelled] = x / stroke
      l.f[R] = l.o[OUTPUT.loadForce]
      l.c[CONDITION.capOver] = pA - ratedPressure
      l.c[CONDITION.rodOver] = pB - ratedPressure
      l.c[CONDITION.intensified] = speed > EXTENDS && pB > pA ? pB - ratedPressure : -1
      l.energy[0] =
        0.5 * (mass * speed * speed + springRate * x * x + (elastic * elastic) / STOP_STIFFNESS) + weight * x
      l.power[Power.useful] = load * speed
      l.power[Power.stored] = (weight + springRate * x + mass * l.dx[STATE.velocity] + elastic) * speed
      const displaced = area * speed
      const returned = -annulus * speed
      // oil that does not move the piston, what the cushions throttle, friction, and what the stops do not give back
      const past =
        (A < 0 ? 0 : l.p[A] * (l.q[A] - displaced) - (pA - l.p[A]) * displaced) +
        (B < 0 ? 0 : l.p[B] * (l.q[B] - returned) - (pB - l.p[B]) * returned)
      l.power[Power.heat] = past + (frictionOf(l) + lockOf(l) + acting[ACTING.stops] - elastic) * speed
    },
    holds(l) {
      const [throttledA, throttledB] = [acting[ACTING.dropA], acting[ACTING.dropB]]
      const [pA, pB] = [pressureA(l), pressureB(l)]
      const speed = l.x[STATE.velocity]
      const area = acting[ACTING.area]
      const load = l.o[OUTPUT.loadForce]
      // an end stop takes what the pressures leave
      if (acting[ACTING.stops] !== 0) return []
      const locked = lockOf(l)
      const forces = [
        { label: 'load', value: load },
        { label: 'friction', value: frictionOf(l) },
        { label: 'lock', value: locked },
        { label: 'acceleration', role: 'acceleration' as const, value: mass * l.dx[STATE.velocity] },
      ].filter(({ label, value }) => value !== 0 || label === 'load')
      const held: Hold[] = []
      // what a lock holds, no load sets
      const free = l.h[R] < NO_PUSH
      if (A >= 0)
        held.push({
          port: A,
          by: 'load',
          leads: free && (speed > -AT_REST ? load > 0 : load > pB * annulus),
          terms: [
            ...forces.map((force) => ({ ...force, value: force.value / area })),
            ...(throttledA ? [{ label: 'cushion', value: -throttledA }] : []),
            ...(throttledB
              ? [{ label: 'cushion of the other side', value: (throttledB * annulus) / area }]
              : []),
          ],
          behind: B < 0 ? [] : [{ port: B, factor: annulus / area, label: 'rod side' }],
        })
      if (B >= 0)
        held.push({
          port: B,
          by: 'load',
          leads: free && (speed < AT_REST ? load < 0 : -load > pA * area),
          terms: [
            ...forces.map((force) => ({ ...force, value: -force.value / annulus })),
            ...(throttledB ? [{ label: 'cushion', value: -throttledB }] : []),
            ...(throttledA
              ? [{ label: 'cushion of the other side', value: (throttledA * area) / annulus }]
              : []),
          ],
          behind: A < 0 ? [] : [{ port: A, factor: area / annulus, label: 'cap side' }],
        })
      return held
    },
    balances(l) {
      const load = l.o[OUTPUT.loadForce]
      const capForce = pressureA(l) * acting[ACTING.area]
      const rodForce = pressureB(l) * annulus
      const sides = [
        ...(A < 0 ? [] : [{ label: 'pressure on the cap side', value: capForce }]),
        ...(load < 0 ? [{ label: 'load', value: -load }] : []),
      ]
      return [
        {
          name: 'extends',
          quantity: 'force',
          pushing: sides,
          opposing: [
            ...(B < 0 ? [] : [{ label: 'pressure on the rod side', value: rodForce }]),
            ...(load < 0 ? [] : [{ label: 'load', value: load }]),
            { label: 'friction', value: frictionOf(l) },
          ],
        },
      ]
    },
  }
}

/** N: less pushes nothing. */
const NO_PUSH = 10
export function describeCylinder(l: Local, show: Show): string {
  const at = show(l.x[STATE.position], 'length')
  if (l.mode[1]) return `On its extended stop, pushed with ${show(l.o[OUTPUT.pushForce], 'force')}.`
  if (l.mode[0]) return `On its retracted stop.`
  if (Math.abs(l.x[STATE.velocity]) < 1e-3)
    return Math.abs(l.o[OUTPUT.pushForce]) < NO_PUSH
      ? `Stands at ${at}.`
      : `Stands at ${at}, pushed with ${show(l.o[OUTPUT.pushForce], 'force')}.`
  return `${l.x[STATE.velocity] > 0 ? 'Extends' : 'Retracts'} at ${show(Math.abs(l.x[STATE.velocity]), 'speed')}, now at ${at}, against ${show(l.o[OUTPUT.loadForce], 'force')}.`
}

/** What sets one kind's symbol apart from another's. */
export interface CylinderSymbolOptions {
  /** The port at the rod side is there. */
  readonly rodSide: boolean
  /** Shapes that move with the piston, in place of the usual rod. */
  readonly rod?: readonly Shape[]
  /** No piston: the plunger itself is pushed. */
  readonly plunger?: boolean
  readonly spring?: boolean
  readonly cushionIn?: boolean
  readonly cushionOut?: boolean
  /** How far the drawing reaches to the left of the barrel. */
  readonly left?: number
}

/** The barrel from x = −5 to 4 with its piston at the retracted end; ports below, the rod at the right. */
export function cylinderSymbol(options: CylinderSymbolOptions): SymbolDrawing {
  const left = options.left ?? -5
  const piston: Shape[] = options.plunger
    ? [rectangle(-4, -0.9, 9, 1.8)]
    : [
        rectangle(-4, -1.5, 1, 3),
        ...(options.cushionIn ? [rectangle(-4.5, -0.5, 0.5, 1)] : []),
        ...(options.cushionOut ? [rectangle(-3, -0.7, 0.6, 1.4)] : []),
        rectangle(-3, -0.4, 8, 0.8),
      ]
  return {
    shapes: [
      rectangle(-5, -1.5, 9, 3),
      { shape: 'oil', port: 'A', at: [-5, -1.5], size: [1, 3], stretch: { part: 'rod', edge: 'right' } },
      ...(options.rodSide
        ? [
            {
              shape: 'oil',
              port: 'B',
              at: [-3, -1.5],
              size: [7, 3],
              stretch: { part: 'rod', edge: 'left' },
            } as const,
          ]
        : []),
      rectangle(-5, -1.5, 9, 3, 'none'),
      ...partOf('rod', [...(options.rod ?? piston), line([4.7, 0], [5, 0])]),
      // between the piston and the cap
      ...(options.spring ? partOf('spring', [spring(-3, -0.95, 7, 0.8), spring(-3, 0.95, 7, 0.8)]) : []),
      line([-4, 1.5], [-4, 3]),
      ...(options.rodSide ? [line([3, 1.5], [3, 3])] : []),
    ],
    ports: {
      A: { x: -4, y: 3, side: 'down' },
      ...(options.rodSide ? { B: { x: 3, y: 3, side: 'down' } as const } : {}),
      R: { x: 5, y: 0, side: 'right' },
    },
    box: { x: left, y: -1.5, w: 5 - left, h: 3 },
    captionAt: { x: -5, y: -4.8, anchor: 'start' },
    reading: 'position',
    parts: {
      rod: { signal: 'travelled', zero: 0, travel: 6, full: 1 },
      ...(options.spring
        ? { spring: { signal: 'travelled', zero: 0, travel: 6, full: 1, between: { moving: -3, fixed: 4 } } }
        : {}),
    },
  }
}
