/** Compiles and solves a sheet away from the interface. */
import './zodConfig'
import { expose, transfer } from 'comlink'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { compileMachine } from '@oar-bench/core/control/run'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { runInSlices, simulationOf } from '@oar-bench/core/simulate/run'

/** Wall time after which a message may come in, s. */
const TURN = 0.05
let ending = false

const solver = {
  async solve(
    sheet: Sheet,
    scheduleId: string | undefined,
    progress: (share: number) => void,
  ): Promise<{ result?: RunResult }> {
    ending = false
    const { compiled } = compileMachine(sheet, scheduleId)
    if (!compiled) return {}
    const { duration } = compiled.settings
    const result = await runInSlices(simulationOf(compiled), duration, TURN, (t) => {
      void progress(t / duration)
      return ending
    })
    const buffers = [result.times.buffer, ...result.columns.map((c) => c.buffer)]
    return transfer({ result }, buffers as ArrayBuffer[])
  },
  /** Ends the run that is being solved: it comes back with what it has found so far. */
  end(): void {
    ending = true
  },
}
export type Solver = typeof solver
expose(solver)
