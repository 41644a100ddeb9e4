import { createHash, randomUUID } from 'node:crypto'
import { asc, eq } from 'drizzle-orm'
import { briefSchema } from '../../core/size/brief'
import type { Brief } from '../../core/size/brief'
import type { Sheet } from '../../core/sheet/schema'
import { writeSheetText } from '../../core/sheet/read'
import type { Store } from './open'
import { machines, sheets, sheetVersions } from './schema'

/** Makes a machine with its variants, each a sheet. @returns the machine's id */
export function insertMachine(
  store: Store,
  machine: {
    name: string
    summary: string
    brief?: Brief
    variants: readonly { name: string; sheet: Sheet }[]
  },
): string {
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
    machine.variants.forEach(({ name, sheet }, position) =>
      tx
        .insert(sheets)
        .values({
          id: randomUUID(),
          machineId: id,
          name,
          position,
          content: writeSheetText(sheet),
          updatedAt: now,
        })
        .run(),
    )
  })
  return id
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
