/** Conditions that last, and instants worth reporting, found on the solver's steps. */
import { showQuantity } from '../../units/text'
import { CAVITATION_PRESSURE } from '../../fluid/fluid'
import { ATMOSPHERE } from '../../units/quantities'
import type { Element } from '../circuit/elements'
import type { Network } from '../circuit/network'
import { ZeroCrossings } from '../numerics/zero-crossings'
import type { Condition } from '../result'
import type { Observer } from './observer'

/** The start and end of a condition are located to this precision, s. */
const PRECISION = 1e-6
/** A condition that comes and goes more often than this is no longer listed one by one. */
const MOST_OF_ONE = 200

interface Watched {
  /** Array of the value whose greatest extent is kept, with its sign (−1: lowest). */
  readonly worst?: { array: ArrayLike<number>; index: number; sign: 1 | -1 }
  readonly make: (start: number) => Condition
  open?: Condition
  count: number
}

/** Plain data. */
export interface ConditionsState {
  readonly conditions: readonly Condition[]
  readonly last: Float64Array
  readonly counts: Int32Array
  /** Those that last, by their measure: index into the conditions, or what is no longer listed. */
  readonly open: readonly (readonly [measure: number, condition: number | Condition])[]
}
const copyOf = (condition: Condition): Condition => ({
  ...condition,
  ...(condition.worst ? { worst: { ...condition.worst } } : {}),
})

export class Conditions implements Observer<ConditionsState> {
  private conditions: Condition[] = []
  private readonly watched: Watched[] = []
  /** Nodes whose oil may tear, whose line may burst or run empty; after them come rated pipes, then the measures of the elements. */
  private readonly oil: Int32Array
  /** Nodes whose pipes have a rating. */
  private readonly rated: Int32Array
  private readonly isOpen: Uint8Array
  /** Measures whose conditions last. */
  private open: number[] = []
  private readonly emptyPressure: number
  /** Ratings of the rated nodes, Pa. */
  private readonly ratings: Float64Array
  private last: Float64Array
  private now: Float64Array
  private readonly crossings: ZeroCrossings

  constructor(private readonly network: Network) {
    this.emptyPressure = network.fluid.emptyPressure
    this.oil = Int32Array.from(network.nodes.keys()).filter(
      (i) => network.isOil[i] === 1 && network.nodeState[i] >= 0,
    )
    for (const i of this.oil)
      this.watchLine(i, 'cavitation', 'warning', (name) => `cavitation: ${name} below 0.3 bar absolute`, -1)
    for (const i of this.oil)
      this.watchLine(
        i,
        'bursts',
        'danger',
        (name) => `would burst: ${name} beyond four times its lowest rating`,
        1,
      )
    for (const i of this.oil)
      this.watchLine(
        i,
        'emptied',
        'warning',
        (name) => `run empty: more was drawn from ${name} than it holds`,
      )
    this.rated = this.oil.filter((i) => network.nodes[i].rating < Infinity)
    this.ratings = Float64Array.from(this.rated, (i) => network.nodes[i].rating)
    for (const i of this.rated)
      this.watchLine(
        i,
        'overRated',
        'danger',
        (name) =>
          `pipe above its rating: ${name} beyond ${showQuantity(network.nodes[i].rating, 'pressure', 'metric')}${this.risesByWarming(i) ? ', by oil that is shut in and warms' : ''}`,
        1,
      )
    for (const e of network.elements)
      e.model.conditions?.forEach((spec) => {
        const worst = spec.worst ? (e.model.outputs?.findIndex((o) => o.name === spec.worst) ?? -1) : -1
        const output = e.model.outputs?.[worst]
        this.watched.push({
          worst: output ? { array: e.local.o, index: worst, sign: 1 } : undefined,
          count: 0,
          make: (start) => ({
            name: spec.name,
            label: spec.label,
            severity: spec.severity,
            ...(e.pipe ? { pipe: e.pipe } : { component: e.id }),
            start,
            end: start,
            ...(output
              ? {
                  worst: {
                    label: output.label,
                    quantity: output.quantity,
                    value: e.local.o[worst],
                    at: start,
                  },
                }
              : {}),
          }),
        })
      })
    this.last = new Float64Array(this.watched.length).fill(-1)
    this.now = new Float64Array(this.watched.length)
    this.isOpen = new Uint8Array(this.watched.length)
    this.crossings = new ZeroCrossings(this.watched.length, false)
  }

  /** Whether most of what makes the pressure of a node rise is its oil that warms, and not oil that flows in. */
  private risesByWarming(node: number): boolean {
    const { capacity, inflow, fluid } = this.network
    const growth = capacity[node] * fluid.expansionRate
    return growth > 0 && inflow[node] > 0 && growth > 0.5 * inflow[node]
  }

  /** @param extreme which pressure is reported with it: the highest (1) or the lowest (−1) */
  private watchLine(
    node: number,
    name: string,
    severity: Condition['severity'],
    label: (line: string) => string,
    extreme?: 1 | -1,
  ): void {
    const { nodes, potential } = this.network
    const line = nodes[node]
    this.watched.push({
      ...(extreme ? { worst: { array: potential, index: node, sign: extreme } } : {}),
      count: 0,
      make: (start) => ({
        name,
        label: label(line.name),
        severity,
        node,
        component: line.ports[0]?.component,
        pipe: line.pipes[0],
        start,
        end: start,
        ...(extreme
          ? {
              worst: {
                label: extreme > 0 ? 'highest pressure' : 'lowest pressure',
                quantity: 'pressure' as const,
                value: potential[node],
                at: start,
              },
            }
          : {}),
      }),
    })
  }

  /** Reads all measures. @returns whether one has changed sides: what lasts is what is above 0 */
  private read(): boolean {
    const { oil, now, isOpen, rated, ratings, emptyPressure } = this
    const { potential, arrays, burstPressure } = this.network
    const nodes = oil.length
    const cavitation = CAVITATION_PRESSURE - ATMOSPHERE
    for (let k = 0; k < nodes; k++) {
      const pressure = potential[oil[k]]
      now[k] = cavitation - pressure
      const beyond = pressure - burstPressure[oil[k]]
      // a run may end where a line is just there
      now[nodes + k] = beyond === 0 ? Number.MIN_VALUE : beyond
      now[2 * nodes + k] = emptyPressure - pressure
    }
    for (let k = 0; k < rated.length; k++) now[3 * nodes + k] = potential[rated[k]] - ratings[k]
    now.set(arrays.c, 3 * nodes + rated.length)
    for (let k = 0; k < now.length; k++) if (now[k] > 0 !== (isOpen[k] === 1)) return true
    return false
  }

  /** Whether a measure changed sides since the last look; then the caller finds out when. */
  crossed(): boolean {
    return this.read() && this.crossings.find(this.last, this.now)
  }

  /**
   * The share of a step, between two, at which a condition has just come or gone; `crossed` was asked at the second.
   * @param length of the step, s @param update observes the network at a share
   */
  locate(low: number, high: number, length: number, update: (share: number) => void): number {
    const updateAt = (share: number) => {
      update(share)
      this.read()
    }
    return this.crossings.locate(low, high, PRECISION / length, updateAt, this.now)
  }

  /** Takes the network's state as that of time t. */
  observe(t: number): void {
    this.read()
    this.take(t)
  }
  /** Takes the state that `crossed` has just read, and found no crossing in, as that of time t. */
  goOn(t: number): void {
    this.exchange()
    this.extend(t)
  }
  /** What has been read is the last. */
  private exchange(): void {
    const { last, now } = this
    this.last = now
    this.now = last
  }

  private take(t: number): void {
    const { now, isOpen } = this
    this.exchange()
    for (let k = 0; k < now.length; k++) if (now[k] > 0 !== (isOpen[k] === 1)) this.change(k, t)
    this.extend(t)
  }
  /** A condition has come or gone. */
  private change(measure: number, t: number): void {
    const { isOpen } = this
    const w = this.watched[measure]
    if (w.open) {
      w.open.end = t
      w.open = undefined
      isOpen[measure] = 0
      this.open = this.open.filter((k) => k !== measure)
      return
    }
    w.open = w.make(t)
    isOpen[measure] = 1
    this.open.push(measure)
    if (w.count++ < MOST_OF_ONE) this.conditions.push(w.open)
  }
  /** What lasts goes on. */
  private extend(t: number): void {
    const { open, watched } = this
    for (let k = 0; k < open.length; k++) {
      const w = watched[open[k]]
      w.open!.end = t
      const { worst } = w.open!
      if (!worst || !w.worst) continue
      const value = w.worst.array[w.worst.index]
      if (w.worst.sign * value > w.worst.sign * worst.value) {
        worst.value = value
        worst.at = t
      }
    }
  }

  /** A line that is at or beyond its burst pressure, where last looked at; −1 where none is. */
  bursting(): number {
    const { oil, last } = this
    for (let k = 0; k < oil.length; k++) if (last[oil.length + k] >= 0) return oil[k]
    return -1
  }

  /** Reports an event function that changed sign: a contact, a switch; the network is evaluated at t. */
  event(t: number, { id, model, local }: Element, index: number, direction: 1 | -1): void {
    const spec = model.eventFunctions![index]
    if (spec.report !== direction) return
    const state = model.states?.findIndex((s) => s.name === spec.value) ?? -1
    const output = model.outputs?.findIndex((s) => s.name === spec.value) ?? -1
    const found = model.states?.[state] ?? model.outputs?.[output]
    const value = state >= 0 ? local.x[state] : local.o[output]
    this.conditions.push({
      name: spec.name,
      label: spec.label,
      severity: 'info',
      component: id,
      start: t,
      end: t,
      ...(found ? { worst: { label: found.label, quantity: found.quantity, value, at: t } } : {}),
    })
  }

  /** All so far, in the order of their starts. */
  list(): Condition[] {
    return this.conditions.map(copyOf).sort((a, b) => a.start - b.start)
  }

  save(): ConditionsState {
    const open = [...this.watched.entries()].flatMap(([measure, { open }]) => {
      if (!open) return []
      const index = this.conditions.lastIndexOf(open)
      return [[measure, index < 0 ? copyOf(open) : index] as const]
    })
    return {
      conditions: this.conditions.map(copyOf),
      last: this.last.slice(),
      counts: Int32Array.from(this.watched, (w) => w.count),
      open,
    }
  }
  load(saved: ConditionsState): void {
    this.conditions = saved.conditions.map(copyOf)
    this.last.set(saved.last)
    this.isOpen.fill(0)
    this.open = saved.open.map(([measure]) => measure)
    this.watched.forEach((w, measure) => {
      w.count = saved.counts[measure]
      w.open = undefined
    })
    for (const [measure, condition] of saved.open) {
      this.isOpen[measure] = 1
      this.watched[measure].open =
        typeof condition === 'number' ? this.conditions[condition] : copyOf(condition)
    }
  }
}
