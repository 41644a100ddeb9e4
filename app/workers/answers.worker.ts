/** Answers about whole runs, outside the main thread: walkthrough, states, energy, strokes, comparison. */
import './zodConfig'
import { expose } from 'comlink'
import { compareRuns, type ComparisonRow } from '@oar-bench/core/explain/compare-runs'
import { energyOf, steadyTemperature, type EnergyAccount } from '@oar-bench/core/explain/energy'
import { Moments } from '@oar-bench/core/explain/moment'
import { stateTable, type StateTable } from '@oar-bench/core/explain/state-table'
import { strokeSteps } from '@oar-bench/core/explain/stroke-steps'
import { walkthroughOf } from '@oar-bench/core/explain/walkthrough'
import { runMachine } from '@oar-bench/core/control/run'
import type { Brief } from '@oar-bench/core/size/brief/brief'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import type { RunResult } from '@oar-bench/core/simulate/result'
import type { UnitSystem } from '@oar-bench/core/units/quantities'
import { showIn } from '@oar-bench/core/units/text'

/** A run with the sheet that it is of. */
export interface RunOfSheet {
  readonly sheet: Sheet
  readonly result: RunResult
}
const withMoments = ({ sheet, result }: RunOfSheet) => ({
  sheet,
  result,
  moments: new Moments(sheet, result),
})

const runAnswers = {
  walkthrough(of: RunOfSheet, units: UnitSystem) {
    const { moments, result } = withMoments(of)
    return walkthroughOf(moments, result, showIn(units))
  },
  strokes: ({ sheet, result }: RunOfSheet, brief: Brief, units: UnitSystem) =>
    strokeSteps(sheet, result, brief, showIn(units)),
  /** @param from s @param to s */
  energy(of: RunOfSheet, from: number, to: number): EnergyAccount {
    const { moments, result } = withMoments(of)
    return energyOf(moments, result, from, to)
  },
  steady: (sheet: Sheet, schedule: string) => steadyTemperature(sheet, schedule),
  /** @param known runs that need not be solved again, by schedule @param progress called with the share that is solved */
  states(
    sheet: Sheet,
    known: Readonly<Record<string, RunResult>>,
    units: UnitSystem,
    progress: (share: number) => void,
  ): StateTable {
    let done = 0
    const runOf = (schedule: string) => {
      const result = known[schedule] ?? runMachine(sheet, schedule)
      progress(++done / (sheet.schedules.length + 1))
      return result
    }
    return stateTable(sheet, runOf, showIn(units), sheet.states)
  },
  /** @param second the other run, or a sheet whose schedule of the same name, else its first, is solved for it */
  compare(
    first: RunOfSheet,
    second: RunOfSheet | { readonly sheet: Sheet },
    units: UnitSystem,
  ): ComparisonRow[] {
    const { schedule } = first.result
    const other =
      'result' in second
        ? second
        : {
            sheet: second.sheet,
            result: runMachine(
              second.sheet,
              second.sheet.schedules.some((s) => s.id === schedule) ? schedule : undefined,
            ),
          }
    return compareRuns(withMoments(first), withMoments(other), showIn(units))
  },
}
export type RunAnswers = typeof runAnswers
expose(runAnswers)
