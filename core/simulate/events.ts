/** Guards of the elements: which changed sides within a step, where, and what that switches. */
import { Crossings } from './crossing'
import type { Condition } from './result'
import type { Network } from './network'

/** An instant is located to this precision, s. */
const PRECISION = 1e-9

export class GuardWatch {
  private before: Float64Array
  private now: Float64Array
  private readonly crossings: Crossings

  constructor(private readonly network: Network) {
    const count = network.board.g.length
    this.before = new Float64Array(count)
    this.now = new Float64Array(count)
    this.crossings = new Crossings(count, true)
  }

  private read(into: Float64Array): void {
    into.set(this.network.board.g)
  }

  /** Takes the sides as the network was last evaluated. */
  take(): void {
    this.read(this.before)
  }

  /** Whether a guard lies on another side than when last taken. */
  crossed(): boolean {
    this.read(this.now)
    return this.crossings.find(this.before, this.now)
  }

  /** The sides last looked at by `crossed` hold from here. */
  accept(): void {
    const swap = this.before
    this.before = this.now
    this.now = swap
  }

  /**
   * The share of a step, between two, at which a guard has just changed sides; `crossed` was asked at the second.
   * @param length of the step, s @param look evaluates the network at a share
   */
  locate(low: number, high: number, length: number, look: (share: number) => void): number {
    const lookAt = (share: number) => {
      look(share)
      this.read(this.now)
    }
    const event = this.crossings.locate(low, high, Math.max(PRECISION / length, 1e-12), lookAt, this.now)
    lookAt(event)
    return event
  }

  /** Switches the elements whose guards changed sides; the network is at the event. */
  fire(tell?: (condition: Condition) => void): void {
    const t = this.network.time
    let k = 0
    for (const e of this.network.elements) {
      const { local, model } = e
      for (let i = 0; i < local.g.length; i++, k++) {
        if (local.g[i] >= 0 === this.before[k] >= 0) continue
        const direction = local.g[i] >= 0 ? 1 : -1
        const spec = model.guards![i]
        if (tell && spec.report === direction) {
          const state = model.states?.findIndex((s) => s.name === spec.value) ?? -1
          const output = model.outputs?.findIndex((s) => s.name === spec.value) ?? -1
          const found = model.states?.[state] ?? model.outputs?.[output]
          const value = state >= 0 ? local.x[state] : local.o[output]
          tell({
            name: spec.name,
            label: spec.label,
            severity: 'info',
            component: e.id,
            start: t,
            end: t,
            ...(found ? { worst: { label: found.label, quantity: found.quantity, value, at: t } } : {}),
          })
        }
        model.switch?.(local, i, direction)
      }
    }
  }
}
