import { ATMOSPHERE } from '../units/quantities'
import { Tabulated } from './tabulated'

/** What the sheet says about its oil, in SI. */
export interface FluidData {
  /** Density at 15 °C, kg/m³. */
  density15: number
  /** Kinematic viscosity at 40 °C and at 100 °C, m²/s. */
  viscosity40: number
  viscosity100: number
  /** Oil temperature, K. */
  temperature: number
  /** Bulk modulus of the liquid, Pa. */
  bulkModulus: number
  /** Free air at atmospheric pressure, volume fraction. */
  freeAir: number
  /** Polytropic exponent of that air. */
  airExponent: number
}

/** Viscosity at which catalogue leakages hold, m²/s. */
export const REFERENCE_VISCOSITY = 46e-6
/** Discharge coefficient of a sharp-edged orifice. */
export const DISCHARGE_COEFFICIENT = 0.7
/** Pressure drop of the change from laminar to turbulent orifice flow, Pa. */
export const TRANSITION_DROP = 0.1e5
/** Lowest absolute pressure used in the bulk modulus, and one beyond all that occur, Pa. */
const LOWEST_PRESSURE = 1
const HIGHEST_PRESSURE = 1e9
/** From gauge to absolute pressure. */
const ABSOLUTE = { shift: ATMOSPHERE, least: LOWEST_PRESSURE } as const
/** Temperatures between which the viscosity law is used, K. */
const COLDEST = 233.15
export const HOTTEST = 423.15
/** Tanks that a sheet may tell apart. */
export const TANKS = 2
/** Specific heat of mineral oil, J/(kg·K). */
export const SPECIFIC_HEAT = 1900
/** A volume below this absolute pressure cavitates, Pa. */
export const CAVITATION_PRESSURE = 0.3e5

/**
 * Kinematic viscosity after Walther (ASTM D341), through the values at 40 and 100 °C:
 * log10(log10(ν + 0.7)) = A − B·log10(T), ν in mm²/s, T in K.
 * @returns m²/s
 */
export function viscosityAt(temperature: number, viscosity40: number, viscosity100: number) {
  const { a, b } = waltherLine(viscosity40, viscosity100)
  return onWaltherLine(temperature, a, b)
}
/** A and B of that law through the viscosities at 40 and 100 °C, m²/s. */
function waltherLine(viscosity40: number, viscosity100: number) {
  const w = (v: number) => Math.log10(Math.log10(v * 1e6 + 0.7))
  const b = (w(viscosity40) - w(viscosity100)) / (Math.log10(373.15) - Math.log10(313.15))
  return { a: w(viscosity40) + b * Math.log10(313.15), b }
}
const onWaltherLine = (temperature: number, a: number, b: number) =>
  (10 ** (10 ** (a - b * Math.log10(temperature))) - 0.7) * 1e-6

/** By how much oil grows as it warms, 1/K. */
export const THERMAL_EXPANSION = 7e-4
/** Density falls 0.07 % per kelvin above 15 °C. @returns kg/m³ */
export function densityAt(temperature: number, density15: number) {
  return density15 * (1 - THERMAL_EXPANSION * (temperature - 288.15))
}

/**
 * The oil of a run. It is one lump: its temperature, and with it what depends on it, may change while the run
 * goes on, so models read these at every evaluation and keep no copy.
 */
export class Fluid {
  /** K */
  temperature = 0
  density = 0
  viscosity = 0
  /** ν_ref / ν: catalogue leakages are multiplied by it. */
  leakageFactor = 1
  /** C_d·√(2/ρ): a sharp-edged area times this, times √Δp, is its flow. */
  orificeFactor = 1
  /** Oil in each tank of the sheet, m³. */
  readonly tanks: Float64Array
  /** Gauge pressure of the air over the oil of each tank beside what its reservoirs give, Pa: of a tank that cannot breathe. */
  readonly overTank = new Float64Array(TANKS)
  private readonly viscosityLine: { readonly a: number; readonly b: number }
  /** Straight lines along which oil and temperature go on from an instant. */
  private since = 0
  private readonly tanksThen: Float64Array
  private readonly tankRate = new Float64Array(TANKS)
  private temperatureThen = 0
  private temperatureRate = 0
  /** Bulk modulus over the absolute pressure; none where there is no free air. */
  private integrals?: { readonly strain: Tabulated; readonly energy: Tabulated }
  private readonly modulus?: Tabulated
  private readonly swelling?: Tabulated
  /** Slope of ln(1 + g) at the lowest pressure, 1/Pa. */
  private readonly lowestSlope: number = 0

  constructor(
    private readonly data: FluidData,
    /** Oil in each tank at the start, m³. */
    readonly tankVolume = 0.1,
  ) {
    this.viscosityLine = waltherLine(data.viscosity40, data.viscosity100)
    this.tanks = new Float64Array(TANKS).fill(tankVolume)
    this.tanksThen = this.tanks.slice()
    this.setTemperature(data.temperature)
    this.temperatureThen = this.temperature
    if (data.freeAir > 0) {
      const { modulus, swelling } = tablesOf(data)
      this.modulus = modulus
      this.swelling = swelling
      const lowest = data.freeAir * (ATMOSPHERE / LOWEST_PRESSURE) ** (1 / data.airExponent)
      this.lowestSlope = -lowest / (data.airExponent * LOWEST_PRESSURE * (1 + lowest))
    }
  }

  /**
   * Gauge pressure below which a void is larger than the oil that a line holds, ln(1 + g) > 1, Pa: what is drawn from it then is no
   * oil. −Infinity for oil without air.
   */
  get emptyPressure(): number {
    const { freeAir, airExponent } = this.data
    if (!(freeAir > 0)) return -Infinity
    return ATMOSPHERE * (freeAir / (Math.E - 1)) ** airExponent - ATMOSPHERE
  }

  /** Sets the temperature, K, within what the viscosity law is good for. */
  setTemperature(temperature: number): void {
    const { a, b } = this.viscosityLine
    const t = Math.min(Math.max(temperature, COLDEST), HOTTEST)
    this.temperature = t
    this.density = densityAt(t, this.data.density15)
    this.viscosity = onWaltherLine(t, a, b)
    this.leakageFactor = REFERENCE_VISCOSITY / this.viscosity
    this.orificeFactor = DISCHARGE_COEFFICIENT * Math.sqrt(2 / this.density)
  }

  /** Sets what tanks and temperature go on from, at t and at these rates. @param rates m³/s @param warming K/s */
  restartFrom(
    t: number,
    tanks: Float64Array,
    temperature: number,
    rates: Float64Array,
    warming: number,
  ): void {
    this.since = t
    this.tanksThen.set(tanks)
    this.tankRate.set(rates)
    this.temperatureThen = temperature
    this.temperatureRate = warming
    this.setTime(t)
  }

  /** How fast a volume of oil grows because it warms, in shares of it, 1/s. */
  get expansionRate(): number {
    return THERMAL_EXPANSION * this.temperatureRate
  }

  /** Tanks and temperature at t, along their straight lines. */
  setTime(t: number): void {
    const { tanks, tanksThen, tankRate } = this
    const time = t - this.since
    for (let i = 0; i < TANKS; i++) {
      const oil = tanksThen[i] + tankRate[i] * time
      tanks[i] = oil > 0 ? oil : 0
    }
    const temperature = this.temperatureThen + this.temperatureRate * time
    if (temperature !== this.temperature) this.setTemperature(temperature)
  }

  /**
   * Effective bulk modulus of oil with free air (isentropic mixture), and where asked its slope dK_e/dp, at each of some places.
   * It goes to 0 with the absolute pressure, so that a starved volume becomes a void.
   * @param pressures gauge, Pa @param moduli Pa
   */
  bulkModuli(pressures: Float64Array, places: Int32Array, moduli: Float64Array, slopes?: Float64Array): void {
    if (this.modulus) this.modulus.read(pressures, places, ABSOLUTE, moduli, slopes)
    else
      for (const i of places) {
        moduli[i] = this.data.bulkModulus
        if (slopes) slopes[i] = 0
      }
  }

  /** By how much oil is pressed together from atmospheric pressure on, m³ of each m³: ∫dp/K_e. @param pressure gauge, Pa */
  strain(pressure: number): number {
    return this.integral('strain', pressure)
  }
  /** Energy in oil that is pressed together, J/m³: ∫p·dp/K_e. @param pressure gauge, Pa */
  strainEnergy(pressure: number): number {
    return this.integral('energy', pressure)
  }
  private integral(which: 'strain' | 'energy', pressure: number): number {
    this.integrals ??= integrals((p) => (this.modulus ? readAt(this.modulus, p) : this.data.bulkModulus))
    return readAt(this.integrals[which], Math.max(pressure + ATMOSPHERE, LOWEST_PRESSURE))
  }

  /**
   * The part of the strain of oil that its air makes, and its slope: 1/K_e = 1/(K·(1 + g)) − d ln(1 + g)/dP, g as in K_e. It follows
   * a void exactly where steps in pressure are coarse.
   * @param pressures gauge, Pa @param swelling ln(1 + g) @param slopes 1/Pa
   */
  airSwelling(
    pressures: Float64Array,
    places: Int32Array,
    swelling: Float64Array,
    slopes: Float64Array,
  ): void {
    if (!this.swelling) return
    this.swelling.read(pressures, places, ABSOLUTE, swelling, slopes)
    // below the lowest pressure K_e stays as it is, and the strain goes on along its tangent
    for (const i of places) {
      const below = pressures[i] + ATMOSPHERE - LOWEST_PRESSURE
      if (below >= 0) continue
      swelling[i] += this.lowestSlope * below
      slopes[i] = this.lowestSlope
    }
  }
}

const one = { x: new Float64Array(1), place: new Int32Array(1), value: new Float64Array(1) }
/** A table at one x. */
function readAt(table: Tabulated, x: number): number {
  one.x[0] = x
  table.read(one.x, one.place, { shift: 0, least: LOWEST_PRESSURE }, one.value)
  return one.value[0]
}

/** ∫dp/K_e and ∫p·dp/K_e from atmospheric pressure on, p gauge: by Simpson's rule on steps of an eighth of an octave. */
function integrals(modulus: (absolute: number) => number) {
  const part = (from: number, to: number, of: (p: number) => number) =>
    ((to - from) / 6) * (of(from) + 4 * of(0.5 * (from + to)) + of(to))
  const compliance = (p: number) => 1 / modulus(p)
  const energy = (p: number) => (p - ATMOSPHERE) / modulus(p)
  /** From atmospheric pressure to p along steps that follow its size. */
  const integral = (p: number, of: (p: number) => number) => {
    const ratio = 2 ** (p > ATMOSPHERE ? 1 / 8 : -1 / 8)
    let sum = 0
    let at = ATMOSPHERE
    while (p > ATMOSPHERE ? at * ratio < p : at * ratio > p) {
      sum += part(at, at * ratio, of)
      at *= ratio
    }
    return sum + part(at, p, of)
  }
  return {
    strain: new Tabulated((p) => integral(p, compliance), compliance, LOWEST_PRESSURE, HIGHEST_PRESSURE),
    energy: new Tabulated((p) => integral(p, energy), energy, LOWEST_PRESSURE, HIGHEST_PRESSURE),
  }
}

const tables = new Map<string, { readonly modulus: Tabulated; readonly swelling: Tabulated }>()
const MOST_TABLES = 16
/** The tables of an oil, made once for all runs with it. */
function tablesOf(data: FluidData) {
  const key = [data.bulkModulus, data.freeAir, data.airExponent].join()
  const known = tables.get(key) ?? { modulus: mixtureModulus(data), swelling: airSwelling(data) }
  if (tables.size >= MOST_TABLES) tables.clear()
  tables.set(key, known)
  return known
}

/** ln(1 + g) of `airSwelling` over the absolute pressure, see there. */
function airSwelling({ freeAir, airExponent: n }: FluidData): Tabulated {
  const air = (p: number) => freeAir * (ATMOSPHERE / p) ** (1 / n)
  const slope = (p: number) => -air(p) / (n * p * (1 + air(p)))
  return new Tabulated((p) => Math.log1p(air(p)), slope, LOWEST_PRESSURE, HIGHEST_PRESSURE)
}

/**
 * K_e = K·(1 + g)/(1 + g·K/(n_a·P)), g = α·(P_0/P)^(1/n_a), over the absolute pressure P; its slope from dg/dP = −g/(n_a·P).
 */
function mixtureModulus({ bulkModulus: liquid, freeAir, airExponent: n }: FluidData): Tabulated {
  const air = (p: number) => freeAir * (ATMOSPHERE / p) ** (1 / n)
  const value = (p: number) => (liquid * (1 + air(p))) / (1 + (air(p) * liquid) / (n * p))
  const slope = (p: number) => {
    const falling = air(p) / (n * p)
    const below = 1 + falling * liquid
    return (liquid * falling * (((1 + air(p)) * liquid * (1 + 1 / n)) / (p * below) - 1)) / below
  }
  return new Tabulated(value, slope, LOWEST_PRESSURE, HIGHEST_PRESSURE)
}
