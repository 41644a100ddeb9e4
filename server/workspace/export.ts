/** All machines and own series of sizes as one archive, written while it is sent: no more than one entry is held at a time. */
import { setImmediate } from 'node:timers/promises'
import type { Readable } from 'node:stream'
import { asc, eq, isNull } from 'drizzle-orm'
import { ZipFile } from 'yazl'
import {
  WORKSPACE_FORMAT,
  WORKSPACE_LIST,
  WORKSPACE_VERSION,
  type WorkspaceContents,
} from '../../core/formats/workspace'
import { readSheetText, writeSheetText } from '../../core/sheet/read'
import { readBrief } from '../../core/size/brief/read'
import { isGzip, variantsOf } from '../database/machines'
import { snapshotOf, type Store } from '../database/open'
import { machines, revisions, runs, sheetVersions } from '../database/schema'
import { listSeries } from '../database/series'
import { hashOf } from '../database/summaries'

/** The text of a sheet in the present format; of one that does not read, as it is kept. */
function sheetText(content: string): string {
  const read = readSheetText(content)
  return read.ok ? writeSheetText(read.sheet) : content
}

/**
 * Writes the archive of all machines in the order in which they were made. Equal sheets are one entry.
 * @returns the stream of its bytes, which ends with an error where something cannot be read
 */
export function exportWorkspace(live: Store): Readable {
  // one instant of the database, whatever is written meanwhile
  const { store, release } = snapshotOf(live)
  const zip = new ZipFile()
  const names = new Map<string, string>()
  /** Entries that were asked for and not yet written. */
  const loading = new Map<string, () => void>()
  /** The name of the entry with a sheet. @param key what is equal for equal sheets @param load reads its text when its turn comes */
  const sheetEntry = (key: string, wanted: string, load: () => string): string => {
    const known = names.get(key)
    if (known) return known
    names.set(key, wanted)
    loading.set(wanted, () => zip.addBuffer(Buffer.from(load()), wanted))
    return wanted
  }
  const versionText = (hash: string) =>
    sheetText(store.select().from(sheetVersions).where(eq(sheetVersions.hash, hash)).get()!.content)

  function contentsOf(
    machine: typeof machines.$inferSelect,
    m: number,
  ): WorkspaceContents['machines'][number] {
    return {
      name: machine.name,
      summary: machine.summary,
      brief: readBrief(JSON.parse(machine.brief)),
      variants: variantsOf(store, machine.id).map(({ id, name, content }, v) => {
        const at = `machine-${m + 1}/variant-${v + 1}`
        const own = { sheetId: id }
        return {
          name,
          sheet: sheetEntry(hashOf(content), `${at}.json`, () => sheetText(content)),
          revisions: store
            .select()
            .from(revisions)
            .where(eq(revisions.sheetId, own.sheetId))
            .orderBy(asc(revisions.createdAt))
            .all()
            .map((r, k) => ({
              name: r.name,
              note: r.note,
              createdAt: r.createdAt.getTime(),
              sheet: sheetEntry(r.versionHash, `${at}-revision-${k + 1}.json`, () =>
                versionText(r.versionHash),
              ),
            })),
          runs: store
            .select({
              id: runs.id,
              name: runs.name,
              createdAt: runs.createdAt,
              versionHash: runs.versionHash,
            })
            .from(runs)
            .where(eq(runs.sheetId, own.sheetId))
            .orderBy(asc(runs.createdAt))
            .all()
            .map((r, k) => {
              const data = `${at}-run-${k + 1}.run`
              loading.set(data, () => {
                const bytes = store
                  .select({ data: runs.data })
                  .from(runs)
                  .where(eq(runs.id, r.id))
                  .get()?.data
                if (bytes) zip.addBuffer(bytes, data, { compress: !isGzip(bytes) })
              })
              return {
                name: r.name,
                createdAt: r.createdAt.getTime(),
                sheet: sheetEntry(r.versionHash, `${at}-run-${k + 1}.json`, () => versionText(r.versionHash)),
                data,
              }
            }),
        }
      }),
    }
  }

  const output = zip.outputStream as unknown as Readable
  async function write(): Promise<void> {
    const list: WorkspaceContents['machines'] = []
    const all = store
      .select()
      .from(machines)
      .where(isNull(machines.importId))
      .orderBy(asc(machines.createdAt), asc(machines.id))
      .all()
    for (const [m, machine] of all.entries()) {
      await setImmediate()
      list.push(contentsOf(machine, m))
      for (const [name, add] of loading) {
        // other requests come in between; what was sent makes room for the next
        await setImmediate()
        while (output.readableLength > output.readableHighWaterMark && !output.destroyed)
          await new Promise((resolve) => setTimeout(resolve, 5))
        if (output.destroyed) return
        add()
        loading.delete(name)
      }
    }
    const contents: WorkspaceContents = {
      format: WORKSPACE_FORMAT,
      version: WORKSPACE_VERSION,
      series: listSeries(store),
      machines: list,
    }
    zip.addBuffer(Buffer.from(`${JSON.stringify(contents, null, 2)}\n`), WORKSPACE_LIST)
    zip.end()
  }
  output.once('close', release)
  write().catch((error: Error) => output.destroy(error))
  return output
}
