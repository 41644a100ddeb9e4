/** Workspaces out of the database and into it, as archives. */
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { gzipSync } from 'node:zlib'
import { strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { encodeRun } from '../../core/formats/run-file'
import { emptySheet } from '../../core/sheet/schema'
import { briefSchema } from '../../core/size/brief/brief'
import { circuit, powerUnit, powerUnitPipes, runSheet, timed } from '../../core/testing'
import {
  insertMachine,
  insertRevision,
  insertRun,
  insertVariant,
  listMachines,
  variantsOf,
} from '../database/machines'
import { openDatabase, type Store } from '../database/open'
import { machines, revisions, runs, sheetVersions } from '../database/schema'
import { listSeries, putSeries } from '../database/series'
import { ownSeriesSchema } from '../../core/size/own-series'
import { migrations } from '../testing/migrations'
import { openArchive } from './archive'
import { exportWorkspace } from './export'
import { importArchive, importWorkspace } from './import'

const folder = mkdtempSync(join(tmpdir(), 'oar-bench-workspace-'))
afterAll(() => rmSync(folder, { recursive: true }))
let count = 0
const newStore = () => openDatabase(join(folder, `store-${++count}`), migrations).db
const sheet = circuit(powerUnit, powerUnitPipes)
const run = encodeRun(runSheet(timed(sheet, 0.1, [])))

/** A machine with two variants, a revision, a run as it is and one compressed. */
function filled(): Store {
  const store = newStore()
  const brief = briefSchema.parse({ purpose: 'lift' })
  const id = insertMachine(store, {
    name: 'Lift',
    summary: 'Lifts & lowers',
    brief,
    variants: [{ name: 'First', sheet }],
  })
  insertVariant(store, id, 'Second', emptySheet('Lift'), 1)
  const [first] = variantsOf(store, id)
  const at = (t: number) => new Date(1_760_000_000_000 + t)
  insertRevision(store, first.id, { name: 'A', note: 'for review', createdAt: at(0) }, emptySheet('Lift'))
  insertRun(store, first.id, 'Run 1', sheet, run, at(1))
  insertRun(store, first.id, 'Run 2', sheet, gzipSync(run), at(2))
  return store
}
const archiveOf = async (store: Store) => new Uint8Array(await buffer(exportWorkspace(store)))
const importBytes = (store: Store, bytes: Uint8Array) =>
  importWorkspace(store, Readable.from([Buffer.from(bytes)]), 1e9)

describe('series of sizes in a workspace', () => {
  const series = (name: string, size: string) =>
    ownSeriesSchema.parse({ name, of: 'bores', use: 'added', source: '', sizes: [size] })
  it('go with it, and leave those alone that are there under the same name', async () => {
    const from = filled()
    putSeries(from, [series('Ours', '45 mm'), series('Store', '90 mm')])
    const to = newStore()
    putSeries(to, [series('Store', '91 mm')])
    await importBytes(to, await archiveOf(from))
    expect(listSeries(to)).toEqual([series('Ours', '45 mm'), series('Store', '91 mm')])
  })
  it('are not needed in an archive of an earlier version', async () => {
    const entries = unzipSync(await archiveOf(filled()))
    const { series: none, ...list } = JSON.parse(Buffer.from(entries['workspace.json']).toString()) as {
      series: unknown[]
    }
    expect(none).toEqual([])
    entries['workspace.json'] = strToU8(JSON.stringify({ ...list, version: 2 }))
    const to = newStore()
    expect(await importBytes(to, zipSync(entries))).toBe(1)
    expect(listSeries(to)).toEqual([])
  })
})

describe('a workspace', () => {
  let archive: Uint8Array
  beforeAll(async () => {
    archive = await archiveOf(filled())
  })
  const changed = (change: (files: Zippable) => void) => {
    const files: Zippable = unzipSync(archive)
    change(files)
    return zipSync(files)
  }

  it('comes back as it went out', async () => {
    const store = newStore()
    expect(await importBytes(store, archive)).toBe(1)
    const [machine] = store.select().from(machines).all()
    expect(machine).toMatchObject({ name: 'Lift', summary: 'Lifts & lowers' })
    expect(JSON.parse(machine.brief).purpose).toBe('lift')
    const variants = variantsOf(store, machine.id)
    expect(variants.map((v) => v.name)).toEqual(['First', 'Second'])
    expect(JSON.parse(variants[0].content)).toEqual(sheet)
    expect(store.select().from(revisions).all()).toMatchObject([{ name: 'A', note: 'for review' }])
    const kept = store.select().from(runs).orderBy(runs.createdAt).all()
    expect(kept.map((r) => r.name)).toEqual(['Run 1', 'Run 2'])
    expect(new Uint8Array(kept[0].data)).toEqual(run)
    expect(new Uint8Array(kept[1].data)).toEqual(new Uint8Array(gzipSync(run)))
    // the archive of what came in is the same
    expect(unzipSync(await archiveOf(store))).toEqual(unzipSync(archive))
  })
  it('has equal sheets once', () => {
    const names = Object.keys(unzipSync(archive)).filter((n) => n.endsWith('.json'))
    expect(names).toHaveLength(3)
  })
  it('can have more of everything than a person would make', async () => {
    const store = newStore()
    const id = insertMachine(store, { name: 'Many', summary: '', variants: [] })
    for (let i = 0; i < 60; i++) insertVariant(store, id, `V${i}`, emptySheet(`Sheet ${i}`), i)
    const [first] = variantsOf(store, id)
    for (let i = 0; i < 1001; i++)
      insertRevision(store, first.id, { name: `R${i}`, note: '', createdAt: new Date(i) }, emptySheet('R'))
    for (let i = 0; i < 501; i++)
      insertMachine(store, { name: `M${i}`, summary: '', variants: [{ name: 'A', sheet: emptySheet('x') }] })
    const back = newStore()
    expect(await importBytes(back, await archiveOf(store))).toBe(502)
    expect(back.select().from(revisions).all()).toHaveLength(1001)
    expect(listMachines(back).find((m) => m.name === 'Many')!.variants).toBe(60)
  })

  const list = (machine: object) =>
    JSON.stringify({ format: 'oar-bench-workspace', version: 1, machines: [machine] })
  it('of an older program is taken with its briefs in the present form', async () => {
    const store = newStore()
    const variants = [{ name: 'One', sheet: 'one.json' }]
    const brief = { purpose: 'lift', values: { stroke: '1200 mm' } }
    const bytes = zipSync({
      'workspace.json': strToU8(list({ name: 'Old', brief, variants })),
      'one.json': strToU8(JSON.stringify({ ...emptySheet('Old'), version: 6, sizing: undefined })),
    })
    expect(await importBytes(store, bytes)).toBe(1)
    const [machine] = store.select().from(machines).all()
    expect(JSON.parse(machine.brief)).toMatchObject({
      version: 3,
      motions: [{ values: { stroke: '1200 mm' } }],
    })
  })
  const refusals: [string, () => Uint8Array, RegExp][] = [
    ['nothing', () => new Uint8Array(), /nothing in it/],
    ['what is no archive', () => strToU8('hello'), /not an archive/],
    ['a damaged one', () => archive.slice(0, 300), /not an archive/],
    ['one without its list', () => zipSync({ 'sheet.json': strToU8('{}') }), /no workspace\.json/],
    ['a list that is no JSON', () => zipSync({ 'workspace.json': strToU8('{') }), /not JSON/],
    ['a newer one', () => zipSync({ 'workspace.json': strToU8('{"version":9}') }), /reads up to version 3/],
    [
      'a machine without variants',
      () => zipSync({ 'workspace.json': strToU8(list({ name: 'x', brief: {}, variants: [] })) }),
      /workspace\.json: /,
    ],
    [
      'a sheet that is not there',
      () => changed((files) => delete files['machine-1/variant-1.json']),
      /no file "machine-1\/variant-1\.json"/,
    ],
    [
      'a sheet that does not read',
      () => changed((files) => (files['machine-1/variant-1.json'] = strToU8('{"format":"x"}'))),
      /variant-1\.json: This is not an Oar Bench sheet/,
    ],
    [
      'a run that is none',
      () => changed((files) => (files['machine-1/variant-1-run-1.run'] = strToU8('x'))),
      /run-1\.run: /,
    ],
    ['a name that leads up', () => zipSync({ '../workspace.json': strToU8('{}') }), /leads out of it/],
    ['a name from the root', () => zipSync({ '/etc/passwd': strToU8('') }), /leads out of it/],
    [
      'a file that swells',
      () => zipSync({ 'workspace.json': strToU8('0'.repeat(50e6)) }),
      /unpacks to far more/,
    ],
  ]
  it.each(refusals)('is refused, and nothing is added: %s', async (_, bytes, words) => {
    const store = newStore()
    await expect(importBytes(store, bytes())).rejects.toThrow(words)
    expect(store.select().from(machines).all()).toEqual([])
    expect(store.select().from(sheetVersions).all()).toEqual([])
  })
  it('that names one sheet again and again does not grow to many times its size', async () => {
    const big = { ...sheet, title: 'x'.repeat(190), page: { ...sheet.page, number: 'y'.repeat(190) } }
    const variants = Array.from({ length: 9000 }, (_, i) => ({ name: `V${i}`, sheet: 'one.json' }))
    const bytes = zipSync({
      'workspace.json': strToU8(list({ name: 'x', brief: {}, variants })),
      'one.json': strToU8(JSON.stringify(big, null, 2)),
    })
    const store = newStore()
    await expect(importBytes(store, bytes)).rejects.toThrow(/would grow to \d+ MB/)
    expect(store.select().from(machines).all()).toEqual([])
  })
  it('is refused for too many files, too much, or more than was said', async () => {
    const path = join(folder, 'many.zip')
    const many = Object.fromEntries(
      Array.from({ length: 30 }, (_, i) => [`${i}.txt`, strToU8('xy'.repeat(100))]),
    )
    writeFileSync(path, zipSync(many))
    const limits = { entries: 50, bytes: 1e6, entryBytes: 1e6 }
    expect((await openArchive(path, limits)).names.size).toBe(30)
    await expect(openArchive(path, { ...limits, entries: 20 })).rejects.toThrow(/more than 20 files/)
    await expect(openArchive(path, { ...limits, bytes: 1000 })).rejects.toThrow(/unpacks to more than/)
    await expect(openArchive(path, { ...limits, entryBytes: 100 })).rejects.toThrow(/is larger than/)
    const store = newStore()
    await expect(importWorkspace(store, Readable.from([Buffer.alloc(2000)]), 1000)).rejects.toThrow(
      /larger than/,
    )
    await expect(importArchive(store, join(folder, 'none.zip'))).rejects.toThrow(/not an archive/)
    expect(statSync(path).size).toBeGreaterThan(0)
  })
  it('that fails half way leaves nothing behind', async () => {
    const store = newStore()
    // the second machine names a sheet of a run whose bytes are there, but the database refuses it
    const two = changed((files) => {
      const contents = JSON.parse(Buffer.from(files['workspace.json'] as Uint8Array).toString())
      contents.machines.push({ ...contents.machines[0], name: 'Second' })
      files['workspace.json'] = strToU8(JSON.stringify(contents))
    })
    store.run(
      "CREATE TRIGGER refuse BEFORE INSERT ON machines WHEN NEW.name = 'Second' BEGIN SELECT RAISE(ABORT, 'no'); END",
    )
    await expect(importBytes(store, two)).rejects.toThrow()
    expect(store.select().from(machines).all()).toEqual([])
  })
})
