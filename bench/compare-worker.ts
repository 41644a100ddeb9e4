/** One revision of the solver, which runs circuits in turns with another: a turn lasts until the run says how far it is. */
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { parentPort, workerData } from 'node:worker_threads'
import type * as ControlRun from '../core/control/run'
import type * as Read from '../core/sheet/read'
import type * as Run from '../core/simulate/run'

/** What a worker is made with: the root of its revision, its number, and in memory that both share whose turn it is and whether one has finished. */
export interface CompareWorker {
  readonly root: string
  readonly number: 0 | 1
  readonly turn: Int32Array
}
/** One run of a schedule. */
export interface CompareTask {
  readonly sheet: string
  readonly schedule: string
  readonly lossFree: boolean
}
/** Wall time of the turns that the run had, ms. */
export interface CompareCost {
  readonly ms: number
  readonly steps: number
}

const { root, number, turn } = workerData as CompareWorker
const other = 1 - number
const load = async <T>(path: string) => (await import(join(root, path))) as T
const { readSheetText } = await load<typeof Read>('core/sheet/read.ts')
const { run } = await load<typeof Run>('core/simulate/run.ts')
// before there was a control, a sheet was compiled by itself
const compileMachine = existsSync(join(root, 'core/control/run.ts'))
  ? (await load<typeof ControlRun>('core/control/run.ts')).compileMachine
  : (await load<{ compile: typeof ControlRun.compileMachine }>('core/simulate/compile.ts')).compile

/** Places in the shared memory. */
const [TURN, ALONE] = [0, 1]
const takeTurn = () => {
  while (Atomics.load(turn, TURN) === other) Atomics.wait(turn, TURN, other)
}
const giveTurn = () => {
  Atomics.store(turn, TURN, other)
  Atomics.notify(turn, TURN)
}

parentPort!.on('message', ({ sheet: text, schedule, lossFree }: CompareTask) => {
  takeTurn()
  const read = readSheetText(text)
  if (!read.ok) throw new Error(read.problems[0].message)
  const sheet = {
    ...read.sheet,
    pipes: read.sheet.pipes.map((pipe) =>
      lossFree && pipe.lineModel === 'automatic' ? { ...pipe, lineModel: 'lossFree' as const } : pipe,
    ),
  }
  let ms = 0
  let since = performance.now()
  const handOver = () => {
    if (Atomics.load(turn, ALONE) === 1) return
    ms += performance.now() - since
    giveTurn()
    takeTurn()
    since = performance.now()
  }
  const { compiled } = compileMachine(sheet, schedule)
  const { statistics } = run(compiled!, { progress: handOver })
  ms += performance.now() - since
  Atomics.store(turn, ALONE, 1)
  giveTurn()
  parentPort!.postMessage({ ms, steps: statistics.steps } satisfies CompareCost)
})
parentPort!.postMessage('ready')
