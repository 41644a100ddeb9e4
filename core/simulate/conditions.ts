/** Conditions that last, and instants worth reporting, found on the solver's steps. */
import { CAVITATION_PRESSURE } from '../fluid/fluid'
import { ATMOSPHERE } from '../units/quantities'
import { Crossings } from './crossing'
import type { Network } from './network'
import type { Condition } from './result'

/** The start and end of a condition are located to this precision, s. */
const PRECISION = 1e-6
/** A condition that comes and goes more often than this is no longer listed one by one. */
const MOST_OF_ONE = 200

interface Watched {
  readonly measures: ArrayLike<number>
  readonly index: number
  /** Array of the value whose greatest extent is kept, with its sign (−1: lowest). */
  readonly worst?: { array: ArrayLike<number>; index: number; sign: 1 | -1 }
  readonly make: (start: number) => Condition
  open?: Condition
  count: number
}

export class ConditionWatch {
  readonly conditions: Condition[] = []
  private readonly watched: Watched[] = []
  private readonly cavitation: Float64Array
  private readonly last: Float64Array
  private readonly now: Float64Array
  private readonly crossings: Crossings

  constructor(private readonly network: Network) {
    const oil = network.nodes.flatMap((node, i) =>
      node.domain === 'oil' && network.nodeState[i] >= 0 ? [i] : [],
    )
    this.cavitation = new Float64Array(network.nodes.length).fill(-1)
    for (const i of oil) {
      const node = network.nodes[i]
      this.watched.push({
        measures: this.cavitation,
        index: i,
        worst: { array: network.potential, index: i, sign: -1 },
        count: 0,
        make: (start) => ({
          name: 'cavitation',
          label: `cavitation: ${node.name} below 0.3 bar absolute`,
          severity: 'warning',
          node: i,
          component: node.ports[0]?.component,
          pipe: node.pipes[0],
          start,
          end: start,
          worst: { label: 'lowest pressure', quantity: 'pressure', value: network.potential[i], at: start },
        }),
      })
    }
    for (const e of network.elements)
      e.model.conditions?.forEach((spec, index) => {
        const worst = spec.worst ? (e.model.outputs?.findIndex((o) => o.name === spec.worst) ?? -1) : -1
        const output = e.model.outputs?.[worst]
        this.watched.push({
          measures: e.local.c,
          index,
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
    this.crossings = new Crossings(this.watched.length, false)
  }

  private read(): void {
    const { potential } = this.network
    for (let i = 0; i < potential.length; i++)
      this.cavitation[i] = CAVITATION_PRESSURE - (potential[i] + ATMOSPHERE)
    for (let k = 0; k < this.watched.length; k++) {
      const { measures, index } = this.watched[k]
      this.now[k] = measures[index]
    }
  }

  /** Whether a measure changed sides since the last look; then the caller finds out when. */
  crossed(): boolean {
    this.read()
    return this.crossings.find(this.last, this.now)
  }

  /**
   * The share of a step, between two, at which a condition has just come or gone; `crossed` was asked at the second.
   * @param length of the step, s @param look observes the network at a share
   */
  locate(low: number, high: number, length: number, look: (share: number) => void): number {
    const lookAt = (share: number) => {
      look(share)
      this.read()
    }
    return this.crossings.locate(low, high, PRECISION / length, lookAt, this.now)
  }

  /** Takes the network's state as that of time t. */
  look(t: number): void {
    this.read()
    this.last.set(this.now)
    for (let k = 0; k < this.watched.length; k++) {
      const w = this.watched[k]
      const value = this.now[k]
      if (value > 0) {
        if (!w.open) {
          w.open = w.make(t)
          if (w.count++ < MOST_OF_ONE) this.conditions.push(w.open)
        }
        w.open.end = t
        const { worst } = w.open
        if (worst && w.worst) {
          const now = w.worst.array[w.worst.index]
          if (w.worst.sign * now > w.worst.sign * worst.value) {
            worst.value = now
            worst.at = t
          }
        }
      } else if (w.open) {
        w.open.end = t
        w.open = undefined
      }
    }
  }

  /** Reports an instant: a contact, a switch. */
  instant(condition: Condition): void {
    this.conditions.push(condition)
  }

  finish(): Condition[] {
    return this.conditions.sort((a, b) => a.start - b.start)
  }
}
