/** What a circuit is made of before it is built: as compiled from a sheet, never changed by a run. */
import type { FluidData } from '../../fluid/fluid'
import type { SpeedClass } from '../../sheet/line-speeds'
import type { Netlist } from '../../sheet/netlist'
import type { TankData } from '../../sheet/resolve'
import type { ControlDefinition } from '../control-interface'
import type { Input } from './input-bank'

export interface CircuitDefinition {
  readonly netlist: Netlist
  readonly fluid: FluidData
  readonly tank: TankData
  readonly inputs: readonly Input[]
  /** Pressure at the start by node, Pa; 0 where nothing is said. */
  readonly initialPressure: ReadonlyMap<number, number>
  /** What each pipe of oil serves for, and how fast oil may flow there, m/s. */
  readonly speedClasses: ReadonlyMap<string, SpeedClass>
  readonly lineSpeeds: Readonly<Record<SpeedClass, number>>
  /** What happens where a line would burst: it is reported, the run stops, or the line opens. */
  readonly onBurst: 'report' | 'stop' | 'open'
  /** Any line can be burst by hand. */
  readonly burstable?: boolean
  /** Its devices have inputs and outputs like components, and no oil. */
  readonly control?: ControlDefinition
}
