/** Everything that the future of a simulation depends on. */
import type { RawValue } from '../sheet/resolve'
import type { Action } from './actions'
import type { InputState } from './circuit/input-bank'
import type { DerivativesData } from './circuit/jacobian'
import type { RatesData } from './circuit/instant-rates'
import type { OilStateData } from './circuit/oil-state'
import type { Due } from './due-queue'
import type { IntegratorState } from './numerics/rosenbrock'
import type { BalancesState } from './observers/balances'
import type { ConditionsState } from './observers/conditions'
import type { HuntingState } from './observers/hunting'
import type { LineLoadsState } from './observers/line-loads'
import type { RecorderState } from './observers/recorder'
import type { RunResult } from './result'

/** Why a simulation cannot go on, and the place concerned. */
export type Stop = NonNullable<RunResult['stopped']>

/** A component as it differs from the sheet: values changed in flight, faults that act. */
export interface Changed {
  readonly parameters: Readonly<Record<string, RawValue>>
  readonly faulty: boolean
}

/** Plain data that can be sent between threads and kept as a file. */
export interface Snapshot {
  readonly time: number
  readonly integrator: IntegratorState
  readonly modes: Int32Array
  readonly events: Float64Array
  readonly derivatives: DerivativesData
  readonly inputs: InputState
  readonly oil: OilStateData
  readonly rates: RatesData
  readonly changed: Readonly<Record<string, Changed>>
  readonly queue: readonly Due<Action>[]
  /** Number of actions done so far. */
  readonly done: number
  /** Number of events listed so far. */
  readonly eventsListed: number
  readonly longestStep: number
  readonly control?: unknown
  /** Ranges of watched signals. */
  readonly watched?: readonly Float64Array[]
  readonly recorder: RecorderState
  readonly conditions: ConditionsState
  readonly hunting: HuntingState
  readonly lineLoads: LineLoadsState
  readonly balances: BalancesState
  readonly warnings: readonly string[]
  readonly stopped?: Stop
}
