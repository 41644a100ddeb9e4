import { randomUUID } from 'node:crypto'
import { eq } from 'drizzle-orm'
import { briefSchema } from '../../core/size/brief'
import type { Brief } from '../../core/size/brief'
import type { Sheet } from '../../core/sheet/schema'
import { writeSheetText } from '../../core/sheet/read'
import type { Store } from './open'
import { machines, sheets } from './schema'

/** Makes a machine with its sheet. @returns the machine's id */
export function insertMachine(
  store: Store,
  machine: { name: string; summary: string; brief?: Brief; sheet: Sheet },
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
    tx.insert(sheets)
      .values({ id: randomUUID(), machineId: id, content: writeSheetText(machine.sheet), updatedAt: now })
      .run()
  })
  return id
}

export const findMachine = (store: Store, id: string) =>
  store.select().from(machines).where(eq(machines.id, id)).get()
export const findSheetOf = (store: Store, machineId: string) =>
  store.select().from(sheets).where(eq(sheets.machineId, machineId)).get()
