/** Tries settings, sizes and loads one by one on the state of a run, outside the main thread. */
import './zodConfig'
import { expose } from 'comlink'
import type { Figure } from '@oar-bench/core/explain/figures'
import { Trials, type Knobs } from '@oar-bench/core/explain/knobs'
import { Moments, type RunSource } from '@oar-bench/core/explain/moment'
import type { Sheet } from '@oar-bench/core/sheet/schema'

/** A state of a run: values of its signals at an instant, s. */
export interface RunState {
  readonly sheet: Sheet
  readonly run: RunSource
  readonly values: Float64Array
  readonly time: number
}

function trialsOf({ sheet, run, values, time }: RunState, figure: Figure): Trials {
  const moments = new Moments(sheet, run)
  moments.show((signal) => values[signal], time)
  return new Trials(moments, figure)
}

const knobTester = {
  /** @param progress called with the share that is done */
  knobs: (state: RunState, figure: Figure, progress: (share: number) => void): Knobs =>
    trialsOf(state, figure).knobs((share) => void progress(share)),
  /** @returns the value of a parameter that gives the figure a wanted value, SI; nothing where none does */
  valueFor: (state: RunState, figure: Figure, part: string, parameter: string, wanted: number) =>
    trialsOf(state, figure).valueFor(part, parameter, wanted),
}
export type KnobTester = typeof knobTester
expose(knobTester)
