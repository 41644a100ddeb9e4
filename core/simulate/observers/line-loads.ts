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

interface Open {
  start: number
  end: number
  worst: number
  at: number
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
  /** Flows up to this one lose less than is reported, m³/s: at this viscosity, m²/s, and at any lower one. */
  private readonly unreported: Float64Array
  private viscosity = 0
  /** A flow up to this one is nothing new, m³/s: neither the greatest so far nor worth watching. Below 0 where something lasts. */
  private readonly known: Float64Array
  /** Flow of each line where it was last taken, m³/s, and what is watched just now: in arrays, since a number that is passed on is put on the heap. */
  private readonly sizes: Float64Array
  private readonly value = new Float64Array(1)
  /** Node of each line, 1 where its loss is left out; its ports lie between starts k and k + 1. */
  private readonly nodes: Int32Array
  private readonly isLossFree: Uint8Array
  private readonly ports: Int32Array
  private readonly starts: Int32Array
  private found: Condition[] = []
  /** What lasts, by its measure. */
  private readonly open: (Open | undefined)[]

  /** @param limits greatest usual speed by service, m/s @param highest highest pressure of a node so far, Pa */
  constructor(
    private readonly network: Network,
    limits: Readonly<Record<SpeedClass, number>>,
    private readonly highest: (node: number) => number,
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
    this.open = Array.from({ length: 2 * length }, () => undefined)
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
    for (let k = 0, i = 0; k < known.length; k++) {
      let sum = 0
      for (const end = starts[k + 1]; i < end; i++) sum += q[ports[i]]
      const size = sum < 0 ? -sum : sum
      if (size > known[k]) {
        sizes[k] = size
        this.take(k, t)
      }
    }
  }

  /** A flow that may be the greatest so far, or worth watching. */
  private take(k: number, t: number): void {
    const { flow, limit, open, isLossFree, unreported } = this
    const size = this.sizes[k]
    if (size > flow[k]) {
      flow[k] = size
      this.at[k] = t
      this.drop[k] = this.lines[k].loss(size)
    }
    if (size > limit[k] || open[2 * k + FAST]) this.watchSpeed(k, t)
    if (isLossFree[k] === 1 && (size > unreported[k] || open[2 * k + LEFT_OUT])) this.watchLoss(k, t)
    this.updateKnown(k)
  }
  private updateKnown(k: number): void {
    const { flow, limit, open, isLossFree, unreported } = this
    const lasts = open[2 * k + FAST] !== undefined || open[2 * k + LEFT_OUT] !== undefined
    this.known[k] = lasts ? -1 : Math.min(flow[k], limit[k], isLossFree[k] === 1 ? unreported[k] : Infinity)
  }
  private forgetUnreported(): void {
    this.unreported.fill(0)
    for (let k = 0; k < this.known.length; k++) this.updateKnown(k)
  }

  private watchSpeed(k: number, t: number): void {
    const size = this.sizes[k]
    this.value[0] = size / this.lines[k].area
    this.watch(2 * k + FAST, size > this.limit[k], t)
  }
  private watchLoss(k: number, t: number): void {
    const size = this.sizes[k]
    const left = this.lines[k].loss(size)
    const reported = Math.max(LEAST_LEFT_OUT, SHARE_LEFT_OUT * this.highest(this.nodes[k]))
    // what is reported grows with the highest pressure
    if (left <= reported && size > this.unreported[k]) this.unreported[k] = size
    this.value[0] = left
    this.watch(2 * k + LEFT_OUT, left > reported, t)
  }

  private watch(measure: number, active: boolean, t: number): void {
    const now = this.open[measure]
    const value = this.value[0]
    if (!active) {
      if (!now) return
      this.open[measure] = undefined
      this.close(measure, now)
    } else if (!now) {
      this.open[measure] = { start: t, end: t, worst: value, at: t }
    } else {
      now.end = t
      if (value > now.worst) {
        now.worst = value
        now.at = t
      }
    }
  }

  private close(measure: number, open: Open): void {
    const condition = this.conditionOf(measure, open)
    if (!condition) return
    const { name, pipe } = condition
    const before = this.found.filter((c) => c.pipe === pipe && c.name === name)
    if (before.length < MOST_OF_ONE) this.found.push(condition)
  }

  /** A condition, if it has lasted. */
  private conditionOf(measure: number, { start, end, worst, at }: Open): Condition | undefined {
    if (end - start < SHORTEST) return undefined
    // a line that comes under pressure later
    if (measure % 2 === LEFT_OUT && worst <= SHARE_LEFT_OUT * this.highest(this.nodes[measure >> 1]))
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

  list(): Condition[] {
    const open = this.open.flatMap((now, measure) => (now && this.conditionOf(measure, now)) ?? [])
    return [...this.found, ...open]
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
      open: this.open.flatMap((now, measure) => (now ? [[measure, { ...now }] as const] : [])),
    }
  }
  load(saved: LineLoadsState): void {
    this.flow.set(saved.flow)
    this.at.set(saved.at)
    this.drop.set(saved.drop)
    this.found = [...saved.found]
    this.open.fill(undefined)
    for (const [measure, now] of saved.open) this.open[measure] = { ...now }
    // known of a later instant, with a higher pressure
    this.forgetUnreported()
  }
}
