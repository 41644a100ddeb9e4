/** From written values to SI numbers, with a message for every value that does not work. */
import { findKind, type AnyKind } from '../catalogue'
import type { Parameter, Table, TableParameter } from '../catalogue/kind'
import { type FluidData } from '../fluid/fluid'
import type { Quantity } from '../units/quantities'
import { parseQuantity, showQuantity } from '../units/text'
import type { Finding, Location } from './finding'
import { memoized } from './memoized'
import type { FluidSettings, Pipe, SheetComponent, LineSpeedSettings, TankSettings } from './schema'

export type Value = number | string | boolean | Table
export interface ResolvedComponent {
  readonly component: SheetComponent
  readonly kind: AnyKind
  readonly values: Readonly<Record<string, Value>>
}

const error = (rule: string, message: string, place: Location, remedy?: string): Finding => ({
  rule,
  severity: 'error',
  message,
  location: place,
  remedy,
})

/** A parameter as it is written in a sheet file. */
export type RawValue = SheetComponent['parameters'][string]

function readTable(
  parameter: TableParameter,
  written: RawValue | undefined,
): { value: Table } | { message: string } {
  if (written === undefined) return { value: { x: [], y: [] } }
  if (!Array.isArray(written)) return { message: `${parameter.label} needs a table: pairs of values.` }
  const x: number[] = []
  const y: number[] = []
  for (const [at, value] of written) {
    const where = parseQuantity(at, parameter.x.quantity)
    const what = parseQuantity(value, parameter.y.quantity)
    if (!where.ok) return { message: `${parameter.label}: ${where.message}` }
    if (!what.ok) return { message: `${parameter.label}: ${what.message}` }
    if (x.length && where.si <= x[x.length - 1])
      return { message: `${parameter.label}: ${at} must lie beyond the row before it.` }
    if (what.si < parameter.y.min || what.si > parameter.y.max)
      return { message: `${parameter.label}: ${value} is outside what is possible here.` }
    x.push(where.si)
    y.push(what.si)
  }
  return { value: { x, y } }
}

/** Reads one parameter as written. @returns its value, or a message saying what is wrong */
export function readParameter(
  parameter: Parameter,
  written: RawValue | undefined,
): { value: Value } | { message: string } {
  if (parameter.type === 'table') return readTable(parameter, written)
  if (parameter.type === 'switch') {
    const value = written ?? parameter.default
    return typeof value === 'boolean'
      ? { value }
      : { message: `${parameter.label} is on or off (true or false), not "${value}".` }
  }
  const text = written ?? parameter.default
  if (typeof text !== 'string') return { message: `${parameter.label} needs a single value.` }
  if (parameter.type === 'text') return { value: text }
  if (parameter.type === 'choice')
    return text in parameter.choices
      ? { value: text }
      : {
          message: `${parameter.label} cannot be "${text}"; choose ${Object.keys(parameter.choices).join(', ')}.`,
        }
  const parsed = parseQuantity(text, parameter.quantity)
  if (!parsed.ok) return { message: `${parameter.label}: ${parsed.message}` }
  // a hair of slack, so that a limit written in another unit is still inside
  const slack = 1e-9 * Math.max(Math.abs(parameter.min), Math.abs(parameter.max))
  if (parsed.si < parameter.min - slack || parsed.si > parameter.max + slack) {
    const show = (si: number) => showQuantity(si, parameter.quantity, 'metric')
    return {
      message: `${parameter.label} of ${text} is outside what is possible here: ${show(parameter.min)} to ${show(parameter.max)}.`,
    }
  }
  return { value: parsed.si }
}

/**
 * The kind of a component with its values in SI. An invalid value is reported as a problem and replaced by the default;
 * only a component of an unknown kind is not resolved at all.
 */
export const resolveComponent = memoized(readComponent)

function readComponent(component: SheetComponent): {
  readonly resolved?: ResolvedComponent
  readonly problems: readonly Finding[]
} {
  const kind = findKind(component.kind)
  const place = { component: component.id }
  if (!kind)
    return {
      problems: [error('kind', `Nothing is known of a component "${component.kind}".`, place)],
    }
  const problems: Finding[] = []
  // it has all its fields from the start: filled one by one it becomes a hash table, and the equations run half as fast
  const values: Record<string, unknown> = { ...kind.parameters }
  for (const name of Object.keys(component.parameters))
    if (!Object.hasOwn(kind.parameters, name))
      problems.push(
        error('parameter', `${kind.label} has no parameter "${name}".`, { ...place, parameter: name }),
      )
  for (const [name, parameter] of Object.entries(kind.parameters)) {
    const own = Object.hasOwn(component.parameters, name) ? component.parameters[name] : undefined
    const read = readParameter(parameter as Parameter, own)
    if ('message' in read) {
      problems.push(error('value', read.message, { ...place, parameter: name }))
      // the component is there all the same: without it, rules would say untrue things of its neighbours
      const usual = readParameter(parameter as Parameter, undefined)
      if ('value' in usual) values[name] = usual.value
    } else values[name] = read.value
  }
  const read = values as Record<string, Value>
  if (!problems.length)
    for (const { parameter, message } of kind.validate?.(read) ?? [])
      problems.push(error('value', message, { ...place, parameter }))
  return { resolved: { component, kind, values: read }, problems }
}

function readRanged(
  text: string,
  quantity: Quantity,
  label: string,
  min: number,
  max: number,
  place: Location,
  problems: Finding[],
): number {
  const read = readParameter({ type: 'quantity', label, quantity, default: text, min, max }, text)
  if ('message' in read) {
    problems.push(error('value', read.message, place))
    return Number.NaN
  }
  return read.value as number
}

export const pipeLimits = {
  length: [0, 1000],
  bore: [0.5e-3, 1],
  volume: [0, 10],
  rating: [1e5, 3000e5],
  wall: [1e-4, 0.2],
} as const

export const tankParameters = {
  oil: { label: 'Oil in each tank', quantity: 'volume', min: 1e-4, max: 1000 },
  ambient: { label: 'Ambient temperature', quantity: 'temperature', min: 213.15, max: 353.15 },
  heatLoss: { label: 'Heat loss coefficient', quantity: 'heatTransfer', min: 0, max: 1e6 },
} as const satisfies Record<
  Exclude<keyof TankSettings, 'warming'>,
  { label: string; quantity: Quantity; min: number; max: number }
>

/** The tank and its surroundings in SI. */
export interface TankData {
  /** m³ in each tank at the start. */
  readonly oil: number
  /** K */
  readonly ambient: number
  /** W/K */
  readonly heatLoss: number
  readonly warming: boolean
}

export function resolveTank(settings: TankSettings): { data: TankData; problems: Finding[] } {
  const problems: Finding[] = []
  const read = (name: keyof typeof tankParameters) => {
    const { quantity, label, min, max } = tankParameters[name]
    return readRanged(settings[name], quantity, label, min, max, { parameter: name }, problems)
  }
  const data = {
    oil: read('oil'),
    ambient: read('ambient'),
    heatLoss: read('heatLoss'),
    warming: settings.warming,
  }
  return { data, problems }
}

/** Greatest usual speeds of oil by the service of a line (good practice beside ISO 4413). */
export const lineSpeedParameters = {
  suction: { label: 'In suction lines', quantity: 'oilSpeed', min: 0.01, max: 100 },
  return: { label: 'In return lines', quantity: 'oilSpeed', min: 0.01, max: 100 },
  pressure: { label: 'In pressure lines', quantity: 'oilSpeed', min: 0.01, max: 100 },
} as const satisfies Record<
  keyof LineSpeedSettings,
  { label: string; quantity: Quantity; min: number; max: number }
>
/** In m/s. */
export function resolveLineSpeeds(settings: LineSpeedSettings) {
  const problems: Finding[] = []
  const read = (name: keyof LineSpeedSettings) => {
    const { quantity, label, min, max } = lineSpeedParameters[name]
    return readRanged(settings[name], quantity, label, min, max, { parameter: name }, problems)
  }
  return {
    data: { suction: read('suction'), return: read('return'), pressure: read('pressure') },
    problems,
  }
}

/** Length, bore and oil volume of a pipe in SI. */
export const resolvePipe = memoized(readPipe)

function readPipe(pipe: Pipe): {
  readonly length: number
  readonly bore: number
  readonly volume: number
  /** Pa; none where the pipe has no rating. */
  readonly rating?: number
  /** Thickness of its wall, m; none where it has none. */
  readonly wall?: number
  readonly problems: readonly Finding[]
} {
  const problems: Finding[] = []
  const place = (parameter: string) => ({ pipe: pipe.id, parameter })
  const length = readRanged(pipe.length, 'length', 'Length', ...pipeLimits.length, place('length'), problems)
  const bore = readRanged(pipe.bore, 'length', 'Bore', ...pipeLimits.bore, place('bore'), problems)
  const volume =
    pipe.volume === undefined
      ? ((Math.PI * bore * bore) / 4) * length
      : readRanged(pipe.volume, 'volume', 'Volume', ...pipeLimits.volume, place('volume'), problems)
  const rating =
    pipe.rating === undefined
      ? undefined
      : readRanged(pipe.rating, 'pressure', 'Rating', ...pipeLimits.rating, place('rating'), problems)
  if ((pipe.lineModel === 'friction' || pipe.lineModel === 'distributed') && length === 0)
    problems.push(
      error(
        'value',
        'A pipe with friction needs a length.',
        place('length'),
        'Give a length or make it loss-free.',
      ),
    )
  const wall =
    pipe.wall === undefined
      ? undefined
      : readRanged(pipe.wall, 'length', 'Wall', ...pipeLimits.wall, place('wall'), problems)
  return { length, bore, volume, rating, wall, problems }
}

export const fluidParameters = {
  density15: { label: 'Density at 15 °C', quantity: 'density', min: 500, max: 2000 },
  viscosity40: { label: 'Viscosity at 40 °C', quantity: 'viscosity', min: 1e-6, max: 2e-3 },
  viscosity100: { label: 'Viscosity at 100 °C', quantity: 'viscosity', min: 0.8e-6, max: 5e-4 },
  temperature: { label: 'Oil temperature', quantity: 'temperature', min: 233.15, max: 423.15 },
  bulkModulus: { label: 'Bulk modulus', quantity: 'pressure', min: 1e8, max: 1e10 },
  freeAir: { label: 'Free air', quantity: 'share', min: 0, max: 0.2 },
  airExponent: { label: 'Polytropic exponent of the air', quantity: 'ratio', min: 1, max: 1.67 },
} as const satisfies Record<
  Exclude<keyof FluidSettings, 'name'>,
  { label: string; quantity: Quantity; min: number; max: number }
>

export function resolveFluid(settings: FluidSettings): { data: FluidData; problems: Finding[] } {
  const problems: Finding[] = []
  const data = {} as Record<keyof typeof fluidParameters, number>
  for (const [name, p] of Object.entries(fluidParameters) as [
    keyof typeof fluidParameters,
    (typeof fluidParameters)[keyof typeof fluidParameters],
  ][])
    data[name] = readRanged(settings[name], p.quantity, p.label, p.min, p.max, { parameter: name }, problems)
  if (data.viscosity100 >= data.viscosity40)
    problems.push(error('value', 'Oil is thinner at 100 °C than at 40 °C.', { parameter: 'viscosity100' }))
  return { data, problems }
}
