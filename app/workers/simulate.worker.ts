/** Compiles and solves a sheet away from the interface. */
import { expose, transfer } from 'comlink'
import type { Finding } from '@oar-bench/core/sheet/finding'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { compile } from '@oar-bench/core/simulate/compile'
import type { RunResult } from '@oar-bench/core/simulate/result'
import { run } from '@oar-bench/core/simulate/run'

const solver = {
  async solve(
    sheet: Sheet,
    scheduleId: string | undefined,
    progress: (share: number) => void,
  ): Promise<{ findings: Finding[]; result?: RunResult }> {
    const { compiled, findings } = compile(sheet, scheduleId)
    if (!compiled) return { findings }
    const result = run(compiled, { progress: (t, duration) => void progress(t / duration) })
    const buffers = [result.times.buffer, ...result.columns.map((c) => c.buffer)]
    return transfer({ findings, result }, buffers as ArrayBuffer[])
  },
}
export type Solver = typeof solver
expose(solver)
