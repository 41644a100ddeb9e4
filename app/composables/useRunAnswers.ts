/** Answers about the run that is shown, worked out in a worker and kept as long as the run is. */
import { createSharedComposable } from '@vueuse/core'
import { proxy, type Remote } from 'comlink'
import { onScopeDispose, toRaw, watch } from 'vue'
import type { EnergyAccount } from '@oar-bench/core/explain/energy'
import type { StrokeSteps } from '@oar-bench/core/explain/stroke-steps'
import type { StateTable } from '@oar-bench/core/explain/state-table'
import type { WalkthroughState } from '@oar-bench/core/explain/walkthrough'
import { useLiveRun } from '../stores/liveRun'
import { useSheetDocument } from '../stores/sheetDocument'
import { useSimulationRuns, type ShownRun } from '../stores/simulationRuns'
import { workerClient, type WorkerClient } from '../utils/workerClient'
import type { RunAnswers, RunOfSheet } from '../workers/answers.worker'
import { useLatest } from './useLatest'
import { useUnits } from './useUnits'

/** What has been found, by run and question. */
const found = new WeakMap<object, Map<string, Promise<unknown>>>()

const useAnswerWorker = createSharedComposable(() => {
  let client: WorkerClient<RunAnswers> | undefined
  const stop = () => {
    client?.worker.terminate()
    client = undefined
  }
  onScopeDispose(stop)
  return {
    stop,
    /** @throws Error where the worker fails or the question cannot be answered */
    async ask<T>(question: (remote: Remote<RunAnswers>) => Promise<T>): Promise<T> {
      client ??= workerClient<RunAnswers>(
        new Worker(new URL('../workers/answers.worker.ts', import.meta.url), { type: 'module' }),
        'This could not be worked out.',
      )
      const current = client
      return Promise.race([question(current.remote), current.failed])
    },
  }
})

export const ofRun = ({ sheet, result }: ShownRun): RunOfSheet => ({ sheet: toRaw(sheet), result })

/** Questions about runs; what was asked of a run before is not worked out again. */
export function useRunQuestions() {
  const { ask } = useAnswerWorker()
  const sheetDocument = useSheetDocument()
  const runs = useSimulationRuns()
  const { system } = useUnits()

  function once<T>(of: object, question: string, work: () => Promise<T>): Promise<T> {
    const known = found.get(of) ?? new Map<string, Promise<unknown>>()
    found.set(of, known)
    let answer = known.get(question) as Promise<T> | undefined
    if (!answer) {
      answer = work()
      known.set(question, answer)
      // a question that failed may be asked again
      answer.catch(() => known.delete(question))
    }
    return answer
  }
  return {
    ask,
    walkthrough: (run: ShownRun): Promise<WalkthroughState[]> =>
      once(run.result, `walkthrough ${system.value}`, () =>
        ask((r) => r.walkthrough(ofRun(run), system.value)),
      ),
    energy: (run: ShownRun, from: number, to: number): Promise<EnergyAccount> =>
      once(run.result, `energy ${from} ${to}`, () => ask((r) => r.energy(ofRun(run), from, to))),
    strokes: (run: ShownRun): Promise<StrokeSteps> => {
      const brief = toRaw(sheetDocument.brief)
      return ask((r) => r.strokes(ofRun(run), brief, system.value))
    },
    /** @param progress called with the share that is solved */
    states(progress: (share: number) => void = () => {}): Promise<StateTable> {
      const sheet = toRaw(sheetDocument.sheet)
      const shown = runs.outdated ? undefined : runs.shown
      const known = shown && !shown.result.live ? { [shown.result.schedule]: shown.result } : {}
      return once(sheet, `states ${system.value}`, () =>
        ask((r) => r.states(sheet, known, system.value, proxy(progress))),
      )
    },
  }
}

/**
 * The answer to a question about the run that is shown, asked again when the run, the units or `inputs` change; not while a live run goes on.
 */
export function useRunAnswer<T>(question: (run: ShownRun) => Promise<T>, inputs: () => unknown = () => 0) {
  const runs = useSimulationRuns()
  const live = useLiveRun()
  const { system } = useUnits()
  const { answer, busy, problem, ask, cancel } = useLatest<T>()
  async function update(): Promise<void> {
    const run = runs.shown
    if (run && !live.playing) await ask(() => question(run))
    else cancel()
  }
  watch([() => runs.shown, () => live.playing, system, inputs], update, { immediate: true })
  return { answer, busy, problem, update }
}
