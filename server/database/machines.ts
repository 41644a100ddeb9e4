import { createHash, randomUUID } from 'node:crypto'
import { gunzipSync } from 'node:zlib'
import { asc, eq } from 'drizzle-orm'
import { briefSchema } from '../../core/size/brief'
import type { Brief } from '../../core/size/brief'
import type { Sheet } from '../../core/sheet/schema'
import { readSheetText, writeSheetText } from '../../core/sheet/read'
import { decodeRun } from '../../core/formats/run-file'
import type { WorkspaceMachine, WorkspaceRevision, WorkspaceRun } from '../../core/formats/workspace'
import type { Store } from './open'
import { machines, revisions, runs, sheets, sheetVersions } from './schema'

/** Of a run that is kept, uncompressed, bytes. */
const LARGEST_RUN = 1e9

interface NewVariant {
  readonly name: string
  readonly sheet: Sheet
  readonly revisions?: readonly WorkspaceRevision[]
  readonly runs?: readonly WorkspaceRun[]
}
interface NewMachine {
  readonly name: string
  readonly summary: string
  readonly brief?: Brief
  readonly variants: readonly NewVariant[]
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
        brief: JSON.stringify(machine.brief ?? briefSchema.parse({})),
        createdAt: now,
        updatedAt: now,
      })
      .run()
    machine.variants.forEach(({ name, sheet, revisions: kept = [], runs: ran = [] }, position) => {
      const sheetId = randomUUID()
      tx.insert(sheets)
        .values({
          id: sheetId,
          machineId: id,
          name,
          position,
          content: writeSheetText(sheet),
          updatedAt: now,
        })
        .run()
      for (const { name: revision, note, createdAt, sheet: state } of kept)
        tx.insert(revisions)
          .values({
            id: randomUUID(),
            sheetId,
            versionHash: keepVersion(tx, state),
            name: revision,
            note,
            createdAt: new Date(createdAt),
          })
          .run()
      for (const run of ran) insertRun(tx, sheetId, run.name, run.sheet, run.data, new Date(run.createdAt))
    })
  })
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
    versionHash: keepVersion(store, sheet),
  }
  store
    .insert(runs)
    .values({ ...row, sheetId, createdAt, data: Buffer.from(data) })
    .run()
  return row
}

/** All machines with all that is kept of them, in the order in which they were made. */
export function workspaceOf(store: Store): WorkspaceMachine[] {
  const version = (hash: string) =>
    keptSheet(store.select().from(sheetVersions).where(eq(sheetVersions.hash, hash)).get()!.content)
  return store
    .select()
    .from(machines)
    .orderBy(asc(machines.createdAt), asc(machines.id))
    .all()
    .map(({ id, name, summary, brief }) => ({
      name,
      summary,
      brief: briefSchema.parse(JSON.parse(brief)),
      variants: variantsOf(store, id).map((variant) => ({
        name: variant.name,
        sheet: keptSheet(variant.content),
        revisions: store
          .select()
          .from(revisions)
          .where(eq(revisions.sheetId, variant.id))
          .orderBy(asc(revisions.createdAt))
          .all()
          .map((r) => ({
            name: r.name,
            note: r.note,
            createdAt: r.createdAt.getTime(),
            sheet: version(r.versionHash),
          })),
        runs: store
          .select()
          .from(runs)
          .where(eq(runs.sheetId, variant.id))
          .orderBy(asc(runs.createdAt))
          .all()
          .map((r) => ({
            name: r.name,
            createdAt: r.createdAt.getTime(),
            sheet: version(r.versionHash),
            data: new Uint8Array(r.data),
          })),
      })),
    }))
}

/** Adds all machines of a workspace to those that are there, or none of them. @returns how many */
export function insertWorkspace(store: Store, list: readonly WorkspaceMachine[]): number {
  store.transaction((tx) => {
    for (const machine of list) insertMachine(tx as unknown as Store, machine)
  })
  return list.length
}

function keptSheet(content: string): Sheet {
  const read = readSheetText(content)
  if (!read.ok) throw new Error(`A kept sheet does not read: ${read.problems[0].message}`)
  return read.sheet
}

export const findMachine = (store: Store, id: string) =>
  store.select().from(machines).where(eq(machines.id, id)).get()
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
export function keepVersion(store: Pick<Store, 'insert'>, sheet: Sheet): string {
  const content = writeSheetText(sheet)
  const hash = createHash('sha256').update(content).digest('hex')
  store.insert(sheetVersions).values({ hash, content, createdAt: new Date() }).onConflictDoNothing().run()
  return hash
}
