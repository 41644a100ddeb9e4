/** Event functions of the elements, and lines that burst: which changed sign within a step, where, and what that switches. */
import { ZeroCrossings } from '../numerics/zero-crossings'
import type { Element } from './elements'
import type { Network } from './network'

/** An instant is located to this precision, s. */
const PRECISION = 1e-9
/** Rounds of switching at one instant after which elements switch each other back and forth without end. */
const MOST_ROUNDS = 50

/** Elements switch each other back and forth at one instant. */
export class Chattering extends Error {
  constructor(readonly elements: readonly Element[]) {
    super(`${elements.map((e) => e.id).join(' and ')} switch back and forth without end`)
  }
}

/** Called for every event function that changed sign. @param direction 1 rising, −1 falling */
export type EventReport = (element: Element, index: number, direction: 1 | -1) => void

export class EventFunctions {
  /** Values where the elements' modes agree with their signs. */
  private readonly before: Float64Array
  private readonly now: Float64Array
  private readonly crossings: ZeroCrossings

  constructor(private readonly network: Network) {
    // those of the elements, then how far the foremost line is beyond the pressure at which its bursting ends the run
    const count = network.arrays.g.length + 1
    this.before = new Float64Array(count)
    this.now = new Float64Array(count)
    this.crossings = new ZeroCrossings(count, true)
  }

  /** Whether one has changed sign since the modes last agreed, where the network was last evaluated. */
  crossed(): boolean {
    this.read()
    return this.crossings.find(this.before, this.now)
  }
  private read(): void {
    const { now } = this
    const { arrays, potential, burstPressure, endsWhereBursts } = this.network
    now.set(arrays.g)
    let beyond = -Infinity
    for (let k = 0; k < endsWhereBursts.length; k++) {
      const node = endsWhereBursts[k]
      const over = potential[node] - burstPressure[node]
      if (over > beyond) beyond = over
    }
    now[now.length - 1] = beyond
  }
  /** The values last seen by `crossed` hold from here. */
  accept(): void {
    this.before.set(this.now)
  }

  /**
   * The share of a step, between two, at which one has just changed sign; `crossed` was asked at the second.
   * @param length of the step, s @param evaluateAt evaluates the network at a share of the step
   */
  locate(low: number, high: number, length: number, evaluateAt: (share: number) => void): number {
    const read = (share: number) => {
      evaluateAt(share)
      this.read()
    }
    const share = this.crossings.locate(low, high, Math.max(PRECISION / length, 1e-12), read, this.now)
    read(share)
    return share
  }

  /** Sets every mode by the sign of its event function at (t, y), and on until all agree. @param y loses the speeds of what stands @throws Chattering */
  initialise(t: number, y: Float64Array): void {
    this.before.fill(Number.NaN)
    this.switchAll(t, y)
  }

  /**
   * Switches the modes whose event functions have changed sign at (t, y), then those that follow from them, until all agree.
   * @param y present state; speeds of what has come to stand are taken from it @returns whether anything was switched @throws Chattering
   */
  switchAll(t: number, y: Float64Array, report?: EventReport): boolean {
    const { network, before } = this
    for (let round = 0; ; round++) {
      network.evaluateEvents(t, y)
      const chattering: Element[] = []
      let switched = false
      let k = 0
      for (const element of network.elements) {
        const { local, model } = element
        for (let i = 0; i < local.g.length; i++, k++) {
          const above = local.g[i] >= 0
          if (!Number.isNaN(before[k]) && above === before[k] >= 0) continue
          if (round >= MOST_ROUNDS) {
            if (!chattering.includes(element)) chattering.push(element)
            continue
          }
          const direction = above ? 1 : -1
          report?.(element, i, direction)
          before[k] = direction
          model.switch?.(local, i, direction)
          switched = true
        }
      }
      if (chattering.length) throw new Chattering(chattering)
      if (!switched) {
        this.read()
        this.accept()
        return round > 0
      }
      network.settle(y)
    }
  }

  save(): Float64Array {
    return this.before.slice()
  }
  load(saved: Float64Array): void {
    this.before.set(saved)
  }
}
