/** Whether a run of any circuit is one that can be believed: what tests with random circuits hold every run to. */
import { ATMOSPHERE } from '../units/quantities'
import type { Sheet } from '../sheet/schema'
import { compile } from './compile'
import { operatingPoint } from './operating-point'
import { continueRun } from './run'
import { BALANCE_WARNING } from './result'
import { Simulation } from './simulation'

export interface Verdict {
  /** 'refused': its findings say why; 'stopped': it ended early with a message; else sound, or what is wrong. */
  readonly outcome: 'sound' | 'refused' | 'stopped' | 'wrong'
  readonly what?: string
  readonly steps: number
  /** s */
  readonly wall: number
}

/** A step may end this far below zero absolute pressure, Pa; within a step the interpolation may dip as far again. */
const BELOW_ZERO = 100

/** @param until s @param longest wall time, s, after which a run counts as hanging */
export function verdictOn(
  sheet: Sheet,
  scheduleId: string | undefined,
  until: number,
  longest = 60,
): Verdict {
  const started = performance.now()
  const wall = () => (performance.now() - started) / 1000
  const wrong = (what: string, steps = 0): Verdict => ({ outcome: 'wrong', what, steps, wall: wall() })
  let steps = 0
  try {
    const { compiled } = compile(sheet, scheduleId)
    if (!compiled) return { outcome: 'refused', steps, wall: wall() }
    const simulation = new Simulation(compiled)
    const r = continueRun(simulation, Math.min(until, compiled.settings.duration), () =>
      wall() < longest ? undefined : false,
    )
    steps = r.statistics.steps
    if (r.stopped && wall() >= longest)
      return wrong(`hangs: ${r.duration.toPrecision(4)} s after ${steps} steps`, steps)
    for (const [i, s] of r.signals.entries()) {
      const { min, max, end } = r.extremes[i]
      if (!Number.isFinite(min) || !Number.isFinite(max) || !Number.isFinite(end))
        return wrong(`${s.id} is no number`, steps)
      if (s.role === 'pressure' && min < -ATMOSPHERE - BELOW_ZERO)
        return wrong(`${s.id} falls to ${(min / 1e5).toFixed(5)} bar`, steps)
    }
    for (const balance of ['energy', 'oil'] as const) {
      const { error } = r[balance]
      if (error < BALANCE_WARNING) continue
      const explained = r.warnings.some(
        (w) => w.includes(`${balance} balance`) && !w.includes('more accurate'),
      )
      // where it asks for a more accurate step, that must help
      if (!explained && !closesMoreAccurately(sheet, scheduleId, r.duration, balance))
        return wrong(`${balance} off by ${error.toPrecision(3)}`, steps)
    }
    return r.stopped
      ? { outcome: 'stopped', what: r.stopped.message, steps, wall: wall() }
      : { outcome: 'sound', steps, wall: wall() }
  } catch (error) {
    return wrong(`throws: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ') ?? error}`, steps)
  }
}

const CLOSER = 1e-6
function closesMoreAccurately(
  sheet: Sheet,
  scheduleId: string | undefined,
  until: number,
  balance: 'energy' | 'oil',
): boolean {
  const schedules = sheet.schedules.map((s) => ({ ...s, tolerance: Math.min(s.tolerance, CLOSER) }))
  const { compiled } = compile({ ...sheet, schedules }, scheduleId)
  return continueRun(new Simulation(compiled!), until)[balance].error < BALANCE_WARNING
}

/** Whether the rest that is found for an instant is one: nothing below zero, and where it is called rest it stays. @param at s */
export function verdictOnRest(sheet: Sheet, scheduleId: string | undefined, at: number): Verdict {
  const started = performance.now()
  const wall = () => (performance.now() - started) / 1000
  const wrong = (what: string): Verdict => ({ outcome: 'wrong', what, steps: 0, wall: wall() })
  try {
    if (!compile(sheet, scheduleId).compiled) return { outcome: 'refused', steps: 0, wall: wall() }
    const point = operatingPoint(sheet, scheduleId, at)
    for (const [id, { signal, value }] of point.values) {
      if (!Number.isFinite(value)) return wrong(`at rest, ${id} is no number`)
      if (signal.role === 'pressure' && value < -ATMOSPHERE - BELOW_ZERO)
        return wrong(`at rest, ${id} is ${(value / 1e5).toFixed(5)} bar`)
    }
    return { outcome: point.atRest ? 'sound' : 'stopped', steps: 0, wall: wall() }
  } catch (error) {
    return wrong(`at rest, throws: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ') ?? error}`)
  }
}
