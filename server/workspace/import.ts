/** The machines of an archive, added to those that are there: all of them, or none where anything in it is wrong. */
import { randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { setImmediate } from 'node:timers/promises'
import { promisify } from 'node:util'
import { gunzip } from 'node:zlib'
import { decodeRun } from '../../core/formats/run-file'
import { readWorkspaceList, WORKSPACE_LIST, type WorkspaceContents } from '../../core/formats/workspace'
import { readSheetText } from '../../core/sheet/read'
import { LARGEST_SERIES, type OwnSeries } from '../../core/size/own-series'
import type { Sheet } from '../../core/sheet/schema'
import {
  dropImport,
  insertMachine,
  insertRevision,
  insertRun,
  insertVariant,
  isGzip,
  publishImport,
} from '../database/machines'
import type { Store } from '../database/open'
import { listSeries, putSeries } from '../database/series'
import { ArchiveRefused, openArchive, type Archive, type ArchiveLimits } from './archive'

/** An archive may name one sheet many times, but not grow to more than so many times its size by that, from so many bytes on. */
const LARGEST_GROWTH = 100
const GROWTH_FROM = 20e6

const unpack = promisify(gunzip) as (
  data: Uint8Array,
  options: { maxOutputLength: number },
) => Promise<Buffer>

/** The sheet in an entry. @throws ArchiveRefused naming the entry */
async function readSheetEntry(archive: Archive, name: string): Promise<Sheet> {
  const read = readSheetText((await archive.read(name)).toString('utf8'))
  if (!read.ok) throw new ArchiveRefused(`${name}: ${read.problems[0].message}`)
  return read.sheet
}
/** Refuses an archive that would fill the data folder from next to nothing. */
function checkGrowth(contents: WorkspaceContents, archive: Archive, packed: number): void {
  const names = contents.machines.flatMap((m) =>
    m.variants.flatMap((v) => [v.sheet, ...v.runs.map((r) => r.data)]),
  )
  const total = names.reduce((sum, name) => sum + archive.size(name), 0)
  if (total > GROWTH_FROM && total > LARGEST_GROWTH * packed)
    throw new ArchiveRefused(
      `The archive of ${Math.ceil(packed / 1e3)} kB would grow to ${Math.round(total / 1e6)} MB: it names the same files again and again.`,
    )
}
/** Reads everything that the list names once. @throws ArchiveRefused at the first thing that is wrong */
async function checkEntries(contents: WorkspaceContents, archive: Archive): Promise<void> {
  const variants = contents.machines.flatMap((m) => m.variants)
  const sheetNames = new Set(
    variants.flatMap((v) => [v.sheet, ...v.revisions.map((r) => r.sheet), ...v.runs.map((r) => r.sheet)]),
  )
  for (const name of sheetNames) {
    await setImmediate()
    await readSheetEntry(archive, name)
  }
  for (const name of new Set(variants.flatMap((v) => v.runs.map((r) => r.data)))) {
    await setImmediate()
    try {
      const bytes = await archive.read(name)
      decodeRun(isGzip(bytes) ? await unpack(bytes, { maxOutputLength: 1e9 }) : bytes)
    } catch (error) {
      if (error instanceof ArchiveRefused) throw error
      throw new ArchiveRefused(`${name}: ${(error as Error).message}`, { cause: error })
    }
  }
}
/** Adds one machine with its variants, revisions and runs; it is seen only when the import is published. */
async function addMachine(
  store: Store,
  machine: WorkspaceContents['machines'][number],
  archive: Archive,
  importId: string,
): Promise<void> {
  const { name, summary, brief, variants } = machine
  const id = insertMachine(store, { name, summary, brief, variants: [], importId })
  for (const [position, variant] of variants.entries()) {
    const sheetId = insertVariant(
      store,
      id,
      variant.name,
      await readSheetEntry(archive, variant.sheet),
      position,
    )
    for (const { sheet, ...revision } of variant.revisions) {
      const createdAt = new Date(revision.createdAt)
      insertRevision(store, sheetId, { ...revision, createdAt }, await readSheetEntry(archive, sheet))
    }
    for (const run of variant.runs) {
      await setImmediate()
      const sheet = await readSheetEntry(archive, run.sheet)
      insertRun(store, sheetId, run.name, sheet, await archive.read(run.data), new Date(run.createdAt))
    }
  }
}

/** Adds the series of sizes whose names are not taken; those that are there stay as they are. */
function addMissingSeries(store: Pick<Store, 'select' | 'transaction'>, series: readonly OwnSeries[]): void {
  const present = listSeries(store)
  const names = new Set(present.map(({ name }) => name))
  const added = series.filter(({ name }) => !names.has(name))
  if (added.length) putSeries(store, added.slice(0, LARGEST_SERIES.series - present.length))
}

/** @param path of the archive @returns how many machines were added @throws ArchiveRefused where nothing was */
export async function importArchive(store: Store, path: string, limits?: ArchiveLimits): Promise<number> {
  const archive = await openArchive(path, limits)
  const importId = randomUUID()
  try {
    if (!archive.names.has(WORKSPACE_LIST))
      throw new ArchiveRefused(`The archive has no ${WORKSPACE_LIST}: it is no workspace of Oar Bench.`)
    let contents: WorkspaceContents
    try {
      contents = readWorkspaceList((await archive.read(WORKSPACE_LIST)).toString('utf8'))
    } catch (error) {
      throw new ArchiveRefused((error as Error).message, { cause: error })
    }
    checkGrowth(contents, archive, (await stat(path)).size)
    await checkEntries(contents, archive)
    for (const machine of contents.machines) {
      await setImmediate()
      await addMachine(store, machine, archive, importId)
    }
    publishImport(store, importId, (tx) => addMissingSeries(tx, contents.series))
    return contents.machines.length
  } catch (error) {
    // where even that cannot be written, the next start of the server takes it away
    try {
      dropImport(store, importId)
    } catch {
      // nobody sees what is left
    }
    throw error
  } finally {
    archive.close()
  }
}

/** As `importArchive`, from a stream that is kept in a temporary file meanwhile. @param limit of its bytes */
export async function importWorkspace(store: Store, body: Readable, limit: number): Promise<number> {
  const path = join(tmpdir(), `oar-bench-${randomUUID()}.zip`)
  let length = 0
  try {
    await pipeline(
      body,
      async function* (source: AsyncIterable<Buffer>) {
        for await (const chunk of source) {
          length += chunk.length
          if (length > limit) throw new ArchiveRefused(`The archive is larger than ${limit / 1e6} MB.`)
          yield chunk
        }
      },
      createWriteStream(path, { mode: 0o600 }),
    )
    if (!length) throw new ArchiveRefused('There is nothing in it.')
    return await importArchive(store, path)
  } finally {
    await rm(path, { force: true })
  }
}
