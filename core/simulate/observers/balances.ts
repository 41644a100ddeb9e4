/**
 * Energy and oil kept account of over a run, as a check on the solution and on the laws of the components. Input, useful work and heat
 * are integrals of what each component says of itself; what is stored is taken from the states at both ends of every step: of motion,
 * height, springs and gas as functions of them, and of oil as ∫p·V/K_e·dp along its pressure. So nothing closes by itself.
 */
import { Power, POWERS } from '../../catalogue/kind'
import { FLOWS, type InstantRates } from '../circuit/instant-rates'
import type { Network } from '../circuit/network'
import type { EnergyBalance, OilBalance } from '../result'
import type { Observer } from './observer'

/** Powers whose sizes add up to the energy turned over. */
const TURNED_OVER = [Power.input, Power.stored] as const
/** The oil moved, to which an error of the oil is compared, counts as at least this share of all oil in the lines. */
const LEAST_MOVED = 1e-2
const [TURNOVER, SUPPLIED, MOVED, COMPRESSED, JUMPED, STORED] = [0, 1, 2, 3, 4, 5]
/** Sums, and the flows that they add up. */
const ADDED_UP = [
  [SUPPLIED, FLOWS.supplied],
  [MOVED, FLOWS.moved],
  [STORED, FLOWS.held],
] as const
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
  stepAccepted(h: number, a: InstantRates, m: InstantRates, b: InstantRates): void {
    const { work, sums } = this
    const w = h / 6
    for (let i = 0; i < POWERS; i++) work[i] += w * (a.power[i] + 4 * m.power[i] + b.power[i])
    for (let k = 0; k < TURNED_OVER.length; k++) {
      const i = TURNED_OVER[k]
      sums[TURNOVER] += w * (Math.abs(a.power[i]) + 4 * Math.abs(m.power[i]) + Math.abs(b.power[i]))
    }
    for (let i = 0; i < ADDED_UP.length; i++) {
      const [sum, flow] = ADDED_UP[i]
      sums[sum] += w * (a.flows[flow] + 4 * m.flows[flow] + b.flows[flow])
    }
    this.addElements(w, a, m, b)
    this.addNodes(a, m, b)
  }

  /** What the elements lose and keep. */
  private addElements(w: number, a: InstantRates, m: InstantRates, b: InstantRates): void {
    const { heatBy, missing, sums } = this
    const [keptA, keptM, keptB, heatA, heatM, heatB] = [a.kept, m.kept, b.kept, a.heatBy, m.heatBy, b.heatBy]
    const [energyA, energyB] = [a.energy, b.energy]
    let stored = 0
    for (let e = 0; e < heatBy.length; e++) {
      heatBy[e] += w * (heatA[e] + 4 * heatM[e] + heatB[e])
      const grown = energyB[e] - energyA[e]
      missing[e] += w * (keptA[e] + 4 * keptM[e] + keptB[e]) - grown
      stored += grown
    }
    for (let k = 0; k < a.kinetic.length; k++) stored += b.kinetic[k] - a.kinetic[k]
    sums[STORED] += stored
  }

  /** What lines keep: ∫C·dp and ∫C·p·dp along the parabola through the three states, with a parabola of C through them. */
  private addNodes(a: InstantRates, m: InstantRates, b: InstantRates): void {
    let compressed = 0
    let stored = 0
    const { pressure: pA, compliance: cA, volume: vA, swelling: sA } = a
    const { pressure: pM, compliance: cM, volume: vM, swelling: sM } = m
    const { pressure: pB, compliance: cB, volume: vB, swelling: sB } = b
    for (let i = 0; i < pA.length; i++) {
      const p0 = pA[i]
      const p1 = pM[i]
      const p2 = pB[i]
      const s0 = sA[i]
      const s1 = sM[i]
      const s2 = sB[i]
      const first = cA[i] * (-3 * p0 + 4 * p1 - p2) - vA[i] * (-3 * s0 + 4 * s1 - s2)
      const second = 4 * (cM[i] * (p2 - p0) - vM[i] * (s2 - s0))
      const third = cB[i] * (p0 - 4 * p1 + 3 * p2) - vB[i] * (s0 - 4 * s1 + 3 * s2)
      compressed += first + second + third
      stored += p0 * first + p1 * second + p2 * third
    }
    this.sums[COMPRESSED] += compressed / 6
    this.sums[STORED] += stored / 6
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
