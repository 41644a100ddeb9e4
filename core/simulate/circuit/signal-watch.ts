/** Event functions on outputs, states and inputs of other elements: whoever watches them is asked where one leaves its range. */
import type { Local, Model } from '../../catalogue/kind'
import type { WatchedSignal } from '../control-interface'
import type { Element } from './elements'

export class SignalWatch {
  /** Two event functions for each signal: above zero while it is below the upper and above the lower end of its range. */
  readonly model: Model
  private readonly low: Float64Array
  private readonly high: Float64Array
  private sources: readonly { readonly array: Float64Array; readonly index: number }[] = []
  private own?: Local

  constructor(private readonly signals: readonly WatchedSignal[]) {
    this.low = new Float64Array(signals.length).fill(-Infinity)
    this.high = new Float64Array(signals.length).fill(Infinity)
    this.model = {
      eventFunctions: signals.flatMap(({ component, signal }) => [
        { name: `${component}.${signal}:high`, label: `${signal} of ${component}`, report: 0 as const },
        { name: `${component}.${signal}:low`, label: `${signal} of ${component}`, report: 0 as const },
      ]),
    }
  }

  /** Finds the signals in the elements of a circuit. @throws Error where there is no such signal */
  bind(elements: readonly Element[], own: Element): void {
    this.own = own.local
    this.sources = this.signals.map(({ component, signal }) => {
      const element = elements.find((e) => e.id === component)
      const output = element?.model.outputs?.findIndex((o) => o.name === signal) ?? -1
      if (element && output >= 0) return { array: element.local.o, index: output }
      const state = element?.states.findIndex((s) => s.name === signal) ?? -1
      if (element && state >= 0) return { array: element.local.x, index: state }
      const input = element?.inputs.findIndex((i) => i.spec.name === signal) ?? -1
      if (element && input >= 0) return { array: element.local.u, index: input }
      throw new Error(`${component} has no signal "${signal}" to be watched.`)
    })
    this.update()
  }

  value(index: number): number {
    const { array, index: at } = this.sources[index]
    return array[at]
  }

  /** @returns whether a range is another */
  setRanges(ranges: readonly (readonly [number, number])[]): boolean {
    let changed = false
    ranges.forEach(([low, high], i) => {
      if (this.low[i] === low && this.high[i] === high) return
      this.low[i] = low
      this.high[i] = high
      changed = true
    })
    return changed
  }

  /** Event functions from the present values; the other elements must have been observed. */
  update(): void {
    if (!this.own) return
    const { g } = this.own
    for (let i = 0; i < this.signals.length; i++) {
      const value = this.value(i)
      g[2 * i] = Math.min(this.high[i] - value, Number.MAX_VALUE)
      g[2 * i + 1] = Math.min(value - this.low[i], Number.MAX_VALUE)
    }
  }

  save(): readonly Float64Array[] {
    return [this.low.slice(), this.high.slice()]
  }
  load([low, high]: readonly Float64Array[]): void {
    this.low.set(low)
    this.high.set(high)
  }
}
