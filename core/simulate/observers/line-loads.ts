/** How fast oil flows in every line and what pressure that takes: the greatest of a run, and where it is more than is usual. */
import { showQuantity } from '../../units/text'
import type { OilLine } from '../circuit/oil-lines'
import type { Network } from '../circuit/network'
import type { Condition, LineLoad } from '../result'
import type { SpeedClass } from '../../sheet/line-speeds'
import type { Observer } from './observer'

/** What lasts for less is not reported, s: the oil that a valve sets free as it opens. */
const SHORTEST = 0.1
/** A drop that is left out is reported beyond this share of the highest pressure of the line, and from this on, Pa. */
const SHARE_LEFT_OUT = 0.03
const LEAST_LEFT_OUT = 0.2e5
/** More of one kind are not listed one by one. */
const MOST_OF_ONE = 50

/** What is watched of a line: too fast, and a loss that is not counted. */
const [FAST, LEFT_OUT] = [0, 1]

/** What lasts: since when and until when, s, its worst value and when that was, s. */
interface Open {
  readonly start: number
  readonly end: number
  readonly worst: number
  readonly at: number
}
/** Plain data. */
export interface LineLoadsState {
  readonly flow: Float64Array
  readonly at: Float64Array
  readonly drop: Float64Array
  readonly found: readonly Condition[]
  readonly open: readonly (readonly [measure: number, open: Open])[]
}

export class LineLoads implements Observer<LineLoadsState> {
  private readonly lines: readonly OilLine[]
  /** Of each line the greatest flow so far, m³/s, when it was, and the drop that it takes by the law of friction, Pa. */
  private readonly flow: Float64Array
  private readonly at: Float64Array
  private readonly drop: Float64Array
  private readonly limit: Float64Array
  private viscosity = 0
  /** Flows up to this one lose less than is reported, m³/s: at this viscosity, m²/s, and at any lower one. */
  private readonly unreported: Float64Array
  /** A flow up to this one is nothing new, m³/s: neither the greatest so far nor worth watching. Below 0 where something lasts. */
  private readonly known: Float64Array
  /** Flow of each line where it was last taken, m³/s, when, s, and what is watched: in arrays, since a number that is passed on is put on the heap. */
  private readonly sizes: Float64Array
  private readonly time = new Float64Array(1)
  private readonly value = new Float64Array(1)
  /** Node of each line, 1 where its loss is left out; its ports lie between starts k and k + 1. */
  private readonly nodes: Int32Array
  private readonly isLossFree: Uint8Array
  private readonly ports: Int32Array
  private readonly starts: Int32Array
  private found: Condition[] = []
  /** What lasts, by its measure: 1 where it does, since when and until when, s, its worst and when that was, s. */
  private readonly lasts: Uint8Array
  private readonly start: Float64Array
  private readonly end: Float64Array
  private readonly worst: Float64Array
  private readonly worstAt: Float64Array

  /** @param limits greatest usual speed by service, m/s @param highest highest pressure of every node so far, Pa */
  constructor(
    private readonly network: Network,
    limits: Readonly<Record<SpeedClass, number>>,
    private readonly highest: Float64Array,
  ) {
    this.lines = network.oilLines
    const { length } = this.lines
    this.flow = new Float64Array(length)
    this.at = new Float64Array(length)
    this.drop = new Float64Array(length)
    this.limit = Float64Array.from(this.lines, ({ service, area }) => limits[service] * area)
    this.unreported = new Float64Array(length)
    this.known = new Float64Array(length)
    this.sizes = new Float64Array(length)
    this.lasts = new Uint8Array(2 * length)
    this.start = new Float64Array(2 * length)
    this.end = new Float64Array(2 * length)
    this.worst = new Float64Array(2 * length)
    this.worstAt = new Float64Array(2 * length)
    this.nodes = Int32Array.from(this.lines, ({ node }) => node)
    this.isLossFree = Uint8Array.from(this.lines, ({ model }) => (model === 'lossFree' ? 1 : 0))
    this.ports = Int32Array.from(this.lines.flatMap(({ ports }) => [...ports]))
    this.starts = new Int32Array(length + 1)
    this.lines.forEach(({ ports }, k) => (this.starts[k + 1] = this.starts[k] + ports.length))
  }

  observe(t: number): void {
    const { ports, starts, known, sizes } = this
    const { q } = this.network.arrays
    const { viscosity } = this.network.fluid
    if (viscosity > this.viscosity) this.forgetUnreported()
    this.viscosity = viscosity
    this.time[0] = t
    for (let k = 0, i = 0; k < known.length; k++) {
      let sum = 0
      for (const end = starts[k + 1]; i < end; i++) sum += q[ports[i]]
      const size = sum < 0 ? -sum : sum
      if (size > known[k]) {
        sizes[k] = size
        this.take(k)
      }
    }
  }

  /** A flow that may be the greatest so far, or worth watching. */
  private take(k: number): void {
    const { flow, limit, lasts, isLossFree, unreported, sizes } = this
    if (sizes[k] > flow[k]) {
      flow[k] = sizes[k]
      this.at[k] = this.time[0]
      this.lines[k].writeLoss(sizes, k, this.drop, k)
    }
    if (sizes[k] > limit[k] || lasts[2 * k + FAST] === 1) this.watchSpeed(k)
    if (isLossFree[k] === 1 && (sizes[k] > unreported[k] || lasts[2 * k + LEFT_OUT] === 1)) this.watchLoss(k)
    this.updateKnown(k)
  }
  private updateKnown(k: number): void {
    const { known, flow, limit, lasts, isLossFree, unreported } = this
    known[k] = flow[k]
    if (limit[k] < known[k]) known[k] = limit[k]
    if (isLossFree[k] === 1 && unreported[k] < known[k]) known[k] = unreported[k]
    if (lasts[2 * k + FAST] === 1 || lasts[2 * k + LEFT_OUT] === 1) known[k] = -1
  }
  private forgetUnreported(): void {
    this.unreported.fill(0)
    for (let k = 0; k < this.known.length; k++) this.updateKnown(k)
  }

  private watchSpeed(k: number): void {
    this.value[0] = this.sizes[k] / this.lines[k].area
    this.watch(2 * k + FAST, this.sizes[k] > this.limit[k])
  }

  private watchLoss(k: number): void {
    const { sizes, value, unreported } = this
    this.lines[k].writeLoss(sizes, k, value, 0)
    // what is reported grows with the highest pressure
    const isReported = value[0] > Math.max(LEAST_LEFT_OUT, SHARE_LEFT_OUT * this.highest[this.nodes[k]])
    if (!isReported && sizes[k] > unreported[k]) unreported[k] = sizes[k]
    this.watch(2 * k + LEFT_OUT, isReported)
  }

  /** @param active whether what is watched holds now */
  private watch(measure: number, active: boolean): void {
    const { lasts, start, end, worst, worstAt, time, value } = this
    if (!active) {
      if (lasts[measure] === 0) return
      lasts[measure] = 0
      this.close(measure)
      return
    }
    if (lasts[measure] === 0) {
      lasts[measure] = 1
      start[measure] = time[0]
      worst[measure] = -1
    }
    end[measure] = time[0]
    if (value[0] > worst[measure]) {
      worst[measure] = value[0]
      worstAt[measure] = time[0]
    }
  }

  private close(measure: number): void {
    const condition = this.conditionOf(measure)
    if (!condition) return
    const { name, pipe } = condition
    const before = this.found.filter((c) => c.pipe === pipe && c.name === name)
    if (before.length < MOST_OF_ONE) this.found.push(condition)
  }

  /** A condition, if it has lasted. */
  private conditionOf(measure: number): Condition | undefined {
    const { start, end, worst, at } = this.open(measure)
    if (end - start < SHORTEST) return undefined
    // a line that comes under pressure later
    if (measure % 2 === LEFT_OUT && worst <= SHARE_LEFT_OUT * this.highest[this.nodes[measure >> 1]])
      return undefined
    const { pipe, name, service, area } = this.lines[measure >> 1]
    const fast = measure % 2 === FAST
    const limit = this.limit[measure >> 1] / area
    return {
      name: fast ? 'lineTooFast' : 'lossLeftOut',
      label: fast
        ? `oil faster than ${showQuantity(limit, 'oilSpeed', 'metric', 2)} in ${name}, a ${service} line`
        : `${name} is computed without loss, and would take more than 3 % of its highest pressure`,
      severity: 'warning',
      pipe,
      start,
      end,
      worst: {
        label: fast ? 'greatest speed' : 'pressure drop left out',
        quantity: fast ? 'oilSpeed' : 'pressure',
        value: worst,
        at,
      },
    }
  }

  private open(measure: number): Open {
    const { start, end, worst, worstAt } = this
    return { start: start[measure], end: end[measure], worst: worst[measure], at: worstAt[measure] }
  }
  /** Measures of what lasts. */
  private lasting(): number[] {
    return [...this.lasts.keys()].filter((measure) => this.lasts[measure] === 1)
  }

  list(): Condition[] {
    return [...this.found, ...this.lasting().flatMap((measure) => this.conditionOf(measure) ?? [])]
  }

  /** The greatest of every line so far. */
  loads(): LineLoad[] {
    return this.lines.map(({ pipe, name, model, area }, k) => ({
      pipe,
      name,
      model,
      flow: this.flow[k],
      speed: this.flow[k] / area,
      drop: this.drop[k],
      at: this.at[k],
    }))
  }

  save(): LineLoadsState {
    return {
      flow: this.flow.slice(),
      at: this.at.slice(),
      drop: this.drop.slice(),
      found: [...this.found],
      open: this.lasting().map((measure) => [measure, this.open(measure)] as const),
    }
  }
  load(saved: LineLoadsState): void {
    this.flow.set(saved.flow)
    this.at.set(saved.at)
    this.drop.set(saved.drop)
    this.found = [...saved.found]
    this.lasts.fill(0)
    for (const [measure, { start, end, worst, at }] of saved.open) {
      this.lasts[measure] = 1
      this.start[measure] = start
      this.end[measure] = end
      this.worst[measure] = worst
      this.worstAt[measure] = at
    }
    // known of a later instant, with a higher pressure
    this.forgetUnreported()
  }
}
