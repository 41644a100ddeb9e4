/** The run on the sheet, the time that is shown, and the runs that are kept. */
import { proxy } from 'comlink'
import { acceptHMRUpdate, defineStore } from 'pinia'
import { uint8ArrayToBase64 } from 'uint8array-extras'
import { computed, ref, shallowRef } from 'vue'
import { decodeRun, encodeRun } from '@oar-bench/core/formats/run-file'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { simulatedPart } from '@oar-bench/core/simulate/simulated-part'
import type { RunResult } from '@oar-bench/core/simulate/result'
import type { MachineDetail, RunRow } from '#shared/api'
import { gzip } from '../utils/gzip'
import { failureMessage } from '../utils/messages'
import { renameRequest } from '../utils/renameRequest'
import { roundUp } from '../utils/ramp'
import { workerClient, type WorkerClient } from '../utils/workerClient'
import type { Solver } from '../workers/simulate.worker'
import { useSheetDocument } from './sheetDocument'

export interface ShownRun {
  readonly result: RunResult
  /** The exact sheet it came from. */
  readonly sheet: Sheet
  readonly name: string
  /** Set where it is kept. */
  readonly id?: string
}

/** End of the pressure scale where nothing has been run, and the least that it has, Pa. */
const DEFAULT_PRESSURE_RANGE = 100e5
const SMALLEST_PRESSURE_RANGE = 10e5

export const useSimulationRuns = defineStore('simulationRuns', () => {
  const sheetDocument = useSheetDocument()
  const shown = shallowRef<ShownRun>()
  /** A saved run drawn over the shown one. */
  const overlay = shallowRef<ShownRun>()
  /** The run that was shown before this one, of this sheet or another state of it. */
  const previous = shallowRef<ShownRun>()
  const time = ref(0)
  const solving = ref(false)
  const progress = ref(0)
  const problem = ref('')
  const savedRuns = ref<RunRow[]>([])
  const savingRun = ref(false)
  /** One worker with one proxy: releasing the proxy would close its channel. */
  let solver: WorkerClient<Solver> | undefined
  let ask = 0

  /** True where what the shown run depends on has changed since. */
  const outdated = computed(() => {
    if (!shown.value) return false
    const { schedule } = shown.value.result
    return simulatedPart(shown.value.sheet, schedule) !== simulatedPart(sheetDocument.sheet, schedule)
  })

  /** End of the pressure scale, Pa: a round number above the highest pressure of the shown run. */
  const pressureRange = computed(() => {
    const result = shown.value?.result
    if (!result) return DEFAULT_PRESSURE_RANGE
    const highest = result.signals.map((s, i) => (s.role === 'pressure' ? result.extremes[i].max : 0))
    return roundUp(Math.max(SMALLEST_PRESSURE_RANGE, ...highest))
  })

  function open(detail: MachineDetail) {
    abandon()
    shown.value = overlay.value = previous.value = undefined
    time.value = 0
    problem.value = ''
    savedRuns.value = detail.runs
  }

  async function start(): Promise<void> {
    abandon()
    const own = ++ask
    const sheet = sheetDocument.sheet
    problem.value = ''
    solving.value = true
    progress.value = 0
    solver ??= workerClient<Solver>(
      new Worker(new URL('../workers/simulate.worker.ts', import.meta.url), { type: 'module' }),
      'The solver could not be started.',
    )
    const current = solver
    try {
      const solved = current.remote.solve(
        sheet,
        sheetDocument.scheduleId,
        proxy((share: number) => {
          if (own === ask) progress.value = share
        }),
      )
      const { result } = await Promise.race([solved, current.failed])
      if (own !== ask) return
      if (!result) {
        problem.value = 'The sheet cannot be run yet: see the findings.'
        return
      }
      if (shown.value) previous.value = { ...shown.value, name: previousName(shown.value) }
      shown.value = { result, sheet, name: 'This run' }
      time.value = Math.min(time.value, result.duration)
      if (result.stopped) problem.value = result.stopped.message
    } catch (error) {
      if (own === ask) problem.value = `The run failed: ${(error as Error).message}`
      current.worker.terminate()
      if (solver === current) solver = undefined
    } finally {
      if (own === ask) solving.value = false
    }
  }
  const previousName = ({ id, name }: ShownRun) => (id ? name : 'the run before')
  /** Shows what was found elsewhere: a counter-example. */
  function showResult(result: RunResult, sheet: Sheet, name: string): void {
    abandon()
    shown.value = { result, sheet, name }
    time.value = 0
  }
  /** Ends a run that is being solved; what it has found so far is shown. */
  function stop() {
    if (solving.value) void solver?.remote.end()
  }
  /** Gives up a run that is being solved. */
  function abandon() {
    if (!solving.value) return
    ask++
    solver?.worker.terminate()
    solver = undefined
    solving.value = false
  }

  async function saveRun(name: string): Promise<void> {
    const run = shown.value
    if (!run) return
    savingRun.value = true
    try {
      const data = uint8ArrayToBase64(await gzip(encodeRun(run.result)))
      const body = { name, sheet: run.sheet, data }
      const row = await $fetch<RunRow>(`/api/sheets/${sheetDocument.sheetId}/runs`, { method: 'POST', body })
      savedRuns.value = [row, ...savedRuns.value]
      if (shown.value === run) shown.value = { ...run, name, id: row.id }
    } catch (error) {
      problem.value = `The run was not kept: ${failureMessage(error)}`
    } finally {
      savingRun.value = false
    }
  }
  async function fetchRun(row: RunRow): Promise<ShownRun | undefined> {
    try {
      const [bytes, sheet] = await Promise.all([
        $fetch<ArrayBuffer>(`/api/runs/${row.id}`, { responseType: 'arrayBuffer' }),
        $fetch<Sheet>(`/api/runs/${row.id}/sheet`),
      ])
      return { result: decodeRun(new Uint8Array(bytes)), sheet, name: row.name, id: row.id }
    } catch (error) {
      problem.value = `The kept run could not be opened: ${failureMessage(error)}`
      return undefined
    }
  }
  async function openRun(row: RunRow) {
    const run = await fetchRun(row)
    if (!run) return
    shown.value = run
    if (overlay.value?.id === run.id) overlay.value = undefined
    time.value = Math.min(time.value, run.result.duration)
    problem.value = run.result.stopped?.message ?? ''
  }
  async function setOverlay(row: RunRow | undefined) {
    overlay.value = row && (await fetchRun(row))
  }
  async function rename(row: RunRow, name: string) {
    try {
      await renameRequest(`/api/runs/${row.id}`, { name })
      savedRuns.value = savedRuns.value.map((r) => (r.id === row.id ? { ...r, name } : r))
    } catch (error) {
      problem.value = failureMessage(error)
    }
  }
  async function deleteRun(row: RunRow) {
    try {
      await $fetch(`/api/runs/${row.id}`, { method: 'DELETE' })
      savedRuns.value = savedRuns.value.filter((r) => r.id !== row.id)
      if (overlay.value?.id === row.id) overlay.value = undefined
      if (shown.value?.id === row.id) shown.value = { ...shown.value, id: undefined, name: 'This run' }
    } catch (error) {
      problem.value = failureMessage(error)
    }
  }

  return {
    shown,
    overlay,
    previous,
    time,
    solving,
    progress,
    problem,
    savedRuns,
    savingRun,
    outdated,
    pressureRange,
    open,
    start,
    showResult,
    stop,
    saveRun,
    openRun,
    fetchRun,
    setOverlay,
    rename,
    deleteRun,
  }
})

if (import.meta.hot) import.meta.hot.accept(acceptHMRUpdate(useSimulationRuns, import.meta.hot))
