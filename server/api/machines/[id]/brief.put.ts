import { findMachine } from '../../../database/machines'
import { and, eq } from 'drizzle-orm'
import { briefBody, type Saved } from '#shared/api'
import { machines } from '../../../database/schema'

export default defineEventHandler(async (event): Promise<Saved> => {
  const id = getRouterParam(event, 'id')!
  const { revision, brief } = await readChecked(event, briefBody)
  const store = useStore()
  const now = new Date()
  const done = store
    .update(machines)
    .set({ brief: JSON.stringify(brief), briefRevision: revision + 1, updatedAt: now })
    .where(and(eq(machines.id, id), eq(machines.briefRevision, revision)))
    .run()
  if (!done.changes) {
    if (!findMachine(store, id)) refuse(404, 'There is no such machine; it may have been deleted.')
    refuse(409, 'The brief was changed elsewhere since it was opened here.')
  }
  return { revision: revision + 1, updatedAt: now.getTime() }
})
