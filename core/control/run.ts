/** A sheet with its control: compiled, checked, run and worked by hand. */
import type { Show } from '../catalogue/kind'
import type { Finding } from '../sheet/finding'
import type { Sheet } from '../sheet/schema'
import { check, compile } from '../simulate/compile'
import { compileLive, replay } from '../simulate/live-run'
import { operatingPoint } from '../simulate/operating-point'
import type { RunResult } from '../simulate/result'
import { run } from '../simulate/run'
import { memoized } from '../sheet/memoized'
import { controlOf } from './machine'

const control = memoized((sheet: Sheet) => controlOf(sheet))

export const compileMachine = (
  sheet: Sheet,
  scheduleId?: string,
  options: { readonly burstable?: boolean } = {},
) => compile(sheet, scheduleId, { ...options, control: control(sheet) })

/** @throws Error with the first error of a sheet that cannot be simulated */
export function runMachine(sheet: Sheet, scheduleId?: string): RunResult {
  const { compiled, findings } = compileMachine(sheet, scheduleId)
  if (!compiled) throw new Error(findings.find((f) => f.severity === 'error')!.message)
  return run(compiled)
}

export const checkMachine = (sheet: Sheet, scheduleId?: string, show?: Show): Finding[] =>
  check(sheet, scheduleId, show, control(sheet))

export const compileMachineLive = (sheet: Sheet, scheduleId: string | undefined, held: boolean) =>
  compileLive(sheet, scheduleId, held, control(sheet))

export const operatingPointOfMachine = (sheet: Sheet, scheduleId: string | undefined, at: number) =>
  operatingPoint(sheet, scheduleId, at, control(sheet))

export const replayMachine = (sheet: Sheet, recorded: RunResult): RunResult =>
  replay(sheet, recorded, control(sheet))

/** Devices of the control that actions and schedules may name. */
export const devicesOf = (sheet: Sheet) => control(sheet)?.devices ?? []
