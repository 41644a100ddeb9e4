/** What a machine must do: its motions, the order in which they come, and the conditions they share. */
import { z } from 'zod'
import type { Quantity } from '../../units/quantities'
import { ILL_FORMED_MESSAGE, isWellFormed } from '../../sheet/schema'
import { parseQuantity, showQuantity } from '../../units/text'

export const BRIEF_VERSION = 3

// ---- what can be given -------------------------------------------------------------------------------------

/** A value of the brief. It has no default where the machine alone decides it; what is not given is said to be missing. */
export interface Field {
  readonly label: string
  readonly quantity: Quantity
  /** Allowed range, SI, inclusive. */
  readonly min: number
  readonly max: number
  readonly default?: string
  readonly note?: string
  readonly group: string
}
const field = (
  label: string,
  quantity: Quantity,
  min: number,
  max: number,
  group: string,
  { fallback, note }: { fallback?: string; note?: string } = {},
): Field => ({ label, quantity, min, max, group, default: fallback, note })

export const actuators = {
  doubleActing: { label: 'Cylinder, double-acting', family: 'linear' },
  doubleRod: { label: 'Cylinder, double rod', family: 'linear' },
  singleActing: { label: 'Cylinder, single-acting', family: 'linear' },
  plunger: { label: 'Plunger cylinder', family: 'linear' },
  telescopic: { label: 'Telescopic cylinder', family: 'linear' },
  motor: { label: 'Hydraulic motor', family: 'rotary' },
  vane: { label: 'Semi-rotary vane actuator', family: 'rotary' },
  rack: { label: 'Rack-and-pinion actuator', family: 'rotary' },
  winch: { label: 'Winch', family: 'winch' },
  consumer: { label: 'Consumer of flow', family: 'flow' },
} as const
export type ActuatorName = keyof typeof actuators
export type ActuatorFamily = 'linear' | 'rotary' | 'winch' | 'flow'

export const holdings = {
  none: 'nothing; it may drift',
  spool: 'a closed spool',
  pilotCheck: 'a pilot-operated check valve',
  counterbalance: 'a counterbalance valve',
  brake: 'a brake',
  brakeAndValve: 'a brake, and lowered by a counterbalance valve',
  lock: 'a mechanical lock',
} as const
export type Holding = keyof typeof holdings

/** How the ends of a cylinder are held, of which its buckling length follows. */
export const mountings = {
  unknown: 'not given yet',
  fixedFree: 'cylinder fixed, rod end free',
  pivotedPivoted: 'cylinder pivoted, rod end pivoted',
  fixedPivoted: 'cylinder fixed, rod end pivoted and guided',
  pivotedFixed: 'cylinder pivoted, rod end fixed and guided',
  fixedFixed: 'cylinder fixed, rod end fixed and guided',
  trunnionPivoted: 'trunnion, rod end pivoted (length from the trunnion)',
} as const
export type Mounting = keyof typeof mountings

/** In which directions a flow control limits the speed of a motion, whatever the supply can send. */
export const speedControls = {
  none: 'nothing: it takes what the supply sends',
  out: 'a flow control, out',
  back: 'a flow control, back',
  both: 'flow controls, out and back',
  lever: 'a lever or proportional valve, led by hand',
} as const
export type SpeedControl = keyof typeof speedControls

/** In which direction workpiece and load table are met. */
export const workWays = { out: 'going out', back: 'coming back' } as const
export type WorkWay = keyof typeof workWays

/** What is chosen of a motion beside its values, and for which actuators. */
export const motionChoices = {
  holding: { label: 'Held by', options: holdings, families: ['linear', 'rotary', 'winch'] },
  mounting: { label: 'Ends of the cylinder', options: mountings, families: ['linear'] },
  speedControl: {
    label: 'Speed limited by',
    options: speedControls,
    families: ['linear', 'rotary', 'winch'],
  },
  workWay: { label: 'Workpiece met', options: workWays, families: ['linear'] },
} as const satisfies Record<
  string,
  { label: string; options: Readonly<Record<string, string>>; families: readonly ActuatorFamily[] }
>
export type MotionChoiceName = keyof typeof motionChoices

const startModes = {
  open: 'not given yet',
  press: 'one press of a button',
  twoHand: 'two buttons, pressed with both hands together',
  holdToRun: 'a button or lever that is held all the way',
} as const
const stopModes = {
  open: 'not given yet',
  button: 'a stop button',
  emergencyStop: 'a stop button and an emergency stop',
} as const
const cycleModes = {
  open: 'not given yet',
  single: 'one cycle for each start',
  automatic: 'one cycle after the other until it is stopped',
  selector: 'set up or cycle, by a selector',
} as const
const restartModes = {
  open: 'not given yet',
  byPress: 'only by a press, after the supply was lost',
  automatic: 'by itself when the supply returns',
} as const
/** How people work the machine. */
export const operationFields = {
  start: { label: 'Started by', options: startModes, note: 'the control is checked against it' },
  stop: { label: 'Stopped by', options: stopModes, note: 'the control is checked against it' },
  cycle: { label: 'Cycles', options: cycleModes, note: 'of the control, only a selector is asked for' },
  restart: { label: 'Starts again', options: restartModes, note: 'checked against what is proved' },
} as const
export type OperationName = keyof typeof operationFields

export const supplies = {
  fixedPump: 'one fixed pump with a relief valve',
  highLow: 'a high–low pump',
  compensated: 'a pressure-compensated pump',
  loadSensing: 'a load-sensing pump',
  closedCircuit: 'a closed circuit',
  accumulator: 'an accumulator that a pump charges',
} as const
export const drives = { electric: 'electric motor', engine: 'combustion engine' } as const
export const fluids = {
  vg15: 'ISO VG 15',
  vg22: 'ISO VG 22',
  vg32: 'ISO VG 32',
  vg46: 'ISO VG 46',
  vg68: 'ISO VG 68',
  vg100: 'ISO VG 100',
} as const
export const grids = { hz50: '50 Hz', hz60: '60 Hz' } as const

const linearFamilies = ['linear', 'winch'] as const
interface MotionField extends Field {
  /** Actuators that have it. */
  readonly families: readonly ActuatorFamily[]
}
const linear = (f: Field): MotionField => ({ ...f, families: ['linear'] })
const straight = (f: Field): MotionField => ({ ...f, families: linearFamilies })
const rotary = (f: Field): MotionField => ({ ...f, families: ['rotary'] })
const winch = (f: Field): MotionField => ({ ...f, families: ['winch'] })
const moving = (f: Field): MotionField => ({ ...f, families: ['linear', 'rotary', 'winch'] })
const consumer = (f: Field): MotionField => ({ ...f, families: ['flow'] })
const every = (f: Field): MotionField => ({ ...f, families: ['linear', 'rotary', 'winch', 'flow'] })

/** Values of a motion. "Out" is extending, hauling in or the first sense of rotation; "back" the other way. */
export const motionFields = {
  stroke: straight(field('Stroke', 'length', 1e-3, 5000, 'Movement')),
  angle: rotary(field('Angle', 'angle', 1e-3, 1e6, 'Movement')),
  flow: consumer(field('Flow', 'flow', 1e-8, 1, 'Movement')),
  pressure: consumer(field('Pressure', 'pressure', 0, 700e5, 'Load', { note: 'that it needs at this flow' })),
  outTime: every(field('Time out', 'time', 0.01, 86400, 'Movement', { note: 'or give the speed' })),
  backTime: moving(field('Time back', 'time', 0.01, 86400, 'Movement', { note: 'or give the speed' })),
  outSpeed: straight(field('Speed out', 'speed', 1e-6, 20, 'Movement')),
  backSpeed: straight(field('Speed back', 'speed', 1e-6, 20, 'Movement')),
  outRotation: rotary(field('Rotational speed out', 'rotationalSpeed', 1e-5, 1000, 'Movement')),
  backRotation: rotary(field('Rotational speed back', 'rotationalSpeed', 1e-5, 1000, 'Movement')),
  ramp: moving(
    field('Time to accelerate', 'time', 0.001, 60, 'Movement', {
      fallback: '0.2 s',
      note: 'to full speed, and to stop',
    }),
  ),
  forceOut: straight(
    field('Force against it, out', 'force', -1e8, 1e8, 'Load', {
      note: 'all the way; negative where it drives the motion',
    }),
  ),
  forceBack: straight(field('Force against it, back', 'force', -1e8, 1e8, 'Load')),
  mass: straight(field('Moved mass', 'mass', 0, 1e7, 'Load')),
  leastMass: straight(
    field('Moved mass, least', 'mass', 0, 1e7, 'Load', { fallback: '0 kg', note: 'without what it carries' }),
  ),
  slope: straight(
    field('Slope', 'angle', -Math.PI / 2, Math.PI / 2, 'Load', {
      fallback: '0 °',
      note: '90° where extending lifts, −90° where it lowers',
    }),
  ),
  friction: straight(field('Friction of guides', 'force', 0, 1e8, 'Load', { fallback: '0 N' })),
  workForce: linear(
    field('Force of the workpiece', 'force', 0, 1e8, 'Load', { note: 'at the end of its way' }),
  ),
  workStroke: linear(
    field('Stroke on the workpiece', 'length', 1e-4, 20, 'Load', {
      note: 'over which its force rises from nothing',
    }),
  ),
  torqueOut: rotary(
    field('Torque against it, out', 'torque', -1e8, 1e8, 'Load', { note: 'negative where it drives' }),
  ),
  torqueBack: rotary(field('Torque against it, back', 'torque', -1e8, 1e8, 'Load')),
  inertia: rotary(field('Moment of inertia', 'inertia', 0, 1e9, 'Load', { fallback: '0 kg·m²' })),
  frictionTorque: rotary(field('Friction torque', 'torque', 0, 1e8, 'Load', { fallback: '0 N·m' })),
  drum: winch(field('Drum diameter', 'length', 0.02, 10, 'Load', { note: 'to the middle of the rope' })),
  gear: {
    ...field('Gear ratio', 'ratio', 0.01, 1000, 'Load', { fallback: '1' }),
    families: ['rotary', 'winch'],
  },
  accuracy: linear(field('Position within', 'length', 1e-6, 1, 'Holding')),
  holdTime: moving(field('Held for', 'time', 0, 1e7, 'Holding', { note: 'without supply' })),
} as const satisfies Record<string, MotionField>
export type MotionFieldName = keyof typeof motionFields
export const motionFieldNames = Object.keys(motionFields) as MotionFieldName[]

/** Values that all motions share. */
export const machineFields = {
  maximumPressure: field('Pressure class', 'pressure', 5e5, 700e5, 'Supply', {
    note: 'no line rises above it',
  }),
  shaftSpeed: field('Shaft speed', 'rotationalSpeed', 1, 1000, 'Supply', { fallback: '1450 rpm' }),
  voltage: field('Grid voltage', 'voltage', 24, 15000, 'Supply', { fallback: '400 V' }),
  cycleTime: field('Cycle time', 'time', 0.1, 1e6, 'Duty', {
    note: 'where it is longer than the motions take',
  }),
  hoursPerDay: field('Hours a day', 'time', 60, 86400, 'Duty', { fallback: '8 h' }),
  ambientMin: field('Ambient, lowest', 'temperature', 213.15, 333.15, 'Surroundings', { fallback: '0 °C' }),
  ambientMax: field('Ambient, highest', 'temperature', 213.15, 343.15, 'Surroundings', { fallback: '30 °C' }),
  oilTemperature: field('Working oil temperature', 'temperature', 253.15, 363.15, 'Surroundings', {
    fallback: '45 °C',
  }),
  altitude: field('Altitude', 'length', -500, 6000, 'Surroundings', { fallback: '0 m' }),
} as const satisfies Record<string, Field>
export type MachineFieldName = keyof typeof machineFields
export const machineFieldNames = Object.keys(machineFields) as MachineFieldName[]

// ---- the document ------------------------------------------------------------------------------------------

const wellFormed = (longest: number) =>
  z.string().max(longest).refine(isWellFormed, { error: ILL_FORMED_MESSAGE })
const text = wellFormed(4000).default('')
const valueText = wellFormed(60)
const id = z.string().min(1).max(40)
export const LARGEST_BRIEF = { motions: 40, steps: 200, table: 200 }

export const motionSchema = z.strictObject({
  id,
  name: wellFormed(60).trim().min(1),
  actuator: z.enum(Object.keys(actuators) as [ActuatorName]),
  /** Designation of the actuator on the sheets, where it is drawn. */
  designation: wellFormed(40).default(''),
  values: z.partialRecord(z.enum(motionFieldNames as [MotionFieldName]), valueText).default({}),
  /** Force against it over its stroke, beside the constant one: pairs of stroke and force. */
  loadTable: z
    .array(z.tuple([valueText, valueText]))
    .max(LARGEST_BRIEF.table)
    .default([]),
  /** The way in which workpiece and load table are met. */
  workWay: z.enum(Object.keys(workWays) as [WorkWay]).default('out'),
  holding: z.enum(Object.keys(holdings) as [Holding]).default('spool'),
  mounting: z.enum(Object.keys(mountings) as [Mounting]).default('unknown'),
  speedControl: z.enum(Object.keys(speedControls) as [SpeedControl]).default('none'),
  /** Somebody may be under or in front of what it moves. */
  people: z.boolean().default(false),
})
export type Motion = z.infer<typeof motionSchema>

export const cycleStepSchema = z.strictObject({
  id,
  /** Nothing moves where none is named: a wait. */
  motion: id.optional(),
  way: z.enum(['out', 'back', 'wait']),
  /** With the step before it, or after all before it. */
  start: z.enum(['after', 'with']).default('after'),
  delay: valueText.optional(),
  /** Instead of the time of the motion; of a wait, its length. */
  duration: valueText.optional(),
  condition: wellFormed(200).default(''),
})
export type CycleStep = z.infer<typeof cycleStepSchema>

const choiceOf = <T extends string>(options: Readonly<Record<T, string>>) =>
  z.enum(Object.keys(options) as [T]).default('open' as T)
export const operationSchema = z
  .strictObject({
    start: choiceOf(operationFields.start.options),
    stop: choiceOf(operationFields.stop.options),
    cycle: choiceOf(operationFields.cycle.options),
    restart: choiceOf(operationFields.restart.options),
  })
  .prefault({})

export const briefSchema = z.strictObject({
  version: z.literal(BRIEF_VERSION).default(BRIEF_VERSION),
  purpose: text.describe('What the machine must do, in which order.'),
  never: text.describe('What must never happen.'),
  onLoss: text.describe('What happens when power is lost.'),
  onOilLoss: text.describe('What happens when oil is lost.'),
  onControlLoss: text.describe('What happens when the control fails.'),
  values: z.partialRecord(z.enum(machineFieldNames as [MachineFieldName]), valueText).default({}),
  supply: z.enum(Object.keys(supplies) as [keyof typeof supplies]).default('fixedPump'),
  drive: z.enum(Object.keys(drives) as [keyof typeof drives]).default('electric'),
  grid: z.enum(Object.keys(grids) as [keyof typeof grids]).default('hz50'),
  fluid: z.enum(Object.keys(fluids) as [keyof typeof fluids]).default('vg46'),
  operation: operationSchema.describe('How it is started and stopped; the control is checked against it.'),
  motions: z.array(motionSchema).max(LARGEST_BRIEF.motions).default([]),
  cycle: z.array(cycleStepSchema).max(LARGEST_BRIEF.steps).default([]),
  cardValues: z
    .record(z.string().max(100), z.record(z.string().max(60), valueText))
    .default({})
    .describe('Values on cards that hold for all variants; a sheet may have others.'),
})
export type Brief = z.infer<typeof briefSchema>

export const emptyBrief = (): Brief => briefSchema.parse({})
export const familyOf = (motion: Pick<Motion, 'actuator'>): ActuatorFamily =>
  actuators[motion.actuator].family
/** Names of the choices that a motion of this actuator has. */
export const choicesOf = (motion: Pick<Motion, 'actuator'>): MotionChoiceName[] =>
  (Object.keys(motionChoices) as MotionChoiceName[]).filter((name) =>
    (motionChoices[name].families as readonly ActuatorFamily[]).includes(familyOf(motion)),
  )
/** Names of the values that a motion of this actuator has. */
export const fieldsOf = (motion: Pick<Motion, 'actuator'>): MotionFieldName[] =>
  motionFieldNames.filter((name) =>
    (motionFields[name].families as readonly ActuatorFamily[]).includes(familyOf(motion)),
  )

// ---- values and what is wrong with them ------------------------------------------------------------------

/** Where a problem of a brief is: a value of the machine, or of a motion, or a step of the cycle. */
export interface BriefProblem {
  readonly message: string
  readonly motion?: string
  readonly step?: string
  readonly field: string
}

type Read = { readonly value?: number } | { readonly message: string }
/** Reads the text of a field; nothing where none is given and it has no default. */
export function readField(definition: Field, written: string | undefined): Read {
  const value = written?.trim() || definition.default
  if (value === undefined) return {}
  const read = parseQuantity(value, definition.quantity)
  if (!read.ok) return { message: read.message }
  const { min, max, quantity } = definition
  if (read.si < min * (1 - Math.sign(min) * 1e-9) || read.si > max * (1 + Math.sign(max) * 1e-9))
    return {
      message: `${definition.label} is between ${showQuantity(min, quantity, 'metric')} and ${showQuantity(max, quantity, 'metric')}.`,
    }
  return { value: read.si }
}
const valueOf = (read: Read) => ('value' in read ? read.value : undefined)

/** What was read from an object that is never changed in place, kept as long as it exists. */
function readOnce<K extends object, V>(read: (of: K) => V): (of: K) => V {
  const known = new WeakMap<K, V>()
  return (of) => {
    let value = known.get(of)
    if (value === undefined) known.set(of, (value = read(of)))
    return value
  }
}
const motionValues = readOnce((motion: Motion): Readonly<Partial<Record<MotionFieldName, number>>> =>
  Object.fromEntries(
    fieldsOf(motion).map((name) => [name, valueOf(readField(motionFields[name], motion.values[name]))]),
  ),
)
/** A value of a motion, SI; nothing where it is missing or does not read. */
export const motionValue = (motion: Motion, name: MotionFieldName): number | undefined =>
  motionValues(motion)[name]
export const machineValue = (brief: Brief, name: MachineFieldName): number | undefined =>
  valueOf(readField(machineFields[name], brief.values[name]))

/** The load table of a motion, SI, by rising stroke; what does not read is left out. */
export const loadTableOf = readOnce((motion: Motion): readonly (readonly [x: number, force: number])[] =>
  motion.loadTable
    .map(([x, force]) => [parseQuantity(x, 'length'), parseQuantity(force, 'force')] as const)
    .flatMap(([x, force]) => (x.ok && force.ok ? [[x.si, force.si] as const] : []))
    .sort((a, b) => a[0] - b[0]),
)

/** Travel, and time each way, SI; a speed gives the time where no time is given. */
export const movementOf = readOnce((motion: Motion): { travel?: number; out?: number; back?: number } => {
  const family = familyOf(motion)
  const turning = family === 'rotary'
  // what only takes oil goes from none of its time to all of it
  const travel = family === 'flow' ? 1 : motionValue(motion, turning ? 'angle' : 'stroke')
  const time = (direct: MotionFieldName, speed: MotionFieldName) => {
    const [given, v] = [motionValue(motion, direct), motionValue(motion, speed)]
    return given ?? (v !== undefined && travel !== undefined ? travel / v : undefined)
  }
  return {
    travel,
    out: time('outTime', turning ? 'outRotation' : 'outSpeed'),
    back: time('backTime', turning ? 'backRotation' : 'backSpeed'),
  }
})

/** What does not read or contradicts itself. What is only missing is said by `missingOf`. */
export function briefProblems(brief: Brief): BriefProblem[] {
  const problems: BriefProblem[] = []
  for (const name of machineFieldNames) {
    const read = readField(machineFields[name], brief.values[name])
    if ('message' in read) problems.push({ field: name, message: read.message })
  }
  const [low, high] = [machineValue(brief, 'ambientMin'), machineValue(brief, 'ambientMax')]
  if (low !== undefined && high !== undefined && low > high)
    problems.push({ field: 'ambientMax', message: 'The highest ambient temperature is below the lowest.' })
  for (const motion of brief.motions) {
    const at = (name: string, message: string) => problems.push({ motion: motion.id, field: name, message })
    for (const name of fieldsOf(motion)) {
      const read = readField(motionFields[name], motion.values[name])
      if ('message' in read) at(name, read.message)
    }
    const pushing = (['slope', 'forceOut'] as const).find((name) => (motionValue(motion, name) ?? 0) < 0)
    if (familyOf(motion) === 'winch' && pushing)
      at(
        pushing,
        'A rope only pulls: hauling in is always against the load. Describe the other way as paying out.',
      )
    const turning = familyOf(motion) === 'rotary'
    for (const [time, speed] of [
      ['outTime', turning ? 'outRotation' : 'outSpeed'],
      ['backTime', turning ? 'backRotation' : 'backSpeed'],
    ] as const)
      if (motion.values[time]?.trim() && motion.values[speed]?.trim())
        at(speed, 'Give the time or the speed, not both: one follows from the other.')
    const { travel } = movementOf(motion)
    const work = motionValue(motion, 'workStroke')
    if (travel !== undefined && work !== undefined && work > travel * (1 + 1e-9))
      at('workStroke', 'The force cannot rise over more than the whole stroke.')
    const rows = motion.loadTable.flatMap(([x, force]) => {
      const read = [parseQuantity(x, 'length'), parseQuantity(force, 'force')]
      for (const r of read) if (!r.ok) at('loadTable', r.message)
      return read[0].ok ? [read[0].si] : []
    })
    if (rows.some((x, i) => i > 0 && x <= rows[i - 1]))
      at('loadTable', 'The strokes of the load table must rise.')
    if (travel !== undefined && rows.some((x) => x < 0 || x > travel * (1 + 1e-9)))
      at('loadTable', 'The load table goes beyond the stroke.')
  }
  for (const step of brief.cycle) {
    const at = (name: string, message: string) => problems.push({ step: step.id, field: name, message })
    for (const name of ['delay', 'duration'] as const) {
      const written = step[name]
      if (!written) continue
      const read = parseQuantity(written, 'time')
      if (!read.ok) at(name, read.message)
      else if (read.si < 0 || read.si > 86400) at(name, 'A time is between 0 s and a day.')
    }
    if (step.way !== 'wait' && !brief.motions.some((m) => m.id === step.motion))
      at('motion', 'This step names no motion of the brief.')
  }
  return problems
}

/** What must be given before anything can be sized: in words, one each. */
export function missingOf(brief: Brief): BriefProblem[] {
  if (!brief.motions.length)
    return [
      { field: 'motions', message: 'No motion is described yet: say what moves, how far and against what.' },
    ]
  const missing: BriefProblem[] = []
  if (!brief.values.maximumPressure?.trim())
    missing.push({ field: 'maximumPressure', message: 'The pressure class is not given.' })
  for (const motion of brief.motions) {
    const at = (name: MotionFieldName, what: string) =>
      missing.push({ motion: motion.id, field: name, message: `${motion.name}: ${what} not given.` })
    const family = familyOf(motion)
    const given = (name: MotionFieldName) => !!motion.values[name]?.trim()
    if (family === 'flow') {
      if (!given('flow')) at('flow', 'the flow is')
      if (!given('pressure')) at('pressure', 'the pressure is')
      if (!given('outTime')) at('outTime', 'the time is')
    } else if (family === 'rotary') {
      if (!given('angle')) at('angle', 'the angle is')
      if (!given('outTime') && !given('outRotation')) at('outTime', 'time or speed out is')
      if (!given('torqueOut') && !given('inertia')) at('torqueOut', 'torque or moment of inertia is')
    } else {
      if (!given('stroke')) at('stroke', 'the stroke is')
      if (!given('outTime') && !given('outSpeed')) at('outTime', 'time or speed out is')
      if (!given('forceOut') && !given('mass') && !given('workForce') && !motion.loadTable.length)
        at('forceOut', 'no load is')
      if (family === 'winch' && !given('drum')) at('drum', 'the drum diameter is')
    }
  }
  return missing
}
