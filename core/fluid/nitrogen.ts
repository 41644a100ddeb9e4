/**
 * Nitrogen as a real gas: the Peng–Robinson equation of state (D.-Y. Peng, D. B. Robinson, Ind. Eng. Chem. Fundam. 15, 1976, 59–64)
 * with the volume shifted (A. Péneloux, E. Rauzy, R. Fréze, Fluid Phase Equilibria 8, 1982, 7–23), since without it the equation gives
 * 6 % too much gas at 400 bar:
 *   p = R·T/(w − b) − a·α(T)/(w² + 2·b·w − b²),   w = v − c(T)
 * Pressure and energy follow from one free energy, so they agree with each other. Volumes are molar, m³/mol; pressures absolute, Pa.
 * Within 1 % of the densities of the generalised equation of B. I. Lee and M. G. Kesler (AIChE J. 21, 1975, 510–527) from 250 to 400 K
 * up to 500 bar.
 */
export const GAS_CONSTANT = 8.314462618
/** Molar mass, kg/mol; critical temperature, K; critical pressure, Pa; acentric factor. */
const MOLAR_MASS = 28.0134e-3
const CRITICAL_TEMPERATURE = 126.192
const CRITICAL_PRESSURE = 3.3958e6
const ACENTRIC_FACTOR = 0.0372

const B = (0.07779607 * GAS_CONSTANT * CRITICAL_TEMPERATURE) / CRITICAL_PRESSURE
const A = (0.45723553 * (GAS_CONSTANT * CRITICAL_TEMPERATURE) ** 2) / CRITICAL_PRESSURE
const KAPPA = 0.37464 + 1.54226 * ACENTRIC_FACTOR - 0.26992 * ACENTRIC_FACTOR ** 2
/** Shift of the volume at 300 K, m³/mol, and how it grows with the temperature: fitted to the equation of Lee and Kesler. */
const SHIFT = 4.27e-6
const SHIFT_SLOPE = 7e-9

const shiftAt = (temperature: number) => SHIFT + SHIFT_SLOPE * (temperature - 300)
/** √α */
const rootOfAlpha = (temperature: number) => 1 + KAPPA * (1 - Math.sqrt(temperature / CRITICAL_TEMPERATURE))
/** a·α(T), and its slope. */
const attraction = (temperature: number) => A * rootOfAlpha(temperature) ** 2
const attractionSlope = (temperature: number) =>
  (-A * rootOfAlpha(temperature) * KAPPA) / Math.sqrt(temperature * CRITICAL_TEMPERATURE)
/** Second derivative: A·κ/(2·T)·(κ/T_c + √α/√(T·T_c)). */
const attractionCurvature = (temperature: number) =>
  ((A * KAPPA) / (2 * temperature)) *
  (KAPPA / CRITICAL_TEMPERATURE + rootOfAlpha(temperature) / Math.sqrt(temperature * CRITICAL_TEMPERATURE))
const ROOT_2 = Math.SQRT2
/** ln[(w + (1 − √2)·b)/(w + (1 + √2)·b)]/(2·√2·b) */
const attractionShape = (w: number) =>
  Math.log((w + (1 - ROOT_2) * B) / (w + (1 + ROOT_2) * B)) / (2 * ROOT_2 * B)

/** Energy of the ideal gas, J/mol: ∫(c_p − R)·dT, c_p after Shomate (NIST, 100 to 500 K). */
const idealEnergy = (temperature: number) => {
  const t = temperature / 1000
  const enthalpy =
    28.98641 * t + (1.853978 * t ** 2) / 2 - (9.647459 * t ** 3) / 3 + (16.63537 * t ** 4) / 4 - 0.000117 / t
  return 1000 * enthalpy - GAS_CONSTANT * temperature
}

/** Entropy of the ideal gas at constant volume, J/(mol·K): ∫(c_p − R)/T·dT. */
const idealEntropy = (temperature: number) => {
  const t = temperature / 1000
  return (
    28.98641 * Math.log(t) +
    1.853978 * t -
    (9.647459 * t ** 2) / 2 +
    (16.63537 * t ** 3) / 3 -
    0.000117 / (2 * t ** 2) -
    GAS_CONSTANT * Math.log(t)
  )
}

/** Heat capacity of the ideal gas at constant volume, J/(mol·K): c_p − R. */
const idealHeatCapacity = (temperature: number) => {
  const t = temperature / 1000
  return 28.98641 + t * (1.853978 + t * (-9.647459 + t * 16.63537)) + 0.000117 / (t * t) - GAS_CONSTANT
}

/** Places in the numbers of a state of a gas: K and m³/mol are given; Pa absolute, (∂p/∂T)_v, Pa/K, and c_v, J/(mol·K), are found. */
export const GAS = { temperature: 0, volume: 1, pressure: 2, pressureSlope: 3, heatCapacity: 4 } as const
export const gasState = () => new Float64Array(Object.keys(GAS).length)

/** A gas by its equations of state, per mol. */
export interface Gas {
  /** Pa, absolute */
  pressure(temperature: number, volume: number): number
  /** Internal energy, J/mol. */
  energy(temperature: number, volume: number): number
  /** Entropy but for a constant, J/(mol·K). */
  entropy(temperature: number, volume: number): number
  /** Finds pressure, its slope and heat capacity. @param state see `GAS` */
  find(state: Float64Array): void
}

export const realNitrogen: Gas = {
  pressure(temperature, volume) {
    const w = volume - shiftAt(temperature)
    return (GAS_CONSTANT * temperature) / (w - B) - attraction(temperature) / (w * w + 2 * B * w - B * B)
  },
  energy(temperature, volume) {
    const w = volume - shiftAt(temperature)
    const real = (attraction(temperature) - temperature * attractionSlope(temperature)) * attractionShape(w)
    const shifted = temperature * realNitrogen.pressure(temperature, volume) * SHIFT_SLOPE
    return idealEnergy(temperature) + real - shifted
  },
  entropy(temperature, volume) {
    const w = volume - shiftAt(temperature)
    const shifted = realNitrogen.pressure(temperature, volume) * SHIFT_SLOPE
    const real = GAS_CONSTANT * Math.log(w - B) - attractionSlope(temperature) * attractionShape(w)
    return idealEntropy(temperature) + real - shifted
  },
  find(state) {
    const t = state[GAS.temperature]
    const w = state[GAS.volume] - shiftAt(t)
    const a = attraction(t)
    const slope = attractionSlope(t)
    const free = w - B
    const square = w * w + 2 * B * w - B * B
    const repulsion = (GAS_CONSTANT * t) / free
    const pressure = repulsion - a / square
    // at a constant volume w falls as the gas warms
    const pressureSlope =
      GAS_CONSTANT / free -
      slope / square +
      SHIFT_SLOPE * (repulsion / free - (2 * a * (w + B)) / (square * square))
    state[GAS.pressure] = pressure
    state[GAS.pressureSlope] = pressureSlope
    state[GAS.heatCapacity] =
      idealHeatCapacity(t) -
      t * attractionCurvature(t) * attractionShape(w) -
      SHIFT_SLOPE * ((a - t * slope) / square + pressure + t * pressureSlope)
  },
}

/** p·v = R·T, c_v = 5/2·R. */
export const idealGas: Gas = {
  pressure: (temperature, volume) => (GAS_CONSTANT * temperature) / volume,
  energy: (temperature) => 2.5 * GAS_CONSTANT * temperature,
  entropy: (temperature, volume) => GAS_CONSTANT * (2.5 * Math.log(temperature) + Math.log(volume)),
  find(state) {
    state[GAS.pressureSlope] = GAS_CONSTANT / state[GAS.volume]
    state[GAS.pressure] = state[GAS.pressureSlope] * state[GAS.temperature]
    state[GAS.heatCapacity] = 2.5 * GAS_CONSTANT
  },
}

/** Molar volume at a pressure and a temperature, m³/mol. @param pressure absolute, Pa @param temperature K, above the critical one */
export function molarVolume(gas: Gas, pressure: number, temperature: number): number {
  // v·p(v)/p: begun at the ideal gas, as Newton's method in ln v, since p falls with v
  let volume = (GAS_CONSTANT * temperature) / pressure
  const least = shiftAt(temperature) + 1.05 * B
  for (let i = 0; i < 60; i++) {
    const step = 1e-6 * volume
    const now = gas.pressure(temperature, volume)
    const slope = (gas.pressure(temperature, volume + step) - now) / step
    const next = volume - (now - pressure) / slope
    const change = Math.max(next, 0.5 * (volume + least)) - volume
    volume += change
    if (Math.abs(change) < 1e-13 * volume) break
  }
  return volume
}

/** Z = p·v/(R·T). @param pressure absolute, Pa @param temperature K, above the critical one */
export const nitrogenCompressibility = (pressure: number, temperature: number): number =>
  (pressure * molarVolume(realNitrogen, pressure, temperature)) / (GAS_CONSTANT * temperature)

/** Density, kg/m³. @param pressure absolute, Pa @param temperature K */
export const nitrogenDensity = (pressure: number, temperature: number): number =>
  MOLAR_MASS / molarVolume(realNitrogen, pressure, temperature)
