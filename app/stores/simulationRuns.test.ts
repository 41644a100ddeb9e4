import { gunzipSync } from 'node:zlib'
import { createPinia, setActivePinia } from 'pinia'
import { base64ToUint8Array } from 'uint8array-extras'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { circuit, idOf, powerUnit, powerUnitPipes, timed } from '@oar-bench/core/testing'
import { encodeRun } from '@oar-bench/core/formats/run-file'
import { setParameter } from '@oar-bench/core/sheet/edit'
import type { Sheet } from '@oar-bench/core/sheet/schema'
import { compile } from '@oar-bench/core/simulate/compile'
import { run } from '@oar-bench/core/simulate/run'
import type { RunRow } from '#shared/api'
import { fakeServer, fetchError } from '../testing/fakeServer'
import { useSheetDocument } from './sheetDocument'
import { useSimulationRuns } from './simulationRuns'

/** The solver without a worker: solves at once, or waits until it is told to. */
const solver = {
  wait: undefined as Promise<void> | undefined,
  fail: undefined as Error | undefined,
  ended: 0,
  terminated: 0,
}
vi.mock('../utils/workerClient', () => ({
  workerClient: () => ({
    worker: { terminate: () => solver.terminated++ },
    failed: new Promise(() => undefined),
    remote: {
      async solve(sheet: Sheet, scheduleId: string | undefined) {
        await solver.wait
        if (solver.fail) throw solver.fail
        const { compiled } = compile(sheet, scheduleId)
        return { result: compiled && run(compiled) }
      },
      end: () => solver.ended++,
    },
  }),
}))

const sheet = timed(circuit(powerUnit, powerUnitPipes), 0.2, [])
const relief = idOf(sheet, 'relief-valve-direct')
/** Requests and what is answered to them. */
let answer: (url: string, options: { method?: string; body?: Record<string, unknown> }) => unknown
beforeEach(() => {
  vi.stubGlobal('Worker', class {})
  Object.assign(solver, { wait: undefined, fail: undefined, ended: 0, terminated: 0 })
  setActivePinia(createPinia())
  const server = fakeServer()
  server.sheet.content = sheet
  useSheetDocument().open(server.detail())
  useSimulationRuns().open(server.detail())
  answer = () => undefined
  vi.stubGlobal('$fetch', async (url: string, options = {}) => answer(url, options))
})
afterEach(() => vi.unstubAllGlobals())
const change = () =>
  useSheetDocument().apply(setParameter(useSheetDocument().sheet, relief, 'setting', '90 bar'))

describe('a run', () => {
  it('is shown with the sheet it came from, and is out of date when that changes', async () => {
    const runs = useSimulationRuns()
    await runs.start()
    expect(runs.shown!.result.finished).toBe(true)
    expect(runs.outdated).toBe(false)
    change()
    expect(runs.outdated).toBe(true)
    useSheetDocument().undo()
    expect(runs.outdated).toBe(false)
  })
  it('has a round pressure range above its highest pressure', async () => {
    const runs = useSimulationRuns()
    expect(runs.pressureRange).toBe(100e5)
    await runs.start()
    const highest = Math.max(
      ...runs.shown!.result.extremes.flatMap((e, i) =>
        runs.shown!.result.signals[i].role === 'pressure' ? [e.max] : [],
      ),
    )
    expect(runs.pressureRange).toBeGreaterThanOrEqual(highest)
    expect([200e5, 250e5]).toContain(runs.pressureRange)
  })
  it('of a sheet that cannot be run says so', async () => {
    useSheetDocument().apply({ ...sheet, pipes: [] })
    const runs = useSimulationRuns()
    await runs.start()
    expect(runs.shown).toBeUndefined()
    expect(runs.problem).toContain('cannot be run yet')
  })
  it('that fails says why, and the next one has a new worker', async () => {
    const runs = useSimulationRuns()
    solver.fail = new Error('no memory')
    await runs.start()
    expect([runs.problem, runs.solving, solver.terminated]).toEqual(['The run failed: no memory', false, 1])
    solver.fail = undefined
    await runs.start()
    expect([runs.problem, runs.shown!.name]).toEqual(['', 'This run'])
  })
  it('is stopped by asking, and given up for a newer one', async () => {
    const runs = useSimulationRuns()
    let go = () => undefined as void
    solver.wait = new Promise((resolve) => (go = resolve))
    const first = runs.start()
    expect(runs.solving).toBe(true)
    runs.stop()
    expect([solver.ended, solver.terminated]).toEqual([1, 0])
    change()
    const second = runs.start()
    expect(solver.terminated).toBe(1)
    go()
    await Promise.all([first, second])
    expect(runs.shown!.sheet).toBe(useSheetDocument().sheet)
    expect(runs.solving).toBe(false)
  })
})

describe('saved runs', () => {
  const row: RunRow = {
    id: 'r',
    name: 'Kept',
    schedule: 'Schedule',
    duration: 0.2,
    finished: true,
    conditions: 0,
    createdAt: 1,
    versionHash: 'h',
  }
  it('go to the server compressed, with their sheet', async () => {
    const runs = useSimulationRuns()
    await runs.start()
    let sent: Record<string, unknown> = {}
    answer = (_url, { body }) => {
      sent = body!
      return row
    }
    await runs.saveRun('Kept')
    const bytes = new Uint8Array(gunzipSync(base64ToUint8Array(sent.data as string)))
    expect(bytes).toEqual(encodeRun(runs.shown!.result))
    expect(sent).toMatchObject({ name: 'Kept', sheet })
    expect(runs.savedRuns).toEqual([row])
    expect(runs.shown).toMatchObject({ name: 'Kept', id: 'r' })
  })
  it('that the server refuses are told, and stay what they were', async () => {
    const runs = useSimulationRuns()
    await runs.start()
    answer = () => {
      throw fetchError(507, 'The disk is full.')
    }
    await runs.saveRun('Kept')
    expect(runs.problem).toBe('The run was not kept: The disk is full.')
    expect([runs.savedRuns, runs.shown!.id, runs.savingRun]).toEqual([[], undefined, false])
  })
  it('are opened, overlaid, renamed and deleted', async () => {
    const runs = useSimulationRuns()
    await runs.start()
    const bytes = encodeRun(runs.shown!.result)
    answer = (url) => (url.endsWith('/sheet') ? sheet : bytes.slice().buffer)
    runs.savedRuns = [row]
    await runs.setOverlay(row)
    expect(runs.overlay).toMatchObject({ id: 'r', name: 'Kept' })
    await runs.openRun(row)
    // the same run is not drawn twice
    expect([runs.shown!.id, runs.overlay]).toEqual(['r', undefined])
    await runs.rename(row, 'Other')
    expect(runs.savedRuns[0].name).toBe('Other')
    await runs.deleteRun(row)
    expect([runs.savedRuns, runs.shown!.id]).toEqual([[], undefined])
    answer = () => {
      throw fetchError(404, 'There is no such run.')
    }
    await runs.openRun(row)
    expect(runs.problem).toBe('The kept run could not be opened: There is no such run.')
  })
})
