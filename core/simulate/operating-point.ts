/** The steady operating point that the commands of one instant lead to, without the way to it. */
import type { Sheet } from '../sheet/schema'
import { compile } from './compile'
import type { ControlDefinition } from './control-interface'
import { Network } from './circuit/network'
import { Recorder } from './observers/recorder'
import type { Signal } from './result'
import { findSteadyState } from './steady-state'

export interface OperatingPoint {
  /** Whether there is one: nothing moves any more. */
  readonly atRest: boolean
  /** s that were simulated to get there. */
  readonly time: number
  /** Every signal with its value there, SI, by its id. */
  readonly values: ReadonlyMap<string, { readonly signal: Signal; readonly value: number }>
}

/**
 * Solves the state in which the circuit rests with the commands a schedule has at an instant.
 * @param at s @param control of the sheet, whose devices its schedule may name; it is not worked out, and its coils have no current
 * @throws Error with the first finding of a sheet that cannot be simulated
 */
export function operatingPoint(
  sheet: Sheet,
  scheduleId: string | undefined,
  at: number,
  control?: ControlDefinition,
): OperatingPoint {
  const { compiled, findings } = compile(sheet, scheduleId, { control })
  if (!compiled) throw new Error(findings.find((f) => f.severity === 'error')!.message)
  const network = new Network(compiled)
  const { settings } = compiled
  const rest = findSteadyState(network, settings.tolerance, at)
  const recorder = new Recorder(network, settings.every)
  network.freezeInputs(at)
  network.observe(at, network.initial)
  const values = new Map(
    recorder.signals.map((signal, i) => [signal.id, { signal, value: recorder.value(i) }]),
  )
  return { atRest: rest.converged, time: rest.time, values }
}
