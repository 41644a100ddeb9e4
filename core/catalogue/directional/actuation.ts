/** What works a spool: the actuation at each end, its coils, pilot stages, springs and detents; drawn and computed. */
import type { ChoiceParameter, Local, SymbolForm } from '../kind'
import { arrow, circle, dashed, line, mirroredShapes, rectangle, type Shape } from '../symbol'
import { SOLENOID_LENGTH, pilotTriangle, solenoid, spring } from '../symbol-elements'

export const actuations = {
  solenoid: 'solenoid',
  solenoidPilot: 'solenoid, piloted',
  pilot: 'hydraulic pilot',
  lever: 'lever',
  button: 'push button',
  pedal: 'pedal',
  roller: 'roller',
} as const
export type Actuation = keyof typeof actuations

const choice = <C extends string>(
  label: string,
  standard: NoInfer<C>,
  choices: Record<C, string>,
  note?: string,
) => ({ type: 'choice', label, default: standard, choices, note }) as const satisfies ChoiceParameter

export const actuationParameters = {
  actuation: choice('Actuation', 'solenoid', actuations),
  actuationB: choice(
    'at the other end',
    'standard',
    { standard: 'the usual', ...actuations },
    'the usual: the same for three positions, where a lever or a pedal works both ways; none for two positions, which a spring brings back',
  ),
  override: choice(
    'Hand override',
    'none',
    { none: 'none', button: 'push button on each solenoid', lever: 'lever beside the solenoids' },
    'works the spool without current, and springs back',
  ),
  pilotSupply: choice('Pilot supply', 'internal', {
    internal: 'internal, from P',
    external: 'external, at X',
  }),
  pilotDrain: choice('Pilot drain', 'internal', { internal: 'internal, to T', external: 'external, at Y' }),
  detent: choice(
    'Goes back',
    'spring',
    { spring: 'by its spring', detent: 'only when pushed: detent' },
    'with a detent a command pushes it, and released (0) it stays in the box it is in',
  ),
} as const

export interface ActuationValues {
  readonly actuation: Actuation
  readonly actuationB: Actuation | 'standard'
  readonly override: 'none' | 'button' | 'lever'
  readonly pilotSupply: 'internal' | 'external'
  readonly pilotDrain: 'internal' | 'external'
  readonly detent: 'spring' | 'detent'
}

/** Worked by hand or by the machine at one end, both ways. */
const MECHANICAL = new Set<Actuation>(['lever', 'button', 'pedal', 'roller'])
const SOLENOIDS = new Set<Actuation | undefined>(['solenoid', 'solenoidPilot'])
export const isSolenoid = (end: Actuation | undefined): boolean => SOLENOIDS.has(end)
/** Oil alone works it: no command reaches it. */
export const isWorkedByOil = (a: Actuation, b: Actuation | undefined): boolean =>
  a === 'pilot' && (b === 'pilot' || !b)

/** What works each end: a pushes towards the first position, b towards the last (or back). */
export interface Ends {
  readonly a: Actuation
  readonly b?: Actuation
  /** Solenoids at either end, and whether a pilot stage stands between them and the spool. */
  readonly coils: boolean
  readonly pilotStage: boolean
}
export function endsOf(values: ActuationValues, positions: 2 | 3): Ends {
  const a = values.actuation
  // a spool that no spring brings back needs something that does
  const needsBoth = positions === 3 || values.detent === 'detent'
  const b =
    values.actuationB !== 'standard' ? values.actuationB : needsBoth && !MECHANICAL.has(a) ? a : undefined
  return {
    a,
    b,
    coils: isSolenoid(a) || isSolenoid(b),
    pilotStage: a === 'solenoidPilot' || b === 'solenoidPilot',
  }
}

/** Length of the pilot stage between a solenoid and the spool: one box, or a valve in full. */
const pilotLength = (form: SymbolForm | undefined) => (form === 'detailed' ? 4 : 2)

/** How far the actuation reaches beyond the end of the row, modules. */
function reachOf(actuation: Actuation | undefined, values: ActuationValues, form?: SymbolForm): number {
  if (!actuation) return 0
  if (!isSolenoid(actuation)) return actuation === 'lever' || actuation === 'pedal' ? 3 : 2
  return (
    SOLENOID_LENGTH +
    (actuation === 'solenoidPilot' ? pilotLength(form) : 0) +
    (values.override === 'none' ? 0 : 1)
  )
}

/** Where the letters of its coils are written, over the solenoids. */
export function coilPlaces(half: number, positions: 2 | 3, values: ActuationValues, form?: SymbolForm) {
  const { a, b } = endsOf(values, positions)
  const from = (actuation: Actuation | undefined) =>
    isSolenoid(actuation)
      ? half + (actuation === 'solenoidPilot' ? pilotLength(form) : 0) + SOLENOID_LENGTH / 2
      : undefined
  const [left, right] = [from(a), from(b)]
  return {
    ...(left === undefined ? {} : { a: { x: -left, y: -2.7 } }),
    ...(right === undefined ? {} : { b: { x: right, y: -2.7 } }),
  }
}

/** A lever at the left end x of a row, with its pivot. */
const leverAt = (x: number): Shape[] => [
  line([x, -1], [x - 2, -1]),
  line([x - 2, -1], [x - 2.5, -2.7]),
  circle(x - 2, -1, 0.25, 'ink'),
]

/** A lever at the end x of a row, its rod pointing along `toward`. */
export const lever = (x: number, toward: 1 | -1): Shape[] =>
  toward > 0 ? leverAt(x) : mirroredShapes(leverAt(-x))

/** The pilot stage in full at the left end x: a 3/2 valve that fills or drains the chamber at the end of the spool. */
const pilotValve = (x: number): Shape[] => [
  rectangle(x - 4, -2, 2, 2),
  rectangle(x - 2, -2, 2, 2),
  // pushed by its solenoid it fills, at rest it drains
  ...arrow([x - 3.4, 0], [x - 3, -2]),
  line([x - 2.5, 0], [x - 2.5, -0.5]),
  line([x - 2.8, -0.5], [x - 2.2, -0.5]),
  ...arrow([x - 1, -2], [x - 0.6, 0]),
  line([x - 1.4, 0], [x - 1.4, -0.5]),
  line([x - 1.7, -0.5], [x - 1.1, -0.5]),
]

/** What works the left end of the row, which lies at x. */
function leftEnd(actuation: Actuation, x: number, values: ActuationValues, form?: SymbolForm): Shape[] {
  switch (actuation) {
    case 'solenoid':
    case 'solenoidPilot': {
      const piloted = actuation === 'solenoidPilot'
      const coil = x - (piloted ? pilotLength(form) : 0)
      const end = coil - SOLENOID_LENGTH
      return [
        ...(piloted
          ? form === 'detailed'
            ? pilotValve(x)
            : [rectangle(x - 2, -2, 2, 2), pilotTriangle(x - 0.55, -1)]
          : []),
        ...solenoid(coil, 1),
        ...(values.override === 'button'
          ? [line([end, -1], [end - 0.8, -1]), line([end - 0.8, -1.6], [end - 0.8, -0.4])]
          : values.override === 'lever'
            ? [line([end, -1], [end - 0.7, -1], [end - 1, -2.4]), circle(end - 0.7, -1, 0.2, 'ink')]
            : []),
      ]
    }
    case 'pilot':
      return [dashed([x - 2, -1], [x, -1])]
    case 'lever':
      return leverAt(x)
    case 'button':
      return [line([x, -1], [x - 1.8, -1]), line([x - 1.8, -1.8], [x - 1.8, -0.2])]
    case 'pedal':
      return [line([x, -1], [x - 1.6, -1], [x - 1.6, -0.4], [x - 2.8, -1.4])]
    case 'roller':
      return [line([x, -1], [x - 1, -1]), circle(x - 1.5, -1, 0.5)]
  }
}

/** A detent at the end x of the row: a notch for each position, and the catch in that of the position at rest. */
function detentMark(x: number, positions: 2 | 3, atRest: number): Shape[] {
  const notch = (i: number) => x + 0.3 + 0.9 * i
  return [
    line(
      [x, 0.7],
      ...Array.from({ length: positions }, (_, i) => [
        [notch(i), 0.7] as const,
        [notch(i) + 0.35, 1.3] as const,
        [notch(i) + 0.7, 0.7] as const,
      ]).flat(),
      [notch(positions), 0.7],
    ),
    line([notch(atRest) + 0.35, 2], [notch(atRest) + 0.35, 1.35]),
  ]
}

/**
 * Everything at the two ends of a row of boxes whose middle is at x = 0.
 * @param half half the length of the row
 * @returns the shapes, and how far they reach to the left and to the right of the row
 */
export function endShapes(half: number, positions: 2 | 3, values: ActuationValues, form?: SymbolForm) {
  const { a, b } = endsOf(values, positions)
  const three = positions === 3
  const detent = values.detent === 'detent'
  const springLength = 2.2
  return {
    shapes: [
      ...leftEnd(a, -half, values, form),
      ...(b ? mirroredShapes(leftEnd(b, -half, values, form)) : []),
      ...(detent
        ? detentMark(half, positions, three ? 1 : 0)
        : [
            spring(half, 1, springLength, 1.1),
            ...(three ? [spring(-half - springLength, 1, springLength, 1.1)] : []),
          ]),
    ],
    left: Math.max(reachOf(a, values, form), three && !detent ? springLength : 0),
    right: Math.max(reachOf(b, values, form), detent ? 0.9 * positions + 0.3 : springLength),
  }
}

/** Share of its rated voltage at which a coil pulls in, and below which it drops out. */
export const PULL_IN = 0.85
export const DROP_OUT = 0.4

/** Modes of the coils: which of them pulls the spool, and which have pulled in. */
export const COIL = { engaged: 0, coilA: 1, coilB: 2 } as const
export const COIL_MODES = [0, 0, 0] as const

/** Which position the coils hold: 1 a, −1 b, 0 none. The first to pull in wins. */
export const engagedCoil = (l: Local): number => l.mode[COIL.engaged]
export const coilsOn = (l: Local): number => l.mode[COIL.coilA] + l.mode[COIL.coilB]

/** The measure of a coil's event function: above its pull-in voltage, or above its drop-out voltage where it has pulled in. */
export const coilMeasure = (isOn: number, voltage: number): number => voltage - (isOn ? DROP_OUT : PULL_IN)

/** A coil has pulled in or dropped out. */
export function switchCoil(l: Local, coil: 'coilA' | 'coilB', on: boolean): void {
  const own = coil === 'coilA' ? 1 : -1
  const other = coil === 'coilA' ? COIL.coilB : COIL.coilA
  l.mode[COIL[coil]] = on ? 1 : 0
  if (on && l.mode[COIL.engaged] === 0) l.mode[COIL.engaged] = own
  if (!on && l.mode[COIL.engaged] === own) l.mode[COIL.engaged] = l.mode[other] ? -own : 0
}
