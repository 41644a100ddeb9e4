/** What a run reports. Everything in SI; sample columns are single precision. */
import type { Action } from './actions'
import type { InputChange } from './event-text'
import type { LineModel } from '../sheet/netlist'
import type { Quantity } from '../units/quantities'
import type { Statistics } from './numerics/rosenbrock'

export type SignalRole = 'pressure' | 'flow' | 'state' | 'input' | 'output' | 'mode' | 'speed' | 'position'
export interface Signal {
  /** "pressure(LINE)", "flow(COMPONENT.PORT)" or "COMPONENT.NAME". */
  readonly id: string
  readonly label: string
  readonly quantity: Quantity
  readonly role: SignalRole
  readonly component?: string
  readonly pipe?: string
  /** Index of the line, for pressures. */
  readonly node?: number
}

/** The least, greatest and last value of a signal, found on every step of the solver. */
export interface Extremes {
  min: number
  minAt: number
  max: number
  maxAt: number
  end: number
}

/** Something that was so for a while, or (without a duration) happened at an instant. */
export interface Condition {
  readonly name: string
  readonly label: string
  readonly severity: 'info' | 'warning' | 'danger'
  readonly component?: string
  readonly pipe?: string
  /** Line, for conditions of a line. */
  readonly node?: number
  readonly start: number
  /** The end; equal to the start for an instant. */
  end: number
  /** Greatest extent while it lasted: its value, or that at the instant. */
  worst?: { readonly label: string; readonly quantity: Quantity; value: number; at: number }
}

/** Something that happened at an instant: an event function changed sign, an input jumped, a person did something. */
export interface RunEvent {
  /** s */
  readonly at: number
  readonly source: 'circuit' | 'schedule' | 'control' | 'user'
  readonly component?: string
  /** What happened, for people, in metric units: "reaches its extended stop", "speed = 1500 rpm". */
  readonly what: string
  /** The input that changed, where it is that. */
  readonly change?: InputChange
}

/** A balance error beyond this is reported. */
export const BALANCE_WARNING = 1e-3

export interface EnergyBalance {
  /** J: put in at shafts, useful work of loads, heat, gone into storage (mass, height, springs, oil). */
  readonly input: number
  readonly useful: number
  readonly heat: number
  readonly stored: number
  /** |input − useful − heat − stored| over the energy that was turned over. */
  readonly error: number
  /** Heat by component or pipe, J. */
  readonly heatBy: readonly { readonly id: string; readonly heat: number }[]
  /** Components or pipes whose own account does not close, and by how much, J: most first. */
  readonly missing: readonly { readonly id: string; readonly energy: number }[]
}
export interface OilBalance {
  /** m³ that left the tanks, less what came back. */
  readonly supplied: number
  /** m³ by which chambers and lines grew and their oil was compressed: ΔV + ∫V/K_e·dp. */
  readonly stored: number
  /** |supplied − stored| over the oil that was moved. */
  readonly error: number
}

/** How a pipe of oil was loaded: the greatest flow of a run, its speed, and the drop that it takes by the law of friction. */
export interface LineLoad {
  readonly pipe: string
  readonly name: string
  /** Whether that drop counted. */
  readonly model: LineModel
  /** m³/s, m/s, Pa */
  readonly flow: number
  readonly speed: number
  readonly drop: number
  /** When that was, s. */
  readonly at: number
}

export interface RunResult {
  readonly schedule: string
  /** s */
  readonly duration: number
  readonly finished: boolean
  /** Why it stopped early, and where. */
  readonly stopped?: { readonly message: string; readonly component?: string; readonly pipe?: string }
  /** What the reader of the result must know of it. */
  readonly warnings: readonly string[]
  readonly times: Float64Array
  readonly signals: readonly Signal[]
  readonly columns: readonly Float32Array[]
  readonly extremes: readonly Extremes[]
  readonly conditions: readonly Condition[]
  /** What happened, in order. */
  readonly events: readonly RunEvent[]
  /** What was done by hand, with which it can be replayed. */
  readonly actions: readonly Action[]
  /** Set where it was worked by hand: how long a step could be at first, and whether the commands of 0 s were held. */
  readonly live?: { readonly longestStep: number; readonly held: boolean }
  readonly energy: EnergyBalance
  readonly oil: OilBalance
  /** Of every pipe of oil whose flow is determined: not of those in a ring without loss. */
  readonly lineLoads: readonly LineLoad[]
  readonly statistics: Statistics
  /** Names of the lines, and the line of every "component.port" and of every pipe. */
  readonly lines: readonly string[]
  readonly lineOfPort: Readonly<Record<string, number>>
  readonly lineOfPipe: Readonly<Record<string, number>>
}

export const signalIndex = (result: Pick<RunResult, 'signals'>, id: string) =>
  result.signals.findIndex((s) => s.id === id)

/** Value of a signal at a time, straight between samples. */
export function valueAt(result: RunResult, signal: number, t: number): number {
  const { index, share } = sampleAt(result.times, t)
  const column = result.columns[signal]
  const next = Math.min(index + 1, column.length - 1)
  return column[index] + share * (column[next] - column[index])
}

/** Index of the last sample at or before t, and how far t lies towards the next. */
export function sampleAt(times: Float64Array, t: number): { index: number; share: number } {
  let low = 0
  let high = times.length - 1
  if (high < 0) return { index: 0, share: 0 }
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if (times[middle] <= t) low = middle
    else high = middle - 1
  }
  if (low >= times.length - 1) return { index: low, share: 0 }
  const span = times[low + 1] - times[low]
  return { index: low, share: span > 0 ? Math.min(1, Math.max(0, (t - times[low]) / span)) : 0 }
}
