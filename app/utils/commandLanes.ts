/** What was commanded during a run, as blocks over time or, where it was a ramp, as a line. */
import { findKind } from '@oar-bench/core/catalogue'
import { commandableOf, type Show } from '@oar-bench/core/catalogue/kind'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { valueAt, type RunResult } from '@oar-bench/core/simulate/result'
import { shownUnit } from '@oar-bench/core/units/quantities'
import { thinned } from './traces'

export interface CommandBlock {
  readonly from: number
  readonly to: number
  readonly value: number
  readonly text: string
  /** The rest position of a valve. */
  readonly idle: boolean
}
export interface CommandLane {
  readonly id: string
  readonly label: string
  readonly blocks: readonly CommandBlock[]
  /** Points of a polyline over time, 16 units high; empty where there are blocks. */
  readonly profile: string
  /** Least and greatest value. */
  readonly range: string
}

/** More changes than this, or so many one after another from sample to sample, are a ramp. */
const MOST_BLOCKS = 60
const RAMP_SAMPLES = 3
const PROFILE_POINTS = 240

/** Intervals in which a column of samples keeps its value. */
export function intervals(times: ArrayLike<number>, column: ArrayLike<number>) {
  const list: { from: number; to: number; value: number }[] = []
  for (let k = 0; k < column.length; k++) {
    const last = list.at(-1)
    if (last) last.to = times[k]
    if (!last || last.value !== column[k]) list.push({ from: times[k], to: times[k], value: column[k] })
  }
  return list
}

/** Whether a value changes with each of several samples in a row. */
function changesEverySample(parts: ReturnType<typeof intervals>, times: ArrayLike<number>): boolean {
  const longest = 1.5 * (times[1] - times[0])
  let inRow = 0
  return parts.some(({ from, to }) => (inRow = to - from <= longest ? inRow + 1 : 0) >= RAMP_SAMPLES)
}

/** A lane for each input that changes during the run. @param sheet that it came from */
export function commandLanes(result: RunResult, sheet: Sheet, show: Show): CommandLane[] {
  return result.signals.flatMap((signal, index) => {
    const { min, max } = result.extremes[index]
    if (signal.role !== 'input' || max === min) return []
    const component = sheet.components.find((c) => c.id === signal.component)
    const spec =
      component &&
      commandableOf(findKind(component.kind) ?? {}).find((i) => `${component.id}.${i.name}` === signal.id)
    const parts = intervals(result.times, result.columns[index])
    const isRamp = parts.length > MOST_BLOCKS || changesEverySample(parts, result.times)
    const height = (value: number) => 15 - (14 * (value - min)) / (max - min)
    const profile = isRamp
      ? thinned(result, index, shownUnit(signal.quantity, 'metric'), PROFILE_POINTS)
          .map(([t]) => `${t},${height(valueAt(result, index, t))}`)
          .join(' ')
      : ''
    const text = (value: number) =>
      spec?.positions?.find((p) => Math.abs(p.value - value) < 1e-6)?.label ?? show(value, signal.quantity, 3)
    return [
      {
        id: signal.id,
        label: `${component?.designation ?? signal.component ?? ''} ${signal.label}`,
        profile,
        range: `${show(min, signal.quantity, 3)} to ${show(max, signal.quantity, 3)}`,
        blocks: (isRamp ? [] : parts).map((part) => ({
          ...part,
          idle: !!spec?.positions && part.value === 0,
          text: text(part.value),
        })),
      },
    ]
  })
}
