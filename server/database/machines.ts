import { randomUUID } from 'node:crypto'
import { gunzipSync } from 'node:zlib'
import { and, asc, eq, isNotNull, isNull, notExists } from 'drizzle-orm'
import { emptyBrief, missingOf, type Brief } from '../../core/size/brief/brief'
import { readBrief } from '../../core/size/brief/read'
import { emptySheet, type Sheet } from '../../core/sheet/schema'
import { writeSheetText } from '../../core/sheet/read'
import { decodeRun } from '../../core/formats/run-file'
import type { MachineRow } from '../../shared/api'
import type { Store } from './open'
import { machines, revisions, runs, sheets, sheetSummaries, sheetVersions } from './schema'
import { hashOf } from './summaries'

/** Of a run that is kept, uncompressed, bytes. */
const LARGEST_RUN = 1e9

interface NewVariant {
  readonly name: string
  readonly sheet: Sheet
}
interface NewMachine {
  readonly name: string
  readonly summary: string
  readonly brief?: Brief
  readonly variants: readonly NewVariant[]
  /** The import that adds it. */
  readonly importId?: string
}

/** Makes a machine with its variants, each a sheet with what is kept of it. @returns the machine's id */
export function insertMachine(store: Store, machine: NewMachine): string {
  const now = new Date()
  const id = randomUUID()
  store.transaction((tx) => {
    tx.insert(machines)
      .values({
        id,
        name: machine.name,
        summary: machine.summary,
        brief: JSON.stringify(machine.brief ?? emptyBrief()),
        createdAt: now,
        updatedAt: now,
        importId: machine.importId,
      })
      .run()
    machine.variants.forEach(({ name, sheet }, position) => insertVariant(tx, id, name, sheet, position))
  })
  return id
}

/** Adds a variant to a machine. @returns the id of its sheet */
export function insertVariant(
  store: Pick<Store, 'insert'>,
  machineId: string,
  name: string,
  sheet: Sheet,
  position: number,
): string {
  const id = randomUUID()
  store
    .insert(sheets)
    .values({ id, machineId, name, position, content: writeSheetText(sheet), updatedAt: new Date() })
    .run()
  return id
}
/** Keeps a state of a sheet under a name. @returns the id of the revision */
export function insertRevision(
  store: Pick<Store, 'insert'>,
  sheetId: string,
  revision: { readonly name: string; readonly note: string; readonly createdAt: Date },
  sheet: Sheet,
): string {
  const id = randomUUID()
  store
    .insert(revisions)
    .values({ ...revision, id, sheetId, versionHash: storeVersion(store, sheet) })
    .run()
  return id
}

/** The bytes of a run, which are kept compressed or as they are. @throws Error where they cannot be uncompressed */
export const uncompressedRun = (data: Uint8Array): Uint8Array =>
  isGzip(data) ? gunzipSync(data, { maxOutputLength: LARGEST_RUN }) : data
export const isGzip = (data: Uint8Array) => data[0] === 0x1f && data[1] === 0x8b

/** Keeps a run with the exact sheet that it came from. @throws Error where its bytes are no run @returns its row without the bytes */
export function insertRun(
  store: Pick<Store, 'insert'>,
  sheetId: string,
  name: string,
  sheet: Sheet,
  data: Uint8Array,
  createdAt: Date,
) {
  const result = decodeRun(uncompressedRun(data))
  const row = {
    id: randomUUID(),
    name,
    schedule: result.schedule,
    duration: result.duration,
    finished: result.finished,
    conditions: result.conditions.length,
    versionHash: storeVersion(store, sheet),
  }
  store
    .insert(runs)
    .values({ ...row, sheetId, createdAt, data: Buffer.from(data) })
    .run()
  return row
}

/** Makes a machine with the brief and the sheets of another one. @returns its id; none where there is no such machine */
export function copyMachine(store: Store, id: string, name: string): string | undefined {
  const machine = findMachine(store, id)
  if (!machine) return undefined
  const now = new Date()
  const copy = { ...machine, id: randomUUID(), name, briefRevision: 1, createdAt: now, updatedAt: now }
  store.transaction((tx) => {
    tx.insert(machines).values(copy).run()
    for (const sheet of variantsOf(store, id))
      tx.insert(sheets)
        .values({ ...sheet, id: randomUUID(), machineId: copy.id, revision: 1, saveId: null, updatedAt: now })
        .run()
  })
  return copy.id
}

/** The machines with what the list shows of them, by name; no sheet is read for it. */
export function listMachines(store: Store): MachineRow[] {
  const variants = store
    .select({
      id: sheets.id,
      machineId: sheets.machineId,
      revision: sheets.revision,
      updatedAt: sheets.updatedAt,
      summary: {
        revision: sheetSummaries.revision,
        contentHash: sheetSummaries.contentHash,
        components: sheetSummaries.components,
        errors: sheetSummaries.errors,
        incomplete: sheetSummaries.incomplete,
        warnings: sheetSummaries.warnings,
        sized: sheetSummaries.sized,
        agreeing: sheetSummaries.agreeing,
        waiting: sheetSummaries.waiting,
      },
    })
    .from(sheets)
    .leftJoin(sheetSummaries, eq(sheetSummaries.sheetId, sheets.id))
    .orderBy(asc(sheets.position), asc(sheets.id))
    .all()
  const saved = store
    .select({
      sheetId: runs.sheetId,
      versionHash: runs.versionHash,
      finished: runs.finished,
      conditions: runs.conditions,
      createdAt: runs.createdAt,
    })
    .from(runs)
    .orderBy(asc(runs.createdAt))
    .all()
  const variantsBy = grouped(variants, (v) => v.machineId)
  const runsBy = grouped(saved, (r) => r.sheetId)
  return store
    .select()
    .from(machines)
    .where(isNull(machines.importId))
    .orderBy(asc(machines.name))
    .all()
    .flatMap((machine) => {
      const own = variantsBy.get(machine.id) ?? []
      if (!own.length) return []
      const [first] = own
      const ownRuns = own.flatMap((v) => (runsBy.get(v.id) ?? []).map((run) => ({ run, variant: v })))
      const last = ownRuns.sort((a, b) => a.run.createdAt.getTime() - b.run.createdAt.getTime()).at(-1)
      const { summary } = first
      const known = summary && summary.revision === first.revision ? summary : undefined
      return [
        {
          id: machine.id,
          name: machine.name,
          summary: machine.summary,
          sheetId: first.id,
          sheetRevision: first.revision,
          variants: own.length,
          updatedAt: Math.max(machine.updatedAt.getTime(), ...own.map((v) => v.updatedAt.getTime())),
          briefFilled: isFilled(machine.brief),
          sheet: known
            ? {
                components: known.components,
                errors: known.errors,
                incomplete: known.incomplete,
                warnings: known.warnings,
                sized: known.sized,
                agreeing: known.agreeing,
                waiting: known.waiting,
              }
            : null,
          runs: ownRuns.length,
          lastRun: last
            ? {
                finished: last.run.finished,
                conditions: last.run.conditions,
                createdAt: last.run.createdAt.getTime(),
                current: last.run.versionHash === last.variant.summary?.contentHash,
              }
            : null,
        },
      ]
    })
}
/** Whether a brief says all that sizing needs; one that does not read says nothing. */
function isFilled(text: string): boolean {
  try {
    return missingOf(readBrief(JSON.parse(text))).length === 0
  } catch {
    return false
  }
}
function grouped<T>(list: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of list) {
    const group = groups.get(keyOf(item))
    if (group) group.push(item)
    else groups.set(keyOf(item), [item])
  }
  return groups
}

export const findMachine = (store: Store, id: string) =>
  store
    .select()
    .from(machines)
    .where(and(eq(machines.id, id), isNull(machines.importId)))
    .get()

/** Shows all machines that an import has added, at one instant. @param also what is done in the same transaction */
export const publishImport = (
  store: Store,
  importId: string,
  also: (tx: Pick<Store, 'select' | 'transaction'>) => void,
) =>
  store.transaction((tx) => {
    tx.update(machines).set({ importId: null }).where(eq(machines.importId, importId)).run()
    also(tx)
  })
export const dropImport = (store: Store, importId: string) =>
  store.delete(machines).where(eq(machines.importId, importId)).run()

/**
 * Takes away what an import that was interrupted has left, and gives a machine without any sheet an empty one.
 * @returns what was done, in words; nothing where all was well
 */
export function repair(store: Store): string[] {
  const said: string[] = []
  const unfinished = store.delete(machines).where(isNotNull(machines.importId)).run().changes
  if (unfinished)
    said.push(
      `An import was interrupted: ${unfinished === 1 ? 'the machine' : `the ${unfinished} machines`} that it had added so far ${unfinished === 1 ? 'was' : 'were'} taken away again. Import the archive once more.`,
    )
  const bare = store
    .select()
    .from(machines)
    .where(notExists(store.select().from(sheets).where(eq(sheets.machineId, machines.id))))
    .all()
  for (const { id, name } of bare) {
    insertVariant(store, id, 'First variant', emptySheet(name), 0)
    said.push(`The machine "${name}" had no sheet, and has an empty one now.`)
  }
  return said
}
/** The variants of a machine in their order. */
export const variantsOf = (store: Store, machineId: string) =>
  store
    .select()
    .from(sheets)
    .where(eq(sheets.machineId, machineId))
    .orderBy(asc(sheets.position), asc(sheets.id))
    .all()
/** One variant of a machine: that of an id, else the first. */
export const findSheetOf = (store: Store, machineId: string, sheetId?: string) => {
  const variants = variantsOf(store, machineId)
  return sheetId ? variants.find((v) => v.id === sheetId) : variants[0]
}

/** Keeps the exact content of a sheet, once however often it is referred to. @returns its hash */
export function storeVersion(store: Pick<Store, 'insert'>, sheet: Sheet): string {
  const content = writeSheetText(sheet)
  const hash = hashOf(content)
  store.insert(sheetVersions).values({ hash, content, createdAt: new Date() }).onConflictDoNothing().run()
  return hash
}
