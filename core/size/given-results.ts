/** What a result may be that a person gives in the place of a computed one. */
import type { Quantity } from '../units/quantities'
import { showQuantity } from '../units/text'
import type { ChoiceVariable, StepVariable } from './card'
import { standardSeries } from './series'

/** Largest magnitude of a result that anything in fluid power has, SI; far beyond real machines. */
const LARGEST: Readonly<Record<Quantity, number>> = {
  pressure: 5e8,
  stress: 1e13,
  flow: 10,
  volume: 1e4,
  displacement: 1,
  length: 1e5,
  area: 1e3,
  speed: 1e4,
  oilSpeed: 1e4,
  force: 1e10,
  mass: 1e8,
  time: 1e9,
  rotationalSpeed: 1e5,
  torque: 1e9,
  heatTransfer: 1e7,
  power: 1e9,
  energy: 1e12,
  temperature: 2000,
  viscosity: 1,
  density: 1e5,
  angle: 1e7,
  stiffness: 1e13,
  damping: 1e12,
  inertia: 1e10,
  acceleration: 1e5,
  angularAcceleration: 1e6,
  frequency: 1e6,
  rate: 1e6,
  current: 1e6,
  voltage: 1e6,
  secondMoment: 1e3,
  temperatureDifference: 2000,
  share: 1e4,
  ratio: 1e9,
  signal: 1e12,
}
/** Quantities that a result has with either sign: a force may pull, a pressure difference be reversed. */
const SIGNED: ReadonlySet<Quantity> = new Set([
  'pressure',
  'force',
  'torque',
  'angle',
  'acceleration',
  'angularAcceleration',
  'temperatureDifference',
  'share',
  'ratio',
  'signal',
])
/** A chosen size may be so many times the largest of its series. */
const BEYOND_SERIES = 10

/** What is wrong with a result that is given, for people; nothing where it may stand. @param value SI */
export function givenProblem(variable: StepVariable | ChoiceVariable, value: number): string | undefined {
  const { label, quantity } = variable
  const show = (si: number) => showQuantity(si, quantity, 'metric')
  const isSize = variable.role === 'choice' || variable.sized !== undefined
  const isSetting = variable.ruler === 'setting' || variable.ruler === 'limit' || variable.ruler === 'rating'
  const largest =
    variable.role === 'choice'
      ? BEYOND_SERIES * Math.max(...standardSeries[variable.series].values)
      : LARGEST[quantity]
  if (!Number.isFinite(value) || Math.abs(value) > largest) return `${label} is at most ${show(largest)}.`
  if ((isSize || isSetting) && value <= 0 && !MAY_BE_ZERO.has(quantity)) return `${label} must be above 0.`
  if (value < 0 && (isSize || isSetting || !SIGNED.has(quantity))) return `${label} cannot be negative.`
  return undefined
}
/** Sizes that may be nothing at all: no mass, a stiffness that is not met, a place at the start of the stroke. */
const MAY_BE_ZERO: ReadonlySet<Quantity> = new Set([
  'mass',
  'stiffness',
  'length',
  'heatTransfer',
  'temperature',
])
