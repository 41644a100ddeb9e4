/** Imports that are killed or for which there is no room, and exports beside them: all of it, or nothing. */
import { spawn } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { emptySheet } from '../../core/sheet/schema'
import { insertMachine, listMachines, repair } from '../database/machines'
import { openDatabase, type Store } from '../database/open'
import { machines } from '../database/schema'
import { migrations } from '../testing/migrations'
import { exportWorkspace } from './export'
import { importArchive } from './import'

const MACHINES = 100
const folder = mkdtempSync(join(tmpdir(), 'oar-bench-interrupted-'))
afterAll(() => rmSync(folder, { recursive: true }))
let count = 0
const newFolder = () => {
  const path = join(folder, `data-${++count}`)
  mkdirSync(path)
  return path
}
const filled = (store: Store, from: number, to: number) => {
  for (let i = from; i < to; i++)
    insertMachine(store, {
      name: `Machine ${i}`,
      summary: '',
      variants: [
        { name: 'First', sheet: emptySheet(`Sheet ${i}`) },
        { name: 'Second', sheet: emptySheet(`Other ${i}`) },
      ],
    })
}
const archive = join(folder, 'workspace.zip')
const program = join(folder, 'import-process.mjs')
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

beforeAll(async () => {
  const store = openDatabase(newFolder(), migrations).db
  filled(store, 0, MACHINES)
  writeFileSync(archive, await buffer(exportWorkspace(store)))
  await build({
    entryPoints: [here('../testing/import-process.ts')],
    outfile: program,
    bundle: true,
    platform: 'node',
    format: 'esm',
    external: ['better-sqlite3'],
    banner: {
      js: `import{createRequire as r}from'node:module';const require=r(${JSON.stringify(import.meta.url)})`,
    },
    plugins: [
      {
        name: 'resolved from here',
        setup: (b) => {
          b.onResolve({ filter: /^better-sqlite3$/ }, () => ({
            path: here('../../node_modules/better-sqlite3/lib/index.js'),
            external: true,
          }))
        },
      },
    ],
    logLevel: 'error',
  })
}, 60_000)

/** Imports in another process, which is killed a time after it has begun. @returns whether it was done before */
const importKilledAfter = (data: string, ms: number) =>
  new Promise<boolean>((resolve, reject) => {
    const child = spawn(process.execPath, [program, data, archive, here('../database/migrations')])
    let out = ''
    let err = ''
    child.stderr.on('data', (chunk: Buffer) => (err += chunk.toString()))
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString()
      if (out === 'begun\n') setTimeout(() => child.kill('SIGKILL'), ms)
    })
    child.on('close', () =>
      out.startsWith('begun') ? resolve(out.includes('done')) : reject(new Error(err)),
    )
  })

describe('an import', () => {
  it('that is killed has added nothing, and the next start says so', async () => {
    let [killed, left] = [0, 0]
    const began = performance.now()
    await importKilledAfter(newFolder(), 60_000)
    // the checks come first, the adding after them; the start of the process is not counted
    const whole = performance.now() - began
    for (const share of [0.05, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9]) {
      const data = newFolder()
      const done = await importKilledAfter(data, share * whole)
      const { db } = openDatabase(data, migrations)
      const names = listMachines(db).map(({ name }) => name)
      expect([0, MACHINES]).toContain(names.length)
      if (done) expect(names).toHaveLength(MACHINES)
      else killed++
      const before = db.select().from(machines).all().length
      const said = repair(db)
      if (before > names.length) {
        left++
        expect(said[0]).toMatch(/An import was interrupted/)
      } else expect(said).toEqual([])
      expect(db.select().from(machines).all()).toHaveLength(names.length)
      // what is there can be taken elsewhere
      if (names.length) await importArchive(openDatabase(newFolder(), migrations).db, await exported(db))
    }
    expect(killed).toBeGreaterThan(0)
    expect(left).toBeGreaterThan(0)
  }, 60_000)

  it('for which there is no room leaves everything as it was', async () => {
    const { connection, db } = openDatabase(newFolder(), migrations)
    filled(db, 0, 3)
    const pages = Number(connection.pragma('page_count', { simple: true }))
    connection.pragma(`max_page_count = ${pages + 10}`)
    await expect(importArchive(db, archive)).rejects.toThrow(/full/)
    expect(listMachines(db)).toHaveLength(3)
    repair(db)
    expect(db.select().from(machines).all()).toHaveLength(3)
  })

  it('is seen at one instant: an export beside it has all of it or nothing', async () => {
    const { db } = openDatabase(newFolder(), migrations)
    filled(db, 0, 2)
    let running = true
    const importing = importArchive(db, archive).finally(() => (running = false))
    const sizes = new Set<number>()
    while (running) {
      const entries = unzipSync(new Uint8Array(await buffer(exportWorkspace(db))))
      const list = JSON.parse(Buffer.from(entries['workspace.json']).toString()) as {
        machines: { variants: unknown[] }[]
      }
      expect(list.machines.every((m) => m.variants.length === 2)).toBe(true)
      sizes.add(list.machines.length)
    }
    await importing
    expect([...sizes].every((n) => n === 2 || n === 2 + MACHINES)).toBe(true)
    expect(listMachines(db)).toHaveLength(2 + MACHINES)
  })
})

describe('a database that an earlier program has left with holes', () => {
  it('is repaired at the start, in words', () => {
    const { connection, db } = openDatabase(newFolder(), migrations)
    filled(db, 0, 2)
    connection.exec(
      "DELETE FROM sheets WHERE machine_id = (SELECT id FROM machines WHERE name = 'Machine 1')",
    )
    expect(listMachines(db)).toHaveLength(1)
    expect(repair(db)).toEqual(['The machine "Machine 1" had no sheet, and has an empty one now.'])
    expect(listMachines(db)).toHaveLength(2)
    expect(repair(db)).toEqual([])
  })
})

async function exported(db: Store): Promise<string> {
  const path = join(folder, `export-${++count}.zip`)
  writeFileSync(path, await buffer(exportWorkspace(db)))
  return path
}
