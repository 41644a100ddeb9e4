/**
 * The quantities of fluid power and the units people write them in.
 * This is the only file with conversion factors; everything else works in SI.
 */

export interface Unit {
  /** The spelling shown to people. */
  readonly symbol: string
  /** SI value = value · factor + offset. */
  readonly factor: number
  readonly offset?: number
  /** Other accepted spellings, compared without case and spaces. */
  readonly also?: readonly string[]
}

const INCH = 0.0254
const FOOT = 12 * INCH
const POUND = 0.45359237
/** lbf = lb · standard gravity, exactly. */
const POUND_FORCE = 4.4482216152605
const GALLON = 231 * INCH ** 3
const RPM = (2 * Math.PI) / 60
const DEGREE = Math.PI / 180
/** Standard gravity, m/s² (CGPM 1901). */
export const GRAVITY = 9.80665
/** Standard atmosphere, Pa. */
export const ATMOSPHERE = 101325
const PSI = POUND_FORCE / INCH ** 2
/** kgf = kg · standard gravity, exactly. */
const KILOGRAM_FORCE = GRAVITY
/** Imperial gallon, exactly (Weights and Measures Act 1985). */
const IMPERIAL_GALLON = 4.54609e-3

/** The unit systems offered: the first is written by default. */
export const unitSystems = ['metric', 'us'] as const
export type UnitSystem = (typeof unitSystems)[number]

interface QuantityDefinition {
  readonly label: string
  readonly units: readonly Unit[]
  /** Unit symbol shown in each system. */
  readonly shown: Readonly<Record<UnitSystem, string>>
  /** Smaller unit for values below a limit (SI), where a sentence or a field shows one. */
  readonly small?: { readonly below: number; readonly symbol: string }
  /** Larger unit from a limit (SI) on, in each system. */
  readonly large?: { readonly from: number; readonly symbol: Readonly<Record<UnitSystem, string>> }
  /** What a gauge on a machine could not tell from nothing, SI. */
  readonly finest?: number
}

/** Of a part that moves and of oil in lines. */
const speedUnits: readonly Unit[] = [
  { symbol: 'mm/s', factor: 1e-3 },
  { symbol: 'm/s', factor: 1 },
  { symbol: 'm/min', factor: 1 / 60 },
  { symbol: 'in/s', factor: INCH, also: ['ips'] },
  { symbol: 'ft/s', factor: FOOT, also: ['fps'] },
  { symbol: 'ft/min', factor: FOOT / 60 },
]

const definitions = {
  pressure: {
    label: 'pressure',
    shown: { metric: 'bar', us: 'psi' },
    finest: 1e3,
    units: [
      { symbol: 'bar', factor: 1e5, also: ['barg', 'bar(g)', 'bar g'] },
      { symbol: 'MPa', factor: 1e6, also: ['N/mm²', 'N/mm2'] },
      { symbol: 'kPa', factor: 1e3 },
      { symbol: 'Pa', factor: 1 },
      { symbol: 'psi', factor: PSI, also: ['lbf/in2', 'lbf/in²', 'psig', 'psi(g)'] },
      {
        symbol: 'kgf/cm²',
        factor: KILOGRAM_FORCE / 1e-4,
        also: ['kgf/cm2', 'kg/cm²', 'kg/cm2', 'kp/cm²', 'kp/cm2', 'at'],
      },
    ],
  },
  stress: {
    label: 'stress',
    shown: { metric: 'MPa', us: 'psi' },
    units: [
      { symbol: 'MPa', factor: 1e6, also: ['N/mm²', 'N/mm2'] },
      { symbol: 'GPa', factor: 1e9, also: ['kN/mm²', 'kN/mm2'] },
      { symbol: 'bar', factor: 1e5 },
      { symbol: 'Pa', factor: 1 },
      { symbol: 'psi', factor: PSI, also: ['lbf/in2', 'lbf/in²'] },
    ],
  },
  flow: {
    label: 'flow',
    shown: { metric: 'L/min', us: 'gpm' },
    finest: 0.001 / 60000,
    units: [
      { symbol: 'L/min', factor: 1 / 60000, also: ['lpm', 'l/min', 'dm3/min', 'dm³/min'] },
      { symbol: 'cm³/min', factor: 1e-6 / 60, also: ['cc/min', 'cm3/min', 'mL/min'] },
      { symbol: 'm³/s', factor: 1, also: ['m3/s'] },
      { symbol: 'm³/h', factor: 1 / 3600, also: ['m3/h'] },
      { symbol: 'L/h', factor: 1e-3 / 3600, also: ['lph'] },
      { symbol: 'L/s', factor: 1e-3, also: ['l/s'] },
      { symbol: 'cm³/s', factor: 1e-6, also: ['cc/s', 'cm3/s', 'mL/s'] },
      { symbol: 'gpm', factor: GALLON / 60, also: ['gal/min', 'usgpm', 'US gpm', 'US gal/min'] },
      {
        symbol: 'imp gpm',
        factor: IMPERIAL_GALLON / 60,
        also: ['imp gal/min', 'UK gpm', 'UK gal/min', 'igpm'],
      },
      { symbol: 'in³/min', factor: INCH ** 3 / 60, also: ['in3/min'] },
    ],
  },
  volume: {
    label: 'volume',
    shown: { metric: 'L', us: 'gal' },
    units: [
      { symbol: 'L', factor: 1e-3, also: ['dm3', 'dm³', 'litre', 'liter'] },
      { symbol: 'cm³', factor: 1e-6, also: ['cc', 'cm3', 'ml'] },
      { symbol: 'm³', factor: 1, also: ['m3'] },
      { symbol: 'gal', factor: GALLON, also: ['US gal'] },
      { symbol: 'imp gal', factor: IMPERIAL_GALLON, also: ['UK gal'] },
      { symbol: 'in³', factor: INCH ** 3, also: ['in3'] },
    ],
  },
  displacement: {
    label: 'displacement',
    shown: { metric: 'cm³/rev', us: 'in³/rev' },
    units: [
      { symbol: 'cm³/rev', factor: 1e-6, also: ['cc', 'cc/rev', 'cm3', 'cm³', 'cm3/rev'] },
      { symbol: 'L/rev', factor: 1e-3 },
      { symbol: 'm³/rev', factor: 1, also: ['m3/rev'] },
      { symbol: 'in³/rev', factor: INCH ** 3, also: ['in3/rev', 'in3', 'in³', 'cir', 'cu.in'] },
    ],
  },
  length: {
    label: 'length',
    shown: { metric: 'mm', us: 'in' },
    small: { below: 5e-5, symbol: 'µm' },
    large: { from: 10, symbol: { metric: 'm', us: 'ft' } },
    finest: 5e-5,
    units: [
      { symbol: 'mm', factor: 1e-3 },
      { symbol: 'cm', factor: 1e-2 },
      { symbol: 'm', factor: 1 },
      { symbol: 'µm', factor: 1e-6, also: ['um', 'μm', 'micron'] },
      { symbol: 'in', factor: INCH, also: ['"', '″', 'inch', 'inches'] },
      { symbol: 'ft', factor: FOOT, also: ['feet'] },
    ],
  },
  area: {
    label: 'area',
    shown: { metric: 'cm²', us: 'in²' },
    units: [
      { symbol: 'cm²', factor: 1e-4, also: ['cm2'] },
      { symbol: 'mm²', factor: 1e-6, also: ['mm2'] },
      { symbol: 'm²', factor: 1, also: ['m2'] },
      { symbol: 'in²', factor: INCH ** 2, also: ['in2'] },
    ],
  },
  oilSpeed: {
    label: 'speed of oil',
    shown: { metric: 'm/s', us: 'ft/s' },
    finest: 1e-4,
    units: speedUnits,
  },
  speed: {
    label: 'speed',
    shown: { metric: 'mm/s', us: 'in/s' },
    finest: 1e-5,
    units: speedUnits,
  },
  force: {
    label: 'force',
    shown: { metric: 'kN', us: 'lbf' },
    units: [
      { symbol: 'kN', factor: 1e3 },
      { symbol: 'N', factor: 1 },
      { symbol: 'MN', factor: 1e6 },
      { symbol: 'lbf', factor: POUND_FORCE },
      { symbol: 'kgf', factor: KILOGRAM_FORCE, also: ['kp'] },
    ],
  },
  mass: {
    label: 'mass',
    shown: { metric: 'kg', us: 'lb' },
    units: [
      { symbol: 'kg', factor: 1 },
      { symbol: 't', factor: 1000 },
      { symbol: 'g', factor: 1e-3 },
      { symbol: 'lb', factor: POUND, also: ['lbm'] },
    ],
  },
  time: {
    label: 'time',
    shown: { metric: 's', us: 's' },
    small: { below: 0.1, symbol: 'ms' },
    large: { from: 7200, symbol: { metric: 'h', us: 'h' } },
    units: [
      { symbol: 's', factor: 1, also: ['sec'] },
      { symbol: 'ms', factor: 1e-3 },
      { symbol: 'min', factor: 60 },
      { symbol: 'h', factor: 3600 },
    ],
  },
  rotationalSpeed: {
    label: 'rotational speed',
    shown: { metric: 'rpm', us: 'rpm' },
    units: [
      { symbol: 'rpm', factor: RPM, also: ['1/min', 'r/min', 'rev/min'] },
      { symbol: 'rad/s', factor: 1 },
    ],
  },
  torque: {
    label: 'torque',
    shown: { metric: 'N·m', us: 'lbf·ft' },
    units: [
      { symbol: 'N·m', factor: 1, also: ['Nm', 'N.m'] },
      { symbol: 'kN·m', factor: 1e3, also: ['kNm', 'kN.m'] },
      {
        symbol: 'lbf·ft',
        factor: POUND_FORCE * FOOT,
        also: ['lbf.ft', 'lbft', 'ft.lbf', 'ft·lbf', 'lbf-ft', 'ft-lbf', 'ft-lb', 'lb-ft'],
      },
      {
        symbol: 'lbf·in',
        factor: POUND_FORCE * INCH,
        also: ['lbf.in', 'lbfin', 'in.lbf', 'in·lbf', 'lbf-in', 'in-lbf', 'in-lb', 'lb-in'],
      },
      { symbol: 'mN·m', factor: 1e-3, also: ['mNm', 'mN.m'] },
      { symbol: 'kgf·m', factor: KILOGRAM_FORCE, also: ['kgfm', 'kgf.m', 'kpm'] },
    ],
  },
  heatTransfer: {
    label: 'heat transfer',
    shown: { metric: 'W/K', us: 'W/K' },
    units: [
      { symbol: 'W/K', factor: 1 },
      { symbol: 'kW/K', factor: 1e3 },
    ],
  },
  power: {
    label: 'power',
    shown: { metric: 'kW', us: 'hp' },
    units: [
      { symbol: 'kW', factor: 1e3 },
      { symbol: 'W', factor: 1 },
      { symbol: 'hp', factor: 550 * FOOT * POUND_FORCE },
    ],
  },
  energy: {
    label: 'energy',
    shown: { metric: 'kJ', us: 'ft·lbf' },
    units: [
      { symbol: 'kJ', factor: 1e3 },
      { symbol: 'J', factor: 1 },
      { symbol: 'MJ', factor: 1e6 },
      { symbol: 'kWh', factor: 3.6e6 },
      { symbol: 'ft·lbf', factor: FOOT * POUND_FORCE },
    ],
  },
  temperature: {
    label: 'temperature',
    shown: { metric: '°C', us: '°F' },
    units: [
      { symbol: '°C', factor: 1, offset: 273.15, also: ['C', 'degC'] },
      { symbol: '°F', factor: 5 / 9, offset: 273.15 - (32 * 5) / 9, also: ['F', 'degF'] },
      { symbol: 'K', factor: 1 },
    ],
  },
  viscosity: {
    label: 'kinematic viscosity',
    shown: { metric: 'mm²/s', us: 'mm²/s' },
    units: [
      { symbol: 'mm²/s', factor: 1e-6, also: ['cSt', 'mm2/s'] },
      { symbol: 'm²/s', factor: 1, also: ['m2/s'] },
    ],
  },
  density: {
    label: 'density',
    shown: { metric: 'kg/m³', us: 'lb/ft³' },
    units: [
      { symbol: 'kg/m³', factor: 1, also: ['kg/m3'] },
      { symbol: 'lb/ft³', factor: POUND / FOOT ** 3, also: ['lb/ft3'] },
    ],
  },
  angle: {
    label: 'angle',
    shown: { metric: '°', us: '°' },
    units: [
      { symbol: '°', factor: DEGREE, also: ['deg'] },
      { symbol: 'rad', factor: 1 },
      { symbol: 'rev', factor: 2 * Math.PI, also: ['turn', 'turns'] },
    ],
  },
  stiffness: {
    label: 'stiffness',
    shown: { metric: 'kN/mm', us: 'lbf/in' },
    units: [
      { symbol: 'kN/mm', factor: 1e6 },
      { symbol: 'N/mm', factor: 1e3 },
      { symbol: 'kN/m', factor: 1e3 },
      { symbol: 'N/m', factor: 1 },
      { symbol: 'MN/m', factor: 1e6 },
      { symbol: 'lbf/in', factor: POUND_FORCE / INCH },
    ],
  },
  damping: {
    label: 'damping',
    shown: { metric: 'kN·s/m', us: 'lbf·s/in' },
    units: [
      { symbol: 'kN·s/m', factor: 1e3, also: ['kNs/m', 'kN.s/m'] },
      { symbol: 'N·s/m', factor: 1, also: ['Ns/m', 'N.s/m'] },
      { symbol: 'lbf·s/in', factor: POUND_FORCE / INCH, also: ['lbf.s/in'] },
    ],
  },
  inertia: {
    label: 'moment of inertia',
    shown: { metric: 'kg·m²', us: 'lb·ft²' },
    units: [
      { symbol: 'kg·m²', factor: 1, also: ['kgm2', 'kg.m2', 'kgm²', 'kg·m2'] },
      { symbol: 'lb·ft²', factor: POUND * FOOT ** 2, also: ['lbft2', 'lb.ft2'] },
    ],
  },
  acceleration: {
    label: 'acceleration',
    shown: { metric: 'm/s²', us: 'ft/s²' },
    units: [
      { symbol: 'm/s²', factor: 1, also: ['m/s2'] },
      { symbol: 'ft/s²', factor: FOOT, also: ['ft/s2'] },
    ],
  },
  angularAcceleration: {
    label: 'angular acceleration',
    shown: { metric: 'rad/s²', us: 'rad/s²' },
    units: [{ symbol: 'rad/s²', factor: 1, also: ['rad/s2'] }],
  },
  frequency: {
    label: 'frequency',
    shown: { metric: 'Hz', us: 'Hz' },
    units: [
      { symbol: 'Hz', factor: 1, also: ['1/s'] },
      { symbol: '1/min', factor: 1 / 60 },
      { symbol: '1/h', factor: 1 / 3600, also: ['per hour', '/h'] },
    ],
  },
  /** How often something happens: cycles, starts. */
  rate: {
    label: 'rate',
    shown: { metric: '1/h', us: '1/h' },
    units: [
      { symbol: '1/h', factor: 1 / 3600, also: ['per hour', '/h'] },
      { symbol: '1/min', factor: 1 / 60 },
      { symbol: '1/s', factor: 1 },
    ],
  },
  current: {
    label: 'electric current',
    shown: { metric: 'A', us: 'A' },
    units: [
      { symbol: 'A', factor: 1 },
      { symbol: 'mA', factor: 1e-3 },
    ],
  },
  voltage: {
    label: 'voltage',
    shown: { metric: 'V', us: 'V' },
    units: [
      { symbol: 'V', factor: 1 },
      { symbol: 'kV', factor: 1e3 },
    ],
  },
  secondMoment: {
    label: 'second moment of area',
    shown: { metric: 'cm⁴', us: 'in⁴' },
    units: [
      { symbol: 'cm⁴', factor: 1e-8, also: ['cm4'] },
      { symbol: 'mm⁴', factor: 1e-12, also: ['mm4'] },
      { symbol: 'm⁴', factor: 1, also: ['m4'] },
      { symbol: 'in⁴', factor: INCH ** 4, also: ['in4'] },
    ],
  },
  temperatureDifference: {
    label: 'temperature difference',
    shown: { metric: 'K', us: '°F' },
    units: [
      { symbol: 'K', factor: 1, also: ['°C', 'C'] },
      { symbol: '°F', factor: 5 / 9, also: ['F'] },
    ],
  },
  /** A part of a whole: an efficiency, an override, a clogging. */
  share: {
    label: 'share',
    shown: { metric: '%', us: '%' },
    units: [
      { symbol: '%', factor: 0.01 },
      { symbol: '', factor: 1 },
    ],
  },
  ratio: {
    label: 'ratio',
    shown: { metric: '', us: '' },
    units: [
      { symbol: '', factor: 1 },
      { symbol: '%', factor: 0.01 },
    ],
  },
  /** A value of any quantity, such as that of a signal which is chosen elsewhere: read with any unit, shown in SI. */
  signal: {
    label: 'value',
    shown: { metric: '', us: '' },
    units: [{ symbol: '', factor: 1 }],
  },
} as const satisfies Record<string, QuantityDefinition>

export type Quantity = keyof typeof definitions
export const quantities: Readonly<Record<Quantity, QuantityDefinition>> = definitions
export const quantityNames = Object.keys(definitions) as Quantity[]

/** A value of a run as it is read: what no gauge could tell from nothing is nothing. @param si in SI */
export const asRead = (si: number, quantity: Quantity): number =>
  Math.abs(si) < (quantities[quantity].finest ?? 0) ? 0 : si

const spelling = (text: string) => text.replace(/\s+/g, '').replace(/\*/g, '·')

/**
 * Finds a unit by its spelling. Case matters first ("MPa" is not "mPa"), and is
 * forgiven only where that leaves exactly one reading.
 */
export function findUnit(quantity: Quantity, text: string): Unit | undefined {
  const wanted = spelling(text)
  if (quantity === 'signal' && wanted !== '') {
    const [first] = quantitiesWithUnit(text)
    return first && findUnit(first, text)
  }
  const { exact, loose } = (spellings[quantity] ??= spellingsOf(quantity))
  const found = exact.get(wanted)
  if (found) return found
  const likely = loose.get(wanted.toLowerCase())
  return likely?.size === 1 ? [...likely][0] : undefined
}

/** The units of a quantity by their spellings: as they are written, and all that one is without regard to case. */
interface Spellings {
  readonly exact: ReadonlyMap<string, Unit>
  readonly loose: ReadonlyMap<string, ReadonlySet<Unit>>
}
const spellings: Partial<Record<Quantity, Spellings>> = {}
function spellingsOf(quantity: Quantity): Spellings {
  const exact = new Map<string, Unit>()
  const loose = new Map<string, Set<Unit>>()
  for (const unit of quantities[quantity].units)
    for (const name of [unit.symbol, ...(unit.also ?? [])].map(spelling)) {
      if (!exact.has(name)) exact.set(name, unit)
      const lower = name.toLowerCase()
      loose.set(lower, (loose.get(lower) ?? new Set<Unit>()).add(unit))
    }
  return { exact, loose }
}

/** The quantities that know a unit of this spelling; used to say what was probably meant. */
export function quantitiesWithUnit(text: string): Quantity[] {
  return quantityNames.filter((name) => name !== 'signal' && text !== '' && findUnit(name, text))
}

export function shownUnit(quantity: Quantity, system: UnitSystem): Unit {
  return findUnit(quantity, quantities[quantity].shown[system])!
}

export const toSI = (value: number, unit: Unit) => value * unit.factor + (unit.offset ?? 0)
export const fromSI = (value: number, unit: Unit) => (value - (unit.offset ?? 0)) / unit.factor

/** The SI unit of a quantity: that with the factor 1, as it is spelled here. */
export const siUnit = (quantity: Quantity): string =>
  quantities[quantity].units.find((u) => u.factor === 1 && !u.offset)?.symbol ?? 'SI'
