/**
 * What changes slowly against everything else: oil in the tanks, temperature of all oil as one lump, air shut in over the oil.
 *   V̇ = ΣQ_return − ΣQ_suction + β·V·dT/dt        ρ·V·c·dT/dt = P_loss − UA·(T − T_a) − P_cooler
 * As states of the integrator they would couple everything with everything. Within a step they follow straight lines at the rates
 * of its start; at its end they are set by Simpson's rule on the rates of start, middle and end.
 */
import { ATMOSPHERE } from '../../units/quantities'
import { HOTTEST, SPECIFIC_HEAT, TANKS, THERMAL_EXPANSION, type Fluid } from '../../fluid/fluid'
import type { TankData } from '../../sheet/resolve'
import type { Element } from './elements'
import type { InstantRates } from './instant-rates'
import type { Network } from './network'

/** Share of a tank's oil, and kelvins, that may move within a step; the longest step while the oil warms, s. */
const MOST_OF_A_TANK = 0.02
const MOST_WARMING = 0.5
const LONGEST_WARMING = 10
/** Share of a tank's oil that may move within a step while the air over it is shut in. */
const MOST_UNDER_SHUT_AIR = 0.001
/** Smallest oil volume that such a share is taken of, m³. */
const LEAST_TANK = 1e-4
/** Air space does not shrink below this share of what it was. */
const LEAST_AIR = 1e-3

/** Plain data. */
export interface OilStateData {
  readonly tanks: Float64Array
  readonly temperature: number
  /** Air over the oil when a tank was shut, m³; NaN for one that breathes. */
  readonly airWhenShut: Float64Array
}

export class OilState {
  private readonly tanks: Float64Array
  private temperature: number
  private readonly airWhenShut = new Float64Array(TANKS).fill(Number.NaN)
  /** Tanks that a line leads to. */
  private readonly used = new Uint8Array(TANKS)
  private breathers: readonly Element[] = []
  /** Least that the ways for air of each tank are shut, and its space for air, m³. */
  private readonly openest = new Float64Array(TANKS)
  private readonly space = new Float64Array(TANKS)
  /** Oil in each tank below which some equation follows its level, m³. */
  private readonly levelMatters = new Float64Array(TANKS)
  private readonly fluid: Fluid
  private readonly noFlow = new Float64Array(TANKS)
  /** K/s of the present straight line. */
  private rate = 0

  constructor(
    private readonly network: Network,
    private readonly data: TankData,
  ) {
    this.fluid = network.fluid
    this.tanks = this.fluid.tanks.slice()
    this.temperature = this.fluid.temperature
    this.refresh()
  }

  /** Reads from the elements what it needs to know of them: once, and where one has been replaced. */
  refresh(): void {
    this.used.fill(0)
    this.levelMatters.fill(0)
    this.breathers = this.network.elements.filter(({ model }) => model.breathing)
    for (const { model } of this.network.elements) {
      if (model.tank === undefined) continue
      this.used[model.tank] = 1
      const below = model.levelMattersBelow ?? 0
      this.levelMatters[model.tank] = Math.max(this.levelMatters[model.tank], below)
    }
  }

  /** Whether the oil is as warm as the equations hold for. */
  get tooHot(): boolean {
    return this.data.warming && this.temperature >= HOTTEST
  }

  private get volume(): number {
    let sum = 0
    for (let i = 0; i < TANKS; i++) if (this.used[i]) sum += this.tanks[i]
    return sum
  }

  /** K/s at some rates; 0 where the oil keeps its temperature. */
  private warmingRate(rates: InstantRates): number {
    const { volume } = this
    if (!this.data.warming || volume === 0) return 0
    const lost = this.data.heatLoss * (this.fluid.temperature - this.data.ambient)
    return (rates.warming - lost) / (this.fluid.density * volume * SPECIFIC_HEAT)
  }

  /** Starts the straight lines of a step at t; called again where the rates jump. */
  beginInterval(t: number, rates: InstantRates): void {
    this.fluid.restartFrom(t, this.tanks, this.temperature, this.noFlow, 0)
    this.rate = this.warmingRate(rates)
    this.fluid.restartFrom(t, this.tanks, this.temperature, rates.returned, this.rate)
    let follows = this.rate !== 0
    for (let i = 0; i < TANKS; i++)
      if (this.fluid.overTank[i] !== 0 || (rates.returned[i] !== 0 && this.tanks[i] < this.levelMatters[i]))
        follows = true
    this.network.setOilTimeDependent(follows)
  }

  /** The longest step over which the straight lines hold, s. */
  longestStep(rates: InstantRates): number {
    const { fluid, tanks } = this
    let longest = Infinity
    for (let i = 0; i < TANKS; i++) {
      const flow = Math.abs(rates.returned[i])
      const share = fluid.overTank[i] === 0 ? MOST_OF_A_TANK : MOST_UNDER_SHUT_AIR
      if (flow > 0) longest = Math.min(longest, (share * Math.max(tanks[i], LEAST_TANK)) / flow)
    }
    if (this.data.warming) {
      const rate = Math.abs(this.warmingRate(rates))
      longest = Math.min(longest, LONGEST_WARMING, rate > 0 ? MOST_WARMING / rate : Infinity)
    }
    return longest
  }

  /** Closes an interval of length h that ends at t, and starts the straight lines of the next. */
  endInterval(t: number, h: number, before: InstantRates, middle: InstantRates, after: InstantRates): void {
    const { fluid, tanks } = this
    const w = h / 6
    const volume = this.volume
    for (let i = 0; i < TANKS; i++) {
      const into = w * (before.returned[i] + 4 * middle.returned[i] + after.returned[i])
      tanks[i] = Math.max(0, tanks[i] + into)
    }
    if (this.data.warming && volume > 0) {
      const mean = this.temperature + 0.5 * h * this.rate
      const heat = w * (before.warming + 4 * middle.warming + after.warming)
      const lost = this.data.heatLoss * (mean - this.data.ambient) * h
      const then = this.temperature
      this.temperature += (heat - lost) / (fluid.density * volume * SPECIFIC_HEAT)
      this.temperature = Math.min(this.temperature, HOTTEST)
      // its mass stays
      for (let i = 0; i < TANKS; i++) tanks[i] *= 1 + THERMAL_EXPANSION * (this.temperature - then)
    }
    this.updateAirPressure(t)
    this.beginInterval(t, after)
  }

  /** Pressure of the air over the oil: p = s·p_atm·(V_shut/V_air − 1) where a share s of the tank's only way for air is shut. */
  updateAirPressure(t: number): void {
    const { fluid, tanks, airWhenShut, breathers, openest, space } = this
    if (!breathers.length) return
    this.network.inputs.evaluateAt(t)
    openest.fill(Number.NaN)
    for (let k = 0; k < breathers.length; k++) {
      const { model, local } = breathers[k]
      const { tank, airSpace, shut } = model.breathing!
      const share = shut(local)
      if (!(openest[tank] <= share)) openest[tank] = share
      space[tank] = airSpace + fluid.tankVolume - tanks[tank]
    }
    for (let i = 0; i < TANKS; i++) {
      const shut = openest[i] > 0
      if (!shut) airWhenShut[i] = Number.NaN
      else if (Number.isNaN(airWhenShut[i])) airWhenShut[i] = space[i]
      const air = Math.max(space[i], LEAST_AIR * airWhenShut[i])
      const over = shut ? openest[i] * ATMOSPHERE * (airWhenShut[i] / air - 1) : 0
      if (over !== fluid.overTank[i]) this.network.invalidate()
      fluid.overTank[i] = over
    }
  }

  save(): OilStateData {
    return {
      tanks: this.tanks.slice(),
      temperature: this.temperature,
      airWhenShut: this.airWhenShut.slice(),
    }
  }
  /** @param t time to continue from, s */
  load(saved: OilStateData, t: number): void {
    this.tanks.set(saved.tanks)
    this.temperature = saved.temperature
    this.airWhenShut.set(saved.airWhenShut)
    this.updateAirPressure(t)
  }
}
