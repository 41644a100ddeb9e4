/**
 * Energy and oil kept account of over a run, as a check on the solution and on the laws of the components. Input, useful work and heat
 * are integrals of what each component says of itself; what is stored is taken from the states at both ends of every step: of motion,
 * height, springs and gas as functions of them, and of oil as ∫p·V/K_e·dp along its pressure. So nothing closes by itself.
 */
import { Power, POWERS } from '../../catalogue/kind'
import type { InstantRates } from '../circuit/instant-rates'
import type { Network } from '../circuit/network'
import type { EnergyBalance, OilBalance } from '../result'
import type { Observer } from './observer'

/** Powers whose sizes add up to the energy turned over. */
const TURNED_OVER = [Power.input, Power.stored] as const
/** The oil moved, to which an error of the oil is compared, counts as at least this share of all oil in the lines. */
const LEAST_MOVED = 1e-2
const [TURNOVER, SUPPLIED, MOVED, COMPRESSED, JUMPED, STORED] = [0, 1, 2, 3, 4, 5]
/** An element whose own account is off by more than this share of the energy turned over is named. */
const NAMED = 1e-3

/** Plain data. */
export interface BalancesState {
  readonly work: Float64Array
  readonly sums: Float64Array
  readonly heatBy: Float64Array
  /** Of each element what it took in and its states do not keep, J. */
  readonly missing: Float64Array
  readonly firstVolume: number
}

/** ∫ C dp along the parabola through three states at equal distances in time. */
const alongParabola = (c0: number, c1: number, c2: number, p0: number, p1: number, p2: number) =>
  (c0 * (-3 * p0 + 4 * p1 - p2) + 4 * c1 * (p2 - p0) + c2 * (p0 - 4 * p1 + 3 * p2)) / 6

export class Balances implements Observer<BalancesState> {
  /** Energies, J, in the order of the powers. */
  private readonly work = new Float64Array(POWERS)
  /** Energy turned over J; oil supplied, moved, compressed, and added by changes from outside, m³; energy stored, J. */
  private readonly sums = new Float64Array(6)
  private readonly heatBy: Float64Array
  private readonly missing: Float64Array
  private firstVolume: number
  private volumeBeforeChange = Number.NaN

  /** The network is evaluated at the start. */
  constructor(private readonly network: Network) {
    this.heatBy = new Float64Array(network.elements.length)
    this.missing = new Float64Array(network.elements.length)
    this.firstVolume = this.volume()
  }

  private volume(): number {
    let sum = 0
    for (let i = 0; i < this.network.nodes.length; i++)
      // a chamber on a line to tank fills from the tank as well
      if (this.network.nodes[i].domain === 'oil') sum += this.network.capacity[i]
    for (const { states, local, model } of this.network.elements) {
      for (let i = 0; i < states.length; i++) if (states[i].storesOil) sum += local.x[i]
      sum += model.storesOil?.(local) ?? 0
    }
    return sum
  }

  /** Adds up an interval by Simpson's rule. */
  stepAccepted(h: number, before: InstantRates, middle: InstantRates, after: InstantRates): void {
    const { work, sums, heatBy, missing } = this
    const w = h / 6
    const [a, m, b] = [before, middle, after]
    for (let i = 0; i < POWERS; i++) work[i] += w * (a.power[i] + 4 * m.power[i] + b.power[i])
    for (const kind of TURNED_OVER)
      sums[TURNOVER] += w * (Math.abs(a.power[kind]) + 4 * Math.abs(m.power[kind]) + Math.abs(b.power[kind]))
    sums[SUPPLIED] += w * (a.supplied + 4 * m.supplied + b.supplied)
    sums[MOVED] += w * (a.moved + 4 * m.moved + b.moved)
    for (let e = 0; e < heatBy.length; e++) heatBy[e] += w * (a.heatBy[e] + 4 * m.heatBy[e] + b.heatBy[e])
    let stored = w * (a.toHeld + 4 * m.toHeld + b.toHeld)
    for (let e = 0; e < missing.length; e++) {
      const grown = b.stores[e] - a.stores[e]
      missing[e] += w * (a.kept[e] + 4 * m.kept[e] + b.kept[e]) - grown
      stored += grown
    }
    for (let k = 0; k < a.kinetic.length; k++) stored += b.kinetic[k] - a.kinetic[k]
    let compressed = 0
    for (let i = 0; i < a.pressure.length; i++) {
      const p0 = a.pressure[i]
      const p1 = m.pressure[i]
      const p2 = b.pressure[i]
      const c0 = a.compliance[i]
      const c1 = m.compliance[i]
      const c2 = b.compliance[i]
      const v0 = a.volume[i]
      const v1 = m.volume[i]
      const v2 = b.volume[i]
      const s0 = a.swelling[i]
      const s1 = m.swelling[i]
      const s2 = b.swelling[i]
      compressed += alongParabola(c0, c1, c2, p0, p1, p2) - alongParabola(v0, v1, v2, s0, s1, s2)
      stored +=
        alongParabola(c0 * p0, c1 * p1, c2 * p2, p0, p1, p2) -
        alongParabola(v0 * p0, v1 * p1, v2 * p2, s0, s1, s2)
    }
    sums[COMPRESSED] += compressed
    sums[STORED] += stored
  }

  /** To be called before and after a change of a parameter: volumes may be others at once. */
  beforeChange(): void {
    this.volumeBeforeChange = this.volume()
  }
  afterChange(): void {
    this.sums[JUMPED] += this.volume() - this.volumeBeforeChange
  }

  energy(): EnergyBalance {
    const [input, useful, heat] = [Power.input, Power.useful, Power.heat].map((kind) => this.work[kind])
    const stored = this.sums[STORED]
    const error = Math.abs(input - useful - heat - stored) / Math.max(this.sums[TURNOVER], 1)
    const heatBy = this.network.elements
      .map((e, i) => ({ id: e.pipe ?? e.id, heat: this.heatBy[i] }))
      .filter((h) => h.heat !== 0)
      .sort((a, b) => b.heat - a.heat)
    const turnover = Math.max(this.sums[TURNOVER], 1)
    const missing = this.network.elements
      .map((e, i) => ({ id: e.pipe ?? e.id, energy: this.missing[i] }))
      .filter(({ energy }) => Math.abs(energy) > NAMED * turnover)
      .sort((a, b) => Math.abs(b.energy) - Math.abs(a.energy))
    return { input, useful, heat, stored, error, heatBy, missing }
  }

  /** The network is evaluated at the end. */
  oil(): OilBalance {
    const { sums } = this
    const volume = this.volume()
    const stored = volume - this.firstVolume - sums[JUMPED] + sums[COMPRESSED]
    const error = Math.abs(sums[SUPPLIED] - stored) / Math.max(sums[MOVED], LEAST_MOVED * volume, 1e-9)
    return { supplied: sums[SUPPLIED], stored, error }
  }

  save(): BalancesState {
    const { work, sums, heatBy, missing, firstVolume } = this
    return {
      work: work.slice(),
      sums: sums.slice(),
      heatBy: heatBy.slice(),
      missing: missing.slice(),
      firstVolume,
    }
  }
  load({ work, sums, heatBy, missing, firstVolume }: BalancesState): void {
    this.missing.set(missing)
    this.work.set(work)
    this.sums.set(sums)
    this.heatBy.set(heatBy)
    this.firstVolume = firstVolume
  }
}
