/**
 * How the server feels while much is done at once: other requests during the import of an archive of 400 machines and while their
 * summaries are made, an export alone, and one beside 55 busy clients. The application must be built.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ZipFile } from 'yazl'
import { demoMachines } from '../demo/machines'
import { WORKSPACE_FORMAT, WORKSPACE_LIST, WORKSPACE_VERSION } from '../core/formats/workspace'
import { writeSheetText } from '../core/sheet/read'
import { median, share } from './app'

const PORT = 4183
const MACHINES = 400
const CLIENTS = 55
/** ms in which summaries are made after the import. */
const AFTER = 30_000
const address = `http://127.0.0.1:${PORT}`

/** An archive of the machines of the demo, over and over. */
async function archive(): Promise<Buffer> {
  const zip = new ZipFile()
  const demo = demoMachines()
  const machines = Array.from({ length: MACHINES }, (_, m) => {
    const { name, summary, brief, variants } = demo[m % demo.length]
    return {
      name: `${name} ${m + 1}`,
      summary,
      brief,
      variants: variants.map((variant, v) => {
        const sheet = `machine-${m + 1}/variant-${v + 1}.json`
        // no two sheets are equal
        zip.addBuffer(Buffer.from(writeSheetText({ ...variant.sheet, title: `${name} ${m + 1}` })), sheet)
        return { name: variant.name, sheet, revisions: [], runs: [] }
      }),
    }
  })
  const list = { format: WORKSPACE_FORMAT, version: WORKSPACE_VERSION, series: [], machines }
  zip.addBuffer(Buffer.from(JSON.stringify(list)), WORKSPACE_LIST)
  zip.end()
  const parts: Buffer[] = []
  for await (const part of zip.outputStream) parts.push(part as Buffer)
  return Buffer.concat(parts)
}
async function timed(path: string, init?: RequestInit): Promise<number> {
  const start = performance.now()
  const answer = await fetch(address + path, init)
  await answer.arrayBuffer()
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
  return performance.now() - start
}
/** Asks again and again until something is done. @returns times of the answers, ms */
async function repeated(done: () => boolean, path: string): Promise<number[]> {
  const times: number[] = []
  while (!done()) {
    times.push(await timed(path))
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
  return times
}
const report = (what: string, times: readonly number[]) =>
  console.log(
    `${what}: ${times.length} requests, median ${median(times).toFixed(0)} ms, 95 % ${share(times, 0.95).toFixed(0)} ms, longest ${Math.max(...times).toFixed(0)} ms`,
  )

const folder = mkdtempSync(join(tmpdir(), 'bench-server-'))
const server = spawn('node', ['.output/server/index.mjs'], {
  env: { ...process.env, NUXT_DATA_FOLDER: folder, PORT: String(PORT), HOST: '127.0.0.1' },
  stdio: ['ignore', 'ignore', 'inherit'],
})
try {
  for (;;) {
    try {
      await timed('/api/machines')
      break
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 200))
    }
  }
  const created = await fetch(`${address}/api/machines`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'Bench' }),
  })
  const { id } = (await created.json()) as { id: string }
  const one = `/api/machines/${id}`
  const bytes = await archive()
  console.log(`archive of ${MACHINES} machines: ${(bytes.length / 1e6).toFixed(1)} MB`)
  const idle: number[] = []
  for (let i = 0; i < 50; i++) idle.push(await timed(one))
  report('idle', idle)

  let isImported = false
  const importing = timed('/api/workspace', {
    method: 'POST',
    body: new Uint8Array(bytes),
    headers: { 'content-type': 'application/zip' },
  }).then((ms) => ((isImported = true), ms))
  report('during the import', await repeated(() => isImported, one))
  console.log(`import: ${((await importing) / 1000).toFixed(1)} s`)
  const until = performance.now() + AFTER
  report('after the import', await repeated(() => performance.now() > until, one))

  console.log(`export alone: ${((await timed('/api/workspace')) / 1000).toFixed(1)} s`)
  let isExported = false
  const list = (await (await fetch(`${address}/api/machines`)).json()) as { id: string }[]
  const clients = Array.from({ length: CLIENTS }, (_, i) =>
    repeated(() => isExported, `/api/machines/${list[i].id}`),
  )
  const exported = timed('/api/workspace').then((ms) => ((isExported = true), ms))
  console.log(`export beside ${CLIENTS} busy clients: ${((await exported) / 1000).toFixed(1)} s`)
  report('clients meanwhile', (await Promise.all(clients)).flat())
} finally {
  server.kill()
  rmSync(folder, { recursive: true, force: true })
}
