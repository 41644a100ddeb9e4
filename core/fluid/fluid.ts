import { ATMOSPHERE } from '../units/quantities'
import { PowerLaw } from './power-law'

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
/** Temperatures between which the viscosity law is used, K. */
const COLDEST = 233.15
const HOTTEST = 423.15
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
  const w = (v: number) => Math.log10(Math.log10(v * 1e6 + 0.7))
  const b = (w(viscosity40) - w(viscosity100)) / (Math.log10(373.15) - Math.log10(313.15))
  const a = w(viscosity40) + b * Math.log10(313.15)
  return (10 ** (10 ** (a - b * Math.log10(temperature))) - 0.7) * 1e-6
}

/** Density falls 0.07 % per kelvin above 15 °C. @returns kg/m³ */
export function densityAt(temperature: number, density15: number) {
  return density15 * (1 - 7e-4 * (temperature - 288.15))
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
  /** Pressure over the oil of each tank beside what its reservoirs give, Pa: told by a breather that is clogged. */
  readonly overTank = new Float64Array(TANKS)
  private readonly liquid: number
  private readonly air: number
  private readonly exponent: number
  /** P^(−1/n_a) */
  private readonly expansion: PowerLaw
  private readonly airAtOne: number

  constructor(
    private readonly data: FluidData,
    tankVolume = 0.1,
  ) {
    this.tanks = new Float64Array(TANKS).fill(tankVolume)
    this.warmTo(data.temperature)
    this.liquid = data.bulkModulus
    this.air = data.freeAir
    this.exponent = data.airExponent
    this.expansion = new PowerLaw(-1 / this.exponent, LOWEST_PRESSURE, HIGHEST_PRESSURE)
    this.airAtOne = this.air * ATMOSPHERE ** (1 / this.exponent)
  }

  /** Sets the temperature, K, within what the viscosity law is good for. */
  warmTo(temperature: number): void {
    const { density15, viscosity40, viscosity100 } = this.data
    const t = Math.min(Math.max(temperature, COLDEST), HOTTEST)
    this.temperature = t
    this.density = densityAt(t, density15)
    this.viscosity = viscosityAt(t, viscosity40, viscosity100)
    this.leakageFactor = REFERENCE_VISCOSITY / this.viscosity
    this.orificeFactor = DISCHARGE_COEFFICIENT * Math.sqrt(2 / this.density)
  }

  /**
   * Effective bulk modulus of oil with free air (isentropic mixture).
   * @param pressure gauge, Pa
   * @returns Pa; goes to 0 with the absolute pressure, so that a starved volume becomes a void
   */
  bulkModulus(pressure: number): number {
    if (this.air === 0) return this.liquid
    const above = pressure + ATMOSPHERE
    const absolute = above > LOWEST_PRESSURE ? above : LOWEST_PRESSURE
    const g = this.airAtOne * this.expansion.at(absolute)
    return (this.liquid * (1 + g)) / (1 + (g * this.liquid) / (this.exponent * absolute))
  }

  /** Slope of the bulk modulus over the pressure, dK_e/dp, from dg/dP = −g/(n_a·P). @param pressure gauge, Pa */
  bulkModulusSlope(pressure: number): number {
    const absolute = pressure + ATMOSPHERE
    if (this.air === 0 || absolute <= LOWEST_PRESSURE) return 0
    const { liquid, exponent } = this
    const g = this.airAtOne * this.expansion.at(absolute)
    const falling = g / (exponent * absolute)
    const below = 1 + falling * liquid
    return (liquid * falling * (((1 + g) * liquid * (1 + 1 / exponent)) / (absolute * below) - 1)) / below
  }
}
