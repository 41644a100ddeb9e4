/** The thread as it is built: what it is asked for, what it answers, and what of a failure comes through. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Worker } from 'node:worker_threads'
import { build } from 'esbuild'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { emptySheet } from '../../core/sheet/schema'
import { demoMachines } from '../../demo/machines'
import { insertMachine, listMachines } from '../database/machines'
import { openDatabase, type Store } from '../database/open'
import { unsummarised } from '../database/summaries'
import { migrations } from '../testing/migrations'
import type { TaskDone, TaskName } from './tasks'

const folder = mkdtempSync(join(tmpdir(), 'oar-bench-thread-'))
const file = fileURLToPath(new URL(`../../node_modules/.thread-${process.pid}.mjs`, import.meta.url))
let store: Store
let worker: Worker
let count = 0
beforeAll(async () => {
  await build({
    entryPoints: [fileURLToPath(new URL('thread.ts', import.meta.url))],
    outfile: file,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
  })
  store = openDatabase(folder, migrations).db
  const [press] = demoMachines()
  for (let i = 0; i < 5; i++)
    insertMachine(store, {
      name: `Machine ${i}`,
      summary: '',
      brief: press.brief,
      variants: [
        {
          name: 'One',
          sheet: { ...emptySheet(`Sheet ${i}`), components: press.variants[0].sheet.components },
        },
      ],
    })
  worker = new Worker(file, { workerData: { folder } })
})
afterAll(async () => {
  await worker.terminate()
  rmSync(folder, { recursive: true })
  rmSync(file, { force: true })
})
const ask = (task: TaskName, argument = '') =>
  new Promise<TaskDone>((resolve, reject) => {
    const id = ++count
    const answer = (message: TaskDone) => {
      if (message.id !== id) return
      worker.off('message', answer)
      resolve(message)
    }
    worker.on('message', answer).once('error', reject)
    worker.postMessage({ id, task, argument })
  })

it('makes summaries and an archive side by side, seen by the connection of the server', async () => {
  expect(unsummarised(store)).toHaveLength(5)
  const path = join(folder, 'all.zip')
  const [summaries, archive] = await Promise.all([ask('updateSummaries'), ask('exportArchive', path)])
  expect([summaries.failure, archive.failure]).toEqual([undefined, undefined])
  expect(unsummarised(store)).toEqual([])
  expect(listMachines(store)).toHaveLength(5)
  const list = JSON.parse(
    new TextDecoder().decode(unzipSync(new Uint8Array(readFileSync(path)))['workspace.json']),
  )
  expect((list as { machines: unknown[] }).machines).toHaveLength(5)
})
it('tells why a task failed, by the code of the system, and goes on', async () => {
  const taken = join(folder, 'taken.zip')
  writeFileSync(taken, 'kept')
  expect((await ask('exportArchive', taken)).failure).toMatchObject({ code: 'EEXIST' })
  expect(readFileSync(taken, 'utf8')).toBe('kept')
  expect((await ask('exportArchive', join(folder, 'no', 'where.zip'))).failure).toMatchObject({
    code: 'ENOENT',
  })
  const path = join(folder, 'again.zip')
  expect((await ask('exportArchive', path)).failure).toBeUndefined()
  expect(existsSync(path)).toBe(true)
})
